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
CREATE TABLE `dropped_file` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`drop_id` bigint unsigned NOT NULL,
	`path` varchar(300) NOT NULL,
	`bytes` bigint NOT NULL,
	`state` varchar(8) NOT NULL DEFAULT 'coming',
	`hash` varchar(64),
	`taken_at` datetime(3),
	`codes` json,
	`item_id` bigint unsigned,
	`tied_by` varchar(8),
	`place` int NOT NULL DEFAULT 0,
	`said` text,
	CONSTRAINT `dropped_file_id` PRIMARY KEY(`id`),
	CONSTRAINT `dropped_once` UNIQUE(`drop_id`,`path`,`bytes`)
);
--> statement-breakpoint
CREATE TABLE `photo_drop` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`state` varchar(8) NOT NULL DEFAULT 'open',
	`way` varchar(8) NOT NULL DEFAULT 'name',
	`pattern` varchar(120) NOT NULL DEFAULT '',
	`gap_seconds` int NOT NULL DEFAULT 60,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	CONSTRAINT `photo_drop_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `photo_file` ADD `look` json;--> statement-breakpoint
ALTER TABLE `photo_file` ADD `sharp` double;--> statement-breakpoint
ALTER TABLE `photo_file` ADD `bright` double;--> statement-breakpoint
ALTER TABLE `photo_file` ADD `middle` double;--> statement-breakpoint
ALTER TABLE `photo_file` ADD `empty_share` double;--> statement-breakpoint
CREATE INDEX `dropped_item` ON `dropped_file` (`drop_id`,`state`,`item_id`);--> statement-breakpoint
CREATE INDEX `drop_open` ON `photo_drop` (`state`,`id`);