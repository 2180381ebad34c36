CREATE TABLE `former_number` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`listing_id` bigint unsigned NOT NULL,
	`account_id` bigint unsigned NOT NULL,
	`remote_id` varchar(60) NOT NULL,
	`remote_url` varchar(300),
	`live_since` datetime(3),
	`why` varchar(12) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `former_number_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `schedule` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`kind` varchar(10) NOT NULL,
	`title` varchar(200) NOT NULL,
	`due_at` datetime(3) NOT NULL,
	`input` json NOT NULL,
	`by_id` varchar(40) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`state` varchar(10) NOT NULL DEFAULT 'waiting',
	`run_id` bigint unsigned,
	`message` varchar(300),
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `schedule_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `worker_presence` (
	`name` varchar(60) NOT NULL,
	`seen_at` datetime(3) NOT NULL,
	CONSTRAINT `worker_presence_name` PRIMARY KEY(`name`)
);
--> statement-breakpoint
ALTER TABLE `movement` ADD `note` varchar(200);--> statement-breakpoint
ALTER TABLE `run` ADD `stopped_at` datetime(3);--> statement-breakpoint
ALTER TABLE `market_account` ADD `own_pace` json;--> statement-breakpoint
ALTER TABLE `market_account` ADD `paused_at` datetime(3);--> statement-breakpoint
ALTER TABLE `market_account` ADD `warned_until` datetime(3);--> statement-breakpoint
ALTER TABLE `market_account` ADD `unwell_since` datetime(3);--> statement-breakpoint
ALTER TABLE `market_account` ADD `probe_at` datetime(3);--> statement-breakpoint
ALTER TABLE `market_account` ADD `silences` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `market_account` ADD `drift_rules` json DEFAULT ('{}') NOT NULL;--> statement-breakpoint
ALTER TABLE `market_account` ADD `stock_reserve` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `market_account` ADD `stock_cap` int;--> statement-breakpoint
ALTER TABLE `market_account` ADD `relist_cancelled` boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE `market_account` ADD `renewal` json;--> statement-breakpoint
ALTER TABLE `market_account` ADD `compared_at` datetime(3);--> statement-breakpoint
ALTER TABLE `listing` ADD `renews_at` datetime(3);--> statement-breakpoint
ALTER TABLE `listing` ADD `offers_open` smallint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `job` ADD `kind` varchar(6) DEFAULT 'sync' NOT NULL;--> statement-breakpoint
ALTER TABLE `sale` ADD `state` varchar(10) DEFAULT 'paid' NOT NULL;--> statement-breakpoint
ALTER TABLE `sale` ADD `cancelled_at` datetime(3);--> statement-breakpoint
CREATE INDEX `former_listing` ON `former_number` (`listing_id`);--> statement-breakpoint
CREATE INDEX `former_remote` ON `former_number` (`account_id`,`remote_id`);--> statement-breakpoint
CREATE INDEX `schedule_due` ON `schedule` (`state`,`due_at`);