CREATE TABLE `kept_readings` (
	`reader` text NOT NULL,
	`hash` text NOT NULL,
	`build` text NOT NULL,
	`reading` blob NOT NULL,
	PRIMARY KEY(`reader`, `hash`)
);
