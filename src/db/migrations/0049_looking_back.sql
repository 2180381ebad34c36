CREATE TABLE `first_listed` (
	`item_id` bigint unsigned NOT NULL,
	`account_id` bigint unsigned NOT NULL,
	`at` datetime(3) NOT NULL,
	`nth` smallint NOT NULL DEFAULT 1,
	CONSTRAINT `first_listed_item_id_account_id_pk` PRIMARY KEY(`item_id`,`account_id`)
);
--> statement-breakpoint
CREATE TABLE `insight_cursor` (
	`source` varchar(20) NOT NULL,
	`up_to` bigint NOT NULL,
	CONSTRAINT `insight_cursor_source` PRIMARY KEY(`source`)
);
--> statement-breakpoint
CREATE TABLE `item_milestone` (
	`item_id` bigint unsigned NOT NULL,
	`listed_at` datetime(3),
	`cut_at` datetime(3),
	`renewed_at` datetime(3),
	`crossed_at` datetime(3),
	`moved_up_to` bigint,
	`kept_at` datetime(3) NOT NULL DEFAULT current_timestamp(3) on update current_timestamp(3),
	CONSTRAINT `item_milestone_item_id` PRIMARY KEY(`item_id`)
);
--> statement-breakpoint
CREATE TABLE `stock_layer` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`item_id` bigint unsigned NOT NULL,
	`units` int NOT NULL,
	`in_on` date NOT NULL,
	`out_on` date,
	`how` varchar(4) NOT NULL,
	`sale_id` bigint unsigned,
	CONSTRAINT `stock_layer_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `sale` ADD `fee_payment` bigint;--> statement-breakpoint
ALTER TABLE `sale` ADD `fee_handling` bigint;--> statement-breakpoint
ALTER TABLE `sale` ADD `fee_other` bigint;--> statement-breakpoint
ALTER TABLE `sale` ADD `changed_at` datetime(3) DEFAULT current_timestamp(3) on update current_timestamp(3) NOT NULL;--> statement-breakpoint
CREATE INDEX `milestone_kept` ON `item_milestone` (`kept_at`);--> statement-breakpoint
CREATE INDEX `layer_item` ON `stock_layer` (`item_id`);--> statement-breakpoint
CREATE INDEX `sale_changed` ON `sale` (`changed_at`);