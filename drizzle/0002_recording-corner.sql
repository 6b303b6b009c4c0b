CREATE TABLE `settings` (
	`name` text PRIMARY KEY NOT NULL,
	`json` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `take_lines` (
	`take_id` text PRIMARY KEY NOT NULL,
	`engine_version` integer NOT NULL,
	`offset_sec` real NOT NULL,
	`plan_id` text NOT NULL,
	`json` text NOT NULL,
	FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `audio_chunks` ADD `codec` text DEFAULT 'pcm' NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` ADD `pace` text;--> statement-breakpoint
ALTER TABLE `takes` ADD `bits` integer DEFAULT 16 NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` ADD `device` text;--> statement-breakpoint
ALTER TABLE `takes` ADD `latency_sec` real;--> statement-breakpoint
ALTER TABLE `takes` ADD `sound_gone_at` integer;--> statement-breakpoint
CREATE INDEX `takes_by_state` ON `takes` (`state`,`created_at`);