CREATE TABLE `batch` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`name` varchar(120) NOT NULL,
	`supplier` varchar(120) NOT NULL,
	`bought_on` date,
	`invoice` varchar(80) NOT NULL,
	`total_cost` bigint,
	`share_by` varchar(8) NOT NULL,
	`shares` json NOT NULL,
	`sku_pattern` varchar(80) NOT NULL,
	`state` varchar(8) NOT NULL,
	`settings` json NOT NULL,
	`run_id` bigint unsigned NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `batch_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `batch_line` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`batch_id` bigint unsigned NOT NULL,
	`line_key` varchar(36) NOT NULL,
	`scanned` varchar(200) NOT NULL,
	`code` varchar(20) NOT NULL,
	`kind` varchar(5) NOT NULL,
	`finding` varchar(8) NOT NULL,
	`said` varchar(300) NOT NULL,
	`item_id` bigint unsigned,
	`combination` varchar(16),
	`units` int NOT NULL,
	`units_before` int,
	`cost_before` bigint,
	`settings` json NOT NULL,
	`asks_grade` boolean NOT NULL,
	`asks_price` boolean NOT NULL,
	`found` json NOT NULL,
	`sales` json,
	`silent` json NOT NULL,
	`look_at` datetime(3),
	`done_at` datetime(3),
	`is_undone` boolean NOT NULL DEFAULT false,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `batch_line_id` PRIMARY KEY(`id`),
	CONSTRAINT `line_once` UNIQUE(`line_key`)
);
--> statement-breakpoint
CREATE TABLE `intake_preset` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`name` varchar(60) NOT NULL,
	`settings` json NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `intake_preset_id` PRIMARY KEY(`id`),
	CONSTRAINT `intake_preset_name_unique` UNIQUE(`name`)
);
--> statement-breakpoint
ALTER TABLE `item` ADD `batch` varchar(20) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `item` ADD `is_varied` boolean GENERATED ALWAYS AS (`axes` <> '[]') STORED;--> statement-breakpoint
CREATE INDEX `batch_state` ON `batch` (`state`,`id`);--> statement-breakpoint
CREATE INDEX `line_batch` ON `batch_line` (`batch_id`,`id`);--> statement-breakpoint
CREATE INDEX `line_item` ON `batch_line` (`item_id`);--> statement-breakpoint
CREATE INDEX `line_look` ON `batch_line` (`look_at`);--> statement-breakpoint
CREATE INDEX `item_batch` ON `item` (`archived`,`batch`,`id`);--> statement-breakpoint
CREATE INDEX `item_barcode` ON `item` (`barcode`);--> statement-breakpoint
CREATE INDEX `item_varied` ON `item` (`is_varied`);