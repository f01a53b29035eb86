CREATE TABLE `sightings` (
	`kind` text NOT NULL,
	`subject` text NOT NULL,
	`at` text NOT NULL,
	`seen` text NOT NULL,
	PRIMARY KEY(`kind`, `subject`)
);
