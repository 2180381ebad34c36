ALTER TABLE `sale` DROP INDEX `sale_order`;--> statement-breakpoint
ALTER TABLE `sale` ADD `line` smallint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `sale` ADD `rate_millionths` bigint;--> statement-breakpoint
ALTER TABLE `sale` ADD `raw_state` varchar(40);--> statement-breakpoint
ALTER TABLE `sale` ADD CONSTRAINT `sale_order` UNIQUE(`account_id`,`order_id`,`line`);