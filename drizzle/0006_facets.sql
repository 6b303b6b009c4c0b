CREATE TABLE `take_findings` (
	`take_id` text NOT NULL,
	`kind` text NOT NULL,
	PRIMARY KEY(`take_id`, `kind`),
	FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `findings_by_kind` ON `take_findings` (`kind`);--> statement-breakpoint
ALTER TABLE `take_lines` ADD `key` text GENERATED ALWAYS AS (json_extract(json, '$.key')) VIRTUAL;--> statement-breakpoint
CREATE INDEX `lines_by_key` ON `take_lines` (`key`);--> statement-breakpoint
ALTER TABLE `take_words` ADD `stars` integer GENERATED ALWAYS AS (json_extract(json, '$.stars')) VIRTUAL;--> statement-breakpoint
CREATE INDEX `words_by_stars` ON `take_words` (`stars`);--> statement-breakpoint
ALTER TABLE `takes` ADD `plan_id` text GENERATED ALWAYS AS (json_extract(plan, '$.id')) VIRTUAL;--> statement-breakpoint
CREATE INDEX `takes_by_plan` ON `takes` (`plan_id`);--> statement-breakpoint
CREATE INDEX `takes_by_title` ON `takes` (`title`);--> statement-breakpoint
INSERT OR IGNORE INTO `take_findings` (`take_id`, `kind`) SELECT `take_id`, json_extract(value, '$.kind') FROM `take_lines`, json_each(`take_lines`.`json`, '$.findings');
