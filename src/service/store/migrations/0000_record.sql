CREATE TABLE `blobs` (
	`hash` text PRIMARY KEY NOT NULL,
	`bytes` blob NOT NULL
);
--> statement-breakpoint
CREATE TABLE `history` (
	`revision` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` text NOT NULL,
	`who` text NOT NULL,
	`title` text,
	`path` text NOT NULL,
	`was` text,
	`is_now` text
);
--> statement-breakpoint
CREATE INDEX `history_by_title` ON `history` (`title`,`revision`);--> statement-breakpoint
CREATE TABLE `linked_trees` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`path` text NOT NULL,
	`snapshot` text,
	FOREIGN KEY (`title`) REFERENCES `titles`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `placements` (
	`title` text NOT NULL,
	`name` text NOT NULL,
	`version` integer NOT NULL,
	`position` integer NOT NULL,
	`format` text NOT NULL,
	`where_in_words` text,
	`settings` text NOT NULL,
	`units` text NOT NULL,
	PRIMARY KEY(`title`, `name`),
	FOREIGN KEY (`title`) REFERENCES `titles`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `publishers` (
	`id` integer PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`domain` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `readings` (
	`title` text NOT NULL,
	`platform` text NOT NULL,
	`reading` text NOT NULL,
	PRIMARY KEY(`title`, `platform`),
	FOREIGN KEY (`title`) REFERENCES `titles`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `snapshots` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`files` text NOT NULL,
	`folders` text NOT NULL,
	`skipped` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `titles` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`position` integer NOT NULL,
	`name` text NOT NULL,
	`audience` text NOT NULL,
	`stages` text NOT NULL,
	`editions` text NOT NULL,
	`networks` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `wirings` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`snapshot` text NOT NULL,
	`wiring` text NOT NULL
);
