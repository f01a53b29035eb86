ALTER TABLE `snapshots` ADD `turn` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `snapshots_by_turn` ON `snapshots` (`turn`);