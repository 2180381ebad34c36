CREATE TABLE `consignment` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`account_id` bigint unsigned NOT NULL,
	`name` varchar(120) NOT NULL,
	`state` varchar(8) NOT NULL,
	`units` json NOT NULL,
	`labels` varchar(9) NOT NULL,
	`label_seconds` int NOT NULL,
	`hour_cost` bigint NOT NULL,
	`prep` varchar(120) NOT NULL,
	`prep_cost` bigint NOT NULL,
	`box_units` int NOT NULL,
	`sells_there` boolean NOT NULL,
	`limits` json,
	`plans` json NOT NULL,
	`plan_id` varchar(80),
	`by_name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `consignment_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `packed_unit` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`pack_key` varchar(36) NOT NULL,
	`consignment_id` bigint unsigned NOT NULL,
	`shipment_id` bigint unsigned NOT NULL,
	`box` int NOT NULL,
	`sku` varchar(40) NOT NULL,
	`is_new_box` boolean NOT NULL,
	`is_undone` boolean NOT NULL DEFAULT false,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `packed_unit_id` PRIMARY KEY(`id`),
	CONSTRAINT `packed_once` UNIQUE(`pack_key`)
);
--> statement-breakpoint
CREATE TABLE `shipment` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`consignment_id` bigint unsigned NOT NULL,
	`account_id` bigint unsigned NOT NULL,
	`remote_id` varchar(80) NOT NULL,
	`warehouse` varchar(80) NOT NULL,
	`warehouse_name` varchar(80) NOT NULL,
	`address` json NOT NULL,
	`is_closed` boolean NOT NULL DEFAULT false,
	`units` json NOT NULL,
	`boxes` json NOT NULL,
	`box_codes` json NOT NULL,
	`tracking` json NOT NULL,
	`state` varchar(8) NOT NULL,
	`carrier` varchar(80) NOT NULL,
	`costs` json NOT NULL,
	`received` json NOT NULL,
	`claims` json NOT NULL,
	`lost` json NOT NULL,
	`shipped_at` datetime(3),
	`received_at` datetime(3),
	`looked_at` datetime(3),
	CONSTRAINT `shipment_id` PRIMARY KEY(`id`),
	CONSTRAINT `shipment_remote` UNIQUE(`account_id`,`remote_id`)
);
--> statement-breakpoint
ALTER TABLE `item` ADD `elsewhere` json DEFAULT ('{}') NOT NULL;--> statement-breakpoint
ALTER TABLE `movement` ADD `place` varchar(5) DEFAULT 'here' NOT NULL;--> statement-breakpoint
ALTER TABLE `movement` ADD `account_id` bigint unsigned;--> statement-breakpoint
CREATE INDEX `consignment_state` ON `consignment` (`state`,`id`);--> statement-breakpoint
CREATE INDEX `packed_consignment` ON `packed_unit` (`consignment_id`,`id`);--> statement-breakpoint
CREATE INDEX `shipment_consignment` ON `shipment` (`consignment_id`);--> statement-breakpoint
CREATE INDEX `shipment_state` ON `shipment` (`state`,`looked_at`);