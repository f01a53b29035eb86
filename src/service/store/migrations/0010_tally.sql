CREATE TABLE `tally_days` (
	`series` integer NOT NULL,
	`day` integer NOT NULL,
	`currency` text NOT NULL,
	`requests` integer,
	`matched` integer,
	`impressions` integer NOT NULL,
	`clicks` integer,
	`rewards` integer,
	`revenue` integer NOT NULL,
	PRIMARY KEY(`series`, `day`, `currency`)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE TABLE `tally_imports` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`network` text NOT NULL,
	`source` text NOT NULL,
	`name` text NOT NULL,
	`at` text NOT NULL,
	`who` text NOT NULL,
	`from_day` integer,
	`to_day` integer,
	`rows` integer DEFAULT 0 NOT NULL,
	`complete` integer DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE INDEX `tally_imports_by_network` ON `tally_imports` (`network`,`id`);--> statement-breakpoint
CREATE TABLE `tally_rates` (
	`currency` text NOT NULL,
	`base` text NOT NULL,
	`day` integer NOT NULL,
	`nanos` integer NOT NULL,
	PRIMARY KEY(`currency`, `base`, `day`)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE TABLE `tally_releases` (
	`title` text NOT NULL,
	`platform` text NOT NULL,
	`version` text NOT NULL,
	`day` integer NOT NULL,
	`who` text NOT NULL,
	PRIMARY KEY(`title`, `platform`, `version`),
	FOREIGN KEY (`title`) REFERENCES `titles`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `tally_rows` (
	`series` integer NOT NULL,
	`day` integer NOT NULL,
	`country` text NOT NULL,
	`part` text NOT NULL,
	`import` integer NOT NULL,
	`requests` integer,
	`matched` integer,
	`impressions` integer NOT NULL,
	`clicks` integer,
	`rewards` integer,
	`revenue` integer NOT NULL,
	`currency` text NOT NULL,
	PRIMARY KEY(`series`, `day`, `country`, `part`)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE TABLE `tally_series` (
	`id` integer PRIMARY KEY NOT NULL,
	`network` text NOT NULL,
	`kind` text NOT NULL,
	`key` text NOT NULL,
	`app` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `tally_series_by_key` ON `tally_series` (`network`,`kind`,`key`);