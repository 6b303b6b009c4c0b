ALTER TABLE `takes` ADD `removed_at` integer;--> statement-breakpoint
ALTER TABLE `takes` ADD `trouble` text;