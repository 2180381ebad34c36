CREATE TABLE `routine` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`name` varchar(80) NOT NULL,
	`filter` json NOT NULL,
	`steps` json NOT NULL,
	`send` boolean NOT NULL,
	`plan` json,
	`due_at` datetime(3),
	`last_at` datetime(3),
	`last_said` varchar(300),
	`needs_look` boolean NOT NULL DEFAULT false,
	`by_id` varchar(40) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `routine_id` PRIMARY KEY(`id`),
	CONSTRAINT `routine_name_unique` UNIQUE(`name`)
);
--> statement-breakpoint
ALTER TABLE `run` ADD `routine_id` bigint unsigned;--> statement-breakpoint
CREATE INDEX `routine_due` ON `routine` (`due_at`);--> statement-breakpoint
CREATE INDEX `run_routine` ON `run` (`routine_id`,`id`);