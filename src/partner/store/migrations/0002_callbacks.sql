ALTER TABLE `accounts` ADD `push_hash` text;--> statement-breakpoint
ALTER TABLE `accounts` ADD `reward_address` text;--> statement-breakpoint
ALTER TABLE `accounts` ADD `reward_key` text;