CREATE TABLE `box` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`name` varchar(60) NOT NULL,
	`length_mm` int NOT NULL,
	`width_mm` int NOT NULL,
	`height_mm` int NOT NULL,
	`grams` int NOT NULL,
	CONSTRAINT `box_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `learned` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`market` varchar(40) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`place` varchar(60) NOT NULL,
	`said` varchar(190) NOT NULL,
	`theirs` varchar(190) NOT NULL,
	`detail` json,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `learned_id` PRIMARY KEY(`id`),
	CONSTRAINT `learned_once` UNIQUE(`market`,`kind`,`place`,`said`)
);
--> statement-breakpoint
CREATE TABLE `rate` (
	`base` varchar(3) NOT NULL,
	`currency` varchar(3) NOT NULL,
	`day` varchar(10) NOT NULL,
	`millionths` bigint NOT NULL,
	`read_at` datetime(3) NOT NULL,
	CONSTRAINT `rate_base_currency_day_pk` PRIMARY KEY(`base`,`currency`,`day`)
);
--> statement-breakpoint
CREATE TABLE `postage_paid` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`sale_id` bigint unsigned,
	`carrier` varchar(40) NOT NULL,
	`grams` int NOT NULL,
	`paid` int NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `postage_paid_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `tariff` (
	`carrier` varchar(40) NOT NULL,
	`doc` json NOT NULL,
	`read_at` datetime(3) NOT NULL,
	CONSTRAINT `tariff_carrier` PRIMARY KEY(`carrier`)
);
--> statement-breakpoint
CREATE TABLE `template` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`name` varchar(80) NOT NULL,
	`accounts` json NOT NULL,
	`conditions` json NOT NULL,
	`fields` json NOT NULL,
	`previous` json,
	`version` int NOT NULL DEFAULT 1,
	`by_name` varchar(120) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `template_id` PRIMARY KEY(`id`),
	CONSTRAINT `template_name` UNIQUE(`name`)
);
--> statement-breakpoint
DROP INDEX `listing_account_state` ON `listing`;--> statement-breakpoint
DROP INDEX `listing_state` ON `listing`;--> statement-breakpoint
ALTER TABLE `listing` drop column `state`;--> statement-breakpoint
ALTER TABLE `listing` ADD `state` varchar(10) GENERATED ALWAYS AS (case when `problem` in (1) then 'attention' when `remote` in ('sold') then 'sold' when `busy` in (1) and `remote` in ('none', 'ended', 'refused', 'gone') then 'waiting' when `remote` in ('review') then 'waiting' when `remote` in ('live') and `dirty` in (1) and `drifted` in (1) then 'conflict' when `remote` in ('live') and `dirty` in (1) then 'changed' when `remote` in ('live') and `drifted` in (1) then 'changed' when `remote` in ('live') then 'live' when `remote` in ('ended', 'refused', 'gone') then 'ended' when `wanted` in ('draft', 'live') then 'draft' else 'none' end) STORED;--> statement-breakpoint
ALTER TABLE `remote_photo` MODIFY COLUMN `hash` varchar(90) NOT NULL;--> statement-breakpoint
ALTER TABLE `market_account` ADD `house_tag` varchar(60) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `market_account` ADD `pricing` json;--> statement-breakpoint
ALTER TABLE `market_account` ADD `packaging` json;--> statement-breakpoint
ALTER TABLE `listing` ADD `times_made` smallint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `listing` ADD `refusal` varchar(500);--> statement-breakpoint
CREATE INDEX `learned_at` ON `learned` (`at`);--> statement-breakpoint
CREATE INDEX `postage_at` ON `postage_paid` (`at`);--> statement-breakpoint
CREATE INDEX `listing_account_state` ON `listing` (`account_id`,`state`,`item_id`);--> statement-breakpoint
CREATE INDEX `listing_state` ON `listing` (`state`,`blocking`,`item_id`);
