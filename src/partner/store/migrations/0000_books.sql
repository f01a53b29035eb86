CREATE TABLE `accounts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`network` text NOT NULL,
	`name` text NOT NULL,
	`number` text,
	`key_hash` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `accounts_by_key` ON `accounts` (`network`,`key_hash`);--> statement-breakpoint
CREATE TABLE `answers` (
	`account` integer NOT NULL,
	`key` text NOT NULL,
	`request` text NOT NULL,
	`status` integer NOT NULL,
	`body` text NOT NULL,
	PRIMARY KEY(`account`, `key`)
);
--> statement-breakpoint
CREATE TABLE `apps` (
	`row` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`network` text NOT NULL,
	`account` integer NOT NULL,
	`id` text NOT NULL,
	`platform` text NOT NULL,
	`identifier` text NOT NULL,
	`name` text NOT NULL,
	`audience` text NOT NULL,
	`terms` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `apps_by_id` ON `apps` (`network`,`id`);--> statement-breakpoint
CREATE UNIQUE INDEX `apps_by_identifier` ON `apps` (`network`,`platform`,`identifier`);--> statement-breakpoint
CREATE TABLE `listings` (
	`platform` text NOT NULL,
	`identifier` text NOT NULL,
	`name` text NOT NULL,
	`site` text,
	PRIMARY KEY(`platform`, `identifier`)
);
--> statement-breakpoint
CREATE TABLE `sites` (
	`domain` text PRIMARY KEY NOT NULL,
	`address` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `units` (
	`row` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`network` text NOT NULL,
	`account` integer NOT NULL,
	`id` text NOT NULL,
	`app` text,
	`platform` text NOT NULL,
	`format` text NOT NULL,
	`name` text NOT NULL,
	`status` text NOT NULL,
	`serves_from` text NOT NULL,
	`settings` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `units_by_id` ON `units` (`network`,`id`);--> statement-breakpoint
CREATE INDEX `units_by_account` ON `units` (`network`,`account`,`row`);