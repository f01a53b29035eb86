CREATE TABLE `ad_events` (
	`ad` integer NOT NULL,
	`event` text NOT NULL,
	`at` text NOT NULL,
	PRIMARY KEY(`ad`, `event`)
);
--> statement-breakpoint
CREATE TABLE `ads` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`network` text NOT NULL,
	`unit` text NOT NULL,
	`account` integer,
	`format` text NOT NULL,
	`is_test` integer NOT NULL,
	`is_development` integer NOT NULL,
	`price` integer NOT NULL,
	`given` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `ads_by_unit` ON `ads` (`network`,`unit`);--> statement-breakpoint
CREATE TABLE `devices` (
	`network` text NOT NULL,
	`account` integer NOT NULL,
	`id` text NOT NULL,
	PRIMARY KEY(`network`, `account`, `id`)
);
--> statement-breakpoint
ALTER TABLE `accounts` ADD `strikes` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `accounts` ADD `suspended` text;