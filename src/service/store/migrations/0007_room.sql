CREATE TABLE `tidied` (
	`id` integer PRIMARY KEY NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE `snapshots` ADD `used` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `wirings` ADD `at` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
UPDATE `snapshots` SET `used` = unixepoch() * 1000;--> statement-breakpoint
UPDATE `wirings` SET `at` = unixepoch() * 1000;
