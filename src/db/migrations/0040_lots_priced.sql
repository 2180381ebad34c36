CREATE TABLE `entry_sales` (
	`market` varchar(40) NOT NULL,
	`entry` varchar(60) NOT NULL,
	`told` json NOT NULL,
	`read_at` datetime(3) NOT NULL,
	CONSTRAINT `entry_sales_market_entry_pk` PRIMARY KEY(`market`,`entry`)
);
--> statement-breakpoint
CREATE TABLE `item_part` (
	`set_id` bigint unsigned NOT NULL,
	`part_id` bigint unsigned NOT NULL,
	`pieces` int NOT NULL,
	CONSTRAINT `item_part_set_id_part_id_pk` PRIMARY KEY(`set_id`,`part_id`)
);
--> statement-breakpoint
ALTER TABLE `kit` ADD `pricing` json;--> statement-breakpoint
ALTER TABLE `kit` ADD `place_holds` int;--> statement-breakpoint
ALTER TABLE `kit_lot` ADD `sort` varchar(120) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `kit_lot` ADD `basis` json;--> statement-breakpoint
ALTER TABLE `kit_lot` ADD `is_kept` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `kit_lot` ADD `tiers` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `kit_lot` ADD `meant` varchar(6) DEFAULT 'add' NOT NULL;--> statement-breakpoint
ALTER TABLE `kit_lot` ADD `run_id` bigint unsigned;--> statement-breakpoint
ALTER TABLE `kit_lot` ADD `edited` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
CREATE INDEX `entry_sales_read` ON `entry_sales` (`read_at`);--> statement-breakpoint
CREATE INDEX `item_part_part` ON `item_part` (`part_id`);--> statement-breakpoint
CREATE INDEX `kit_lot_entry` ON `kit_lot` (`entry`);