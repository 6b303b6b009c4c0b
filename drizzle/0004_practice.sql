CREATE TABLE `diary_words` (
	`day` text PRIMARY KEY NOT NULL,
	`text` text NOT NULL,
	`updated_at` integer DEFAULT (unixepoch() * 1000) NOT NULL
);
--> statement-breakpoint
CREATE TABLE `drill_runs` (
	`id` text PRIMARY KEY NOT NULL,
	`drill_id` text NOT NULL,
	`take_id` text,
	`sitting` text NOT NULL,
	`tempo` real NOT NULL,
	`met` integer NOT NULL,
	`of` integer NOT NULL,
	`passed` integer NOT NULL,
	`seconds` real NOT NULL,
	`json` text NOT NULL,
	`created_at` integer DEFAULT (unixepoch() * 1000) NOT NULL,
	FOREIGN KEY (`drill_id`) REFERENCES `drills`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE INDEX `runs_by_drill` ON `drill_runs` (`drill_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `runs_by_time` ON `drill_runs` (`created_at`);--> statement-breakpoint
CREATE TABLE `drills` (
	`id` text PRIMARY KEY NOT NULL,
	`chart_id` text,
	`title` text NOT NULL,
	`key` text NOT NULL,
	`json` text NOT NULL,
	`ladder` text NOT NULL,
	`memory` text,
	`due_at` integer NOT NULL,
	`away_at` integer,
	`created_at` integer DEFAULT (unixepoch() * 1000) NOT NULL,
	FOREIGN KEY (`chart_id`) REFERENCES `charts`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE UNIQUE INDEX `drills_key_unique` ON `drills` (`key`);--> statement-breakpoint
CREATE INDEX `drills_by_due` ON `drills` (`away_at`,`due_at`);--> statement-breakpoint
ALTER TABLE `takes` ADD `drop_out` text;--> statement-breakpoint
ALTER TABLE `takes` ADD `drill_id` text REFERENCES drills(id) ON DELETE set null;