CREATE TABLE `offer` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`account_id` bigint unsigned NOT NULL,
	`listing_id` bigint unsigned NOT NULL,
	`remote_id` varchar(60) NOT NULL,
	`amount` bigint NOT NULL,
	`buyer` varchar(120) NOT NULL,
	`words` varchar(1000) NOT NULL,
	`state` varchar(10) NOT NULL,
	`counter` bigint,
	`made_at` datetime(3) NOT NULL,
	`deadline` datetime(3) NOT NULL,
	`answering_at` datetime(3),
	`answered_by` varchar(120),
	`seen_at` datetime(3) NOT NULL,
	CONSTRAINT `offer_id` PRIMARY KEY(`id`),
	CONSTRAINT `offer_there` UNIQUE(`account_id`,`remote_id`)
);
--> statement-breakpoint
ALTER TABLE `account` ADD `offer_rule` json;--> statement-breakpoint
ALTER TABLE `listing` ADD `ends_at` datetime(3);--> statement-breakpoint
ALTER TABLE `listing` ADD `bids` smallint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `listing` ADD `highest_bid` bigint;--> statement-breakpoint
ALTER TABLE `sale` ADD `personal` varchar(400);--> statement-breakpoint
ALTER TABLE `sale` ADD `collected` boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX `offer_open` ON `offer` (`state`,`listing_id`);--> statement-breakpoint
CREATE INDEX `offer_listing` ON `offer` (`listing_id`);