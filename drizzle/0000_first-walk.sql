CREATE TABLE `audio_chunks` (
	`take_id` text NOT NULL,
	`sequence` integer NOT NULL,
	`frames` integer NOT NULL,
	`first_frame` integer NOT NULL,
	`checksum` text NOT NULL,
	`pcm` blob NOT NULL,
	PRIMARY KEY(`take_id`, `sequence`),
	FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `charts` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`text` text NOT NULL,
	`created_at` integer DEFAULT (unixepoch() * 1000) NOT NULL,
	`updated_at` integer DEFAULT (unixepoch() * 1000) NOT NULL
);
--> statement-breakpoint
CREATE TABLE `notes` (
	`take_id` text PRIMARY KEY NOT NULL,
	`json` text NOT NULL,
	`created_at` integer DEFAULT (unixepoch() * 1000) NOT NULL,
	FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `reports` (
	`take_id` text NOT NULL,
	`plan_id` text NOT NULL,
	`engine_version` integer NOT NULL,
	`offset_sec` real NOT NULL,
	`json` text NOT NULL,
	PRIMARY KEY(`take_id`, `plan_id`),
	FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `takes` (
	`id` text PRIMARY KEY NOT NULL,
	`chart_id` text,
	`title` text NOT NULL,
	`number` integer NOT NULL,
	`state` text NOT NULL,
	`source` text NOT NULL,
	`chart_text` text NOT NULL,
	`tempo` real NOT NULL,
	`choruses` integer NOT NULL,
	`plan` text NOT NULL,
	`rate` integer NOT NULL,
	`frames` integer DEFAULT 0 NOT NULL,
	`offset_sec` real DEFAULT 0 NOT NULL,
	`created_at` integer DEFAULT (unixepoch() * 1000) NOT NULL,
	FOREIGN KEY (`chart_id`) REFERENCES `charts`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE UNIQUE INDEX `takes_number_unique` ON `takes` (`number`);--> statement-breakpoint
CREATE INDEX `takes_by_time` ON `takes` (`created_at`);