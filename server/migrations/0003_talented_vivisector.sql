CREATE TABLE `pictures` (
	`project_id` text PRIMARY KEY NOT NULL,
	`revision` integer NOT NULL,
	`bytes` blob NOT NULL,
	FOREIGN KEY (`project_id`) REFERENCES `projects`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `projects` ADD `demo` text;--> statement-breakpoint
ALTER TABLE `projects` ADD `deleted_at` text;