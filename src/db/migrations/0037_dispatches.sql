CREATE TABLE `dispatch` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`sale_id` bigint unsigned NOT NULL,
	`account_id` bigint unsigned NOT NULL,
	`item_id` bigint unsigned NOT NULL,
	`sku` varchar(40) NOT NULL,
	`quantity` int NOT NULL,
	`town` varchar(120) NOT NULL,
	`state` varchar(7) NOT NULL,
	`remote_id` varchar(80),
	`tracking` varchar(80),
	`message` varchar(300),
	`at` datetime(3) NOT NULL,
	`next_at` datetime(3) NOT NULL,
	CONSTRAINT `dispatch_id` PRIMARY KEY(`id`),
	CONSTRAINT `dispatch_sale` UNIQUE(`sale_id`)
);
--> statement-breakpoint
ALTER TABLE `account` ADD `served_by` bigint unsigned;--> statement-breakpoint
CREATE INDEX `dispatch_due` ON `dispatch` (`state`,`next_at`);