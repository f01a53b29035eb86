ALTER TABLE `tally_rows` ADD `detail` integer DEFAULT 0 NOT NULL;
--> statement-breakpoint
UPDATE `tally_rows` SET `detail` = CASE WHEN `part` GLOB '[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]T*.[0-9][0-9][0-9]Z' AND length(`part`) = 24 THEN 1 ELSE 2 END WHERE `part` <> '';
