CREATE TABLE `phrases` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`tags` text NOT NULL,
	`json` text NOT NULL,
	`source` text NOT NULL,
	`take_id` text,
	`take_beat` real,
	`created_at` integer DEFAULT (unixepoch() * 1000) NOT NULL,
	`removed_at` integer,
	FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE INDEX `phrases_by_time` ON `phrases` (`removed_at`,`created_at`);--> statement-breakpoint
CREATE TABLE `searched_lines` (
	`take_id` text PRIMARY KEY NOT NULL,
	`engine_version` integer NOT NULL,
	`json` text NOT NULL,
	`made_at` integer NOT NULL,
	FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON UPDATE no action ON DELETE cascade
);
