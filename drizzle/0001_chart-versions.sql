CREATE TABLE `chart_versions` (
	`id` text PRIMARY KEY NOT NULL,
	`chart_id` text NOT NULL,
	`text` text NOT NULL,
	`created_at` integer DEFAULT (unixepoch() * 1000) NOT NULL,
	FOREIGN KEY (`chart_id`) REFERENCES `charts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `versions_by_chart` ON `chart_versions` (`chart_id`,`created_at`);