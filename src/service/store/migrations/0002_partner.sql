CREATE TABLE `inventories` (
	`network` text PRIMARY KEY NOT NULL,
	`source` text NOT NULL,
	`read_at` text NOT NULL,
	`apps` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `inventory_units` (
	`network` text NOT NULL,
	`id` text NOT NULL,
	`position` integer NOT NULL,
	`unit` text NOT NULL,
	`known_as` text NOT NULL,
	PRIMARY KEY(`network`, `id`)
);
--> statement-breakpoint
CREATE TABLE `ticks` (
	`title` text NOT NULL,
	`platform` text NOT NULL,
	`network` text NOT NULL,
	`step` text NOT NULL,
	`who` text NOT NULL,
	`at` text NOT NULL,
	`note` text,
	PRIMARY KEY(`title`, `platform`, `network`, `step`),
	FOREIGN KEY (`title`) REFERENCES `titles`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `publishers` ADD `credentials` text;