CREATE TABLE `badge` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`name` varchar(60) NOT NULL,
	`art` json NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `badge_id` PRIMARY KEY(`id`),
	CONSTRAINT `badge_name_unique` UNIQUE(`name`)
);
--> statement-breakpoint
ALTER TABLE `photo_file` ADD `look` json;