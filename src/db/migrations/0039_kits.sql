CREATE TABLE `kit` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`name` varchar(120) NOT NULL,
	`account_id` bigint unsigned,
	`supplier` varchar(120) NOT NULL,
	`total_cost` bigint,
	`share_by` varchar(8) NOT NULL,
	`state` varchar(8) NOT NULL,
	`run_id` bigint unsigned NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `kit_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `kit_lot` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`kit_id` bigint unsigned NOT NULL,
	`entry` varchar(60) NOT NULL,
	`name` varchar(300) NOT NULL,
	`finish` varchar(60) NOT NULL,
	`condition_grade` varchar(20),
	`quantity` int NOT NULL,
	`grams` int,
	`price` bigint,
	`comment` varchar(1000) NOT NULL,
	`place` varchar(60) NOT NULL,
	`state` varchar(8) NOT NULL,
	`sources` json NOT NULL,
	`item_id` bigint unsigned,
	CONSTRAINT `kit_lot_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `kit_state` ON `kit` (`state`,`id`);--> statement-breakpoint
CREATE INDEX `kit_lot_kit` ON `kit_lot` (`kit_id`,`id`);