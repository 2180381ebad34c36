CREATE TABLE `task` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`kind` varchar(10) NOT NULL,
	`title` varchar(200) NOT NULL,
	`input` json NOT NULL,
	`cursor_value` json,
	`done_count` int NOT NULL DEFAULT 0,
	`total_count` int NOT NULL DEFAULT 0,
	`state` varchar(8) NOT NULL DEFAULT 'waiting',
	`stop_asked` boolean NOT NULL DEFAULT false,
	`due_at` datetime(3) NOT NULL,
	`lease_owner` varchar(60),
	`lease_until` datetime(3),
	`run_id` bigint unsigned,
	`result` json,
	`message` varchar(300),
	`by_id` varchar(40) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`started_at` datetime(3),
	`finished_at` datetime(3),
	CONSTRAINT `task_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `change_record` ADD `combination` varchar(16);--> statement-breakpoint
ALTER TABLE `movement` ADD `combination` varchar(16);--> statement-breakpoint
ALTER TABLE `sale` ADD `combination` varchar(16);--> statement-breakpoint
CREATE INDEX `task_due` ON `task` (`state`,`due_at`);--> statement-breakpoint
CREATE INDEX `task_run` ON `task` (`run_id`);