CREATE TABLE `print_job` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`title` varchar(200) NOT NULL,
	`request` json NOT NULL,
	`state` varchar(8) NOT NULL,
	`message` varchar(300),
	`lease_until` datetime(3),
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	`printed_at` datetime(3),
	CONSTRAINT `print_job_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `print_state` ON `print_job` (`state`,`id`);