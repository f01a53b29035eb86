CREATE TABLE `acceptances` (
	`title` text NOT NULL,
	`fingerprint` text NOT NULL,
	`rule` text NOT NULL,
	`message` text NOT NULL,
	`reason` text NOT NULL,
	`until` text NOT NULL,
	`who` text NOT NULL,
	`at` text NOT NULL,
	PRIMARY KEY(`title`, `fingerprint`),
	FOREIGN KEY (`title`) REFERENCES `titles`(`id`) ON UPDATE no action ON DELETE cascade
);
