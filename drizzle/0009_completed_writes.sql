CREATE TABLE `completed_writes` (
	`id` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL
);
