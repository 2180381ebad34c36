CREATE TABLE `api_token` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`name` varchar(80) NOT NULL,
	`hash` varchar(64) NOT NULL,
	`user_id` varchar(36) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`last_used_at` datetime(3),
	CONSTRAINT `api_token_id` PRIMARY KEY(`id`),
	CONSTRAINT `api_token_hash_unique` UNIQUE(`hash`)
);
--> statement-breakpoint
CREATE TABLE `auth_credential` (
	`id` varchar(36) NOT NULL,
	`account_id` varchar(190) NOT NULL,
	`provider_id` varchar(60) NOT NULL,
	`user_id` varchar(36) NOT NULL,
	`access_token` text,
	`refresh_token` text,
	`id_token` text,
	`access_token_expires_at` datetime(3),
	`refresh_token_expires_at` datetime(3),
	`scope` text,
	`password` text,
	`created_at` datetime(3) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `auth_credential_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `auth_rate_limit` (
	`id` varchar(190) NOT NULL,
	`key` varchar(190) NOT NULL,
	`count` int NOT NULL,
	`last_request` bigint NOT NULL,
	CONSTRAINT `auth_rate_limit_id` PRIMARY KEY(`id`),
	CONSTRAINT `auth_rate_limit_key_unique` UNIQUE(`key`)
);
--> statement-breakpoint
CREATE TABLE `auth_session` (
	`id` varchar(36) NOT NULL,
	`user_id` varchar(36) NOT NULL,
	`token` varchar(190) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`ip_address` varchar(64),
	`user_agent` text,
	`created_at` datetime(3) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `auth_session_id` PRIMARY KEY(`id`),
	CONSTRAINT `auth_session_token_unique` UNIQUE(`token`)
);
--> statement-breakpoint
CREATE TABLE `auth_user` (
	`id` varchar(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`email` varchar(190) NOT NULL,
	`email_verified` boolean NOT NULL DEFAULT false,
	`image` text,
	`created_at` datetime(3) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `auth_user_id` PRIMARY KEY(`id`),
	CONSTRAINT `auth_user_email_unique` UNIQUE(`email`)
);
--> statement-breakpoint
CREATE TABLE `auth_verification` (
	`id` varchar(36) NOT NULL,
	`identifier` varchar(190) NOT NULL,
	`value` text NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`created_at` datetime(3),
	`updated_at` datetime(3),
	CONSTRAINT `auth_verification_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `change_record` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`item_id` bigint unsigned NOT NULL,
	`listing_id` bigint unsigned,
	`run_id` bigint unsigned,
	`item_version` int NOT NULL,
	`field` varchar(80) NOT NULL,
	`old_value` json,
	`new_value` json,
	`why` varchar(20) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `change_record_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `item` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`sku` varchar(40) NOT NULL,
	`title` varchar(300) NOT NULL,
	`brand` varchar(80) NOT NULL,
	`model` varchar(120) NOT NULL,
	`category` varchar(120) NOT NULL,
	`condition_grade` varchar(20),
	`condition_note` text NOT NULL,
	`description` mediumtext NOT NULL,
	`highlights` json NOT NULL,
	`keywords` json NOT NULL,
	`attributes` json NOT NULL,
	`currency` varchar(3) NOT NULL,
	`price` int,
	`retail_price` int,
	`cost` int,
	`quantity` int NOT NULL DEFAULT 0,
	`barcode` varchar(20) NOT NULL,
	`location` varchar(60) NOT NULL,
	`supplier` varchar(120) NOT NULL,
	`bought_on` date,
	`notes` text NOT NULL,
	`weight_grams` int,
	`length_mm` int,
	`width_mm` int,
	`height_mm` int,
	`main_photo` varchar(64),
	`photo_count` int NOT NULL DEFAULT 0,
	`archived` boolean NOT NULL DEFAULT false,
	`created_at` datetime(3) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `item_id` PRIMARY KEY(`id`),
	CONSTRAINT `item_sku_unique` UNIQUE(`sku`)
);
--> statement-breakpoint
CREATE TABLE `item_photo` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`item_id` bigint unsigned NOT NULL,
	`hash` varchar(64) NOT NULL,
	`position` int NOT NULL,
	CONSTRAINT `item_photo_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `movement` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`item_id` bigint unsigned NOT NULL,
	`delta` int NOT NULL,
	`reason` varchar(20) NOT NULL,
	`sale_id` bigint unsigned,
	`run_id` bigint unsigned,
	`at` datetime(3) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	CONSTRAINT `movement_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `photo_file` (
	`hash` varchar(64) NOT NULL,
	`mime` varchar(40) NOT NULL,
	`width` int NOT NULL,
	`height` int NOT NULL,
	`bytes` int NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `photo_file_hash` PRIMARY KEY(`hash`)
);
--> statement-breakpoint
CREATE TABLE `run` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`kind` varchar(20) NOT NULL,
	`title` varchar(200) NOT NULL,
	`detail` json NOT NULL,
	`item_count` int NOT NULL DEFAULT 0,
	`undo_of` bigint unsigned,
	`undone_by` bigint unsigned,
	`by_name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	CONSTRAINT `run_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `used_sku` (
	`sku` varchar(40) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `used_sku_sku` PRIMARY KEY(`sku`)
);
--> statement-breakpoint
CREATE TABLE `market_account` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`market` varchar(40) NOT NULL,
	`name` varchar(80) NOT NULL,
	`remote_name` varchar(120) NOT NULL,
	`state` varchar(20) NOT NULL,
	`secrets` text NOT NULL,
	`hook_secret` text,
	`hook_key` varchar(40) NOT NULL,
	`exceptions` json NOT NULL,
	`defaults` json NOT NULL,
	`footer` varchar(500) NOT NULL DEFAULT '',
	`auto_draft` boolean NOT NULL DEFAULT true,
	`rules_version` int NOT NULL DEFAULT 0,
	`locked_until` datetime(3),
	`last_error` varchar(300),
	`orders_since` datetime(3),
	`polled_at` datetime(3),
	`lane_owner` varchar(60),
	`lane_until` datetime(3),
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `market_account_id` PRIMARY KEY(`id`),
	CONSTRAINT `market_account_hook_key_unique` UNIQUE(`hook_key`),
	CONSTRAINT `account_shop` UNIQUE(`market`,`remote_name`)
);
--> statement-breakpoint
CREATE TABLE `category_map` (
	`market` varchar(40) NOT NULL,
	`own_category` varchar(120) NOT NULL,
	`category_id` varchar(60) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `category_map_market_own_category_pk` PRIMARY KEY(`market`,`own_category`)
);
--> statement-breakpoint
CREATE TABLE `listing` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`item_id` bigint unsigned NOT NULL,
	`account_id` bigint unsigned NOT NULL,
	`differences` json NOT NULL,
	`own_price` int,
	`wanted_price` int,
	`sent_price` int,
	`quantity_cap` int NOT NULL DEFAULT 1000000,
	`wanted_quantity` int NOT NULL DEFAULT 0,
	`sent_quantity` int,
	`content_dirty` boolean NOT NULL DEFAULT false,
	`dirty` boolean GENERATED ALWAYS AS (`content_dirty` = 1 or coalesce(`wanted_price` <> `sent_price`, 0) or coalesce(`wanted_quantity` <> `sent_quantity`, 0)) STORED,
	`wanted` varchar(8) NOT NULL,
	`remote` varchar(8) NOT NULL DEFAULT 'none',
	`drifted` boolean NOT NULL DEFAULT false,
	`busy` boolean NOT NULL DEFAULT false,
	`problem` boolean NOT NULL DEFAULT false,
	`blocking` smallint NOT NULL DEFAULT 0,
	`sent` json,
	`base` json,
	`seen` json,
	`remote_id` varchar(60),
	`remote_url` varchar(300),
	`live_since` datetime(3),
	`sent_at` datetime(3),
	`seen_at` datetime(3),
	`state` varchar(10) GENERATED ALWAYS AS (case when `problem` in (1) then 'attention' when `remote` in ('sold') then 'sold' when `busy` in (1) and `remote` in ('none', 'ended', 'gone') then 'waiting' when `remote` in ('live') and `dirty` in (1) and `drifted` in (1) then 'conflict' when `remote` in ('live') and `dirty` in (1) then 'changed' when `remote` in ('live') and `drifted` in (1) then 'changed' when `remote` in ('live') then 'live' when `remote` in ('ended', 'gone') then 'ended' when `wanted` in ('draft', 'live') then 'draft' else 'none' end) STORED,
	CONSTRAINT `listing_id` PRIMARY KEY(`id`),
	CONSTRAINT `listing_knot` UNIQUE(`item_id`,`account_id`)
);
--> statement-breakpoint
CREATE TABLE `market_rules` (
	`market` varchar(40) NOT NULL,
	`version` int NOT NULL,
	`doc` json NOT NULL,
	`read_at` datetime(3) NOT NULL,
	CONSTRAINT `market_rules_market_version_pk` PRIMARY KEY(`market`,`version`)
);
--> statement-breakpoint
CREATE TABLE `remote_photo` (
	`account_id` bigint unsigned NOT NULL,
	`hash` varchar(64) NOT NULL,
	`remote_id` varchar(80) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `remote_photo_account_id_hash_pk` PRIMARY KEY(`account_id`,`hash`)
);
--> statement-breakpoint
CREATE TABLE `inbox` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`message_id` varchar(120) NOT NULL,
	`account_id` bigint unsigned NOT NULL,
	`type` varchar(30) NOT NULL,
	`data` json NOT NULL,
	`state` varchar(10) NOT NULL DEFAULT 'waiting',
	`attempts` smallint NOT NULL DEFAULT 0,
	`due_at` datetime(3) NOT NULL,
	`message` text,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `inbox_id` PRIMARY KEY(`id`),
	CONSTRAINT `inbox_message_id_unique` UNIQUE(`message_id`)
);
--> statement-breakpoint
CREATE TABLE `job` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`listing_id` bigint unsigned NOT NULL,
	`live_listing` bigint unsigned,
	`account_id` bigint unsigned NOT NULL,
	`run_id` bigint unsigned,
	`priority` smallint NOT NULL,
	`state` varchar(10) NOT NULL DEFAULT 'waiting',
	`generation` int NOT NULL DEFAULT 1,
	`attempts` smallint NOT NULL DEFAULT 0,
	`due_at` datetime(3) NOT NULL,
	`lease_owner` varchar(60),
	`idempotency_key` varchar(60),
	`request` json,
	`outcome` varchar(20),
	`error_code` varchar(30),
	`message` varchar(500),
	`mend` varchar(300),
	`field` varchar(80),
	`story` json,
	`created_at` datetime(3) NOT NULL,
	`finished_at` datetime(3),
	CONSTRAINT `job_id` PRIMARY KEY(`id`),
	CONSTRAINT `job_live` UNIQUE(`live_listing`)
);
--> statement-breakpoint
CREATE TABLE `sale` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`account_id` bigint unsigned,
	`order_id` varchar(60) NOT NULL,
	`item_id` bigint unsigned,
	`listing_id` bigint unsigned,
	`sku` varchar(40) NOT NULL,
	`title` varchar(300) NOT NULL,
	`quantity` int NOT NULL,
	`unit_price` int NOT NULL,
	`total` int NOT NULL,
	`fee` int NOT NULL,
	`cost` int,
	`currency` varchar(3) NOT NULL,
	`buyer_town` varchar(80) NOT NULL DEFAULT '',
	`oversold` boolean NOT NULL DEFAULT false,
	`sold_at` datetime(3) NOT NULL,
	CONSTRAINT `sale_id` PRIMARY KEY(`id`),
	CONSTRAINT `sale_order` UNIQUE(`account_id`,`order_id`)
);
--> statement-breakpoint
CREATE INDEX `credential_user` ON `auth_credential` (`user_id`);--> statement-breakpoint
CREATE INDEX `session_user` ON `auth_session` (`user_id`);--> statement-breakpoint
CREATE INDEX `change_item` ON `change_record` (`item_id`,`id`);--> statement-breakpoint
CREATE INDEX `change_run` ON `change_record` (`run_id`,`id`);--> statement-breakpoint
CREATE INDEX `item_updated` ON `item` (`archived`,`updated_at`,`id`);--> statement-breakpoint
CREATE INDEX `item_created` ON `item` (`archived`,`created_at`,`id`);--> statement-breakpoint
CREATE INDEX `item_title` ON `item` (`archived`,`title`,`id`);--> statement-breakpoint
CREATE INDEX `item_sku` ON `item` (`archived`,`sku`,`id`);--> statement-breakpoint
CREATE INDEX `item_brand` ON `item` (`archived`,`brand`,`id`);--> statement-breakpoint
CREATE INDEX `item_category` ON `item` (`archived`,`category`,`id`);--> statement-breakpoint
CREATE INDEX `item_condition` ON `item` (`archived`,`condition_grade`,`id`);--> statement-breakpoint
CREATE INDEX `item_location` ON `item` (`archived`,`location`,`id`);--> statement-breakpoint
CREATE INDEX `item_price` ON `item` (`archived`,`price`,`id`);--> statement-breakpoint
CREATE INDEX `item_quantity` ON `item` (`archived`,`quantity`,`id`);--> statement-breakpoint
CREATE INDEX `item_cost` ON `item` (`archived`,`cost`,`id`);--> statement-breakpoint
CREATE INDEX `photo_item` ON `item_photo` (`item_id`,`position`);--> statement-breakpoint
CREATE INDEX `photo_hash` ON `item_photo` (`hash`);--> statement-breakpoint
CREATE INDEX `movement_item` ON `movement` (`item_id`,`id`);--> statement-breakpoint
CREATE INDEX `run_created` ON `run` (`created_at`);--> statement-breakpoint
CREATE INDEX `listing_account_state` ON `listing` (`account_id`,`state`,`item_id`);--> statement-breakpoint
CREATE INDEX `listing_state` ON `listing` (`state`,`blocking`,`item_id`);--> statement-breakpoint
CREATE INDEX `listing_remote` ON `listing` (`account_id`,`remote_id`);--> statement-breakpoint
CREATE INDEX `listing_live_since` ON `listing` (`account_id`,`live_since`);--> statement-breakpoint
CREATE INDEX `inbox_due` ON `inbox` (`state`,`due_at`);--> statement-breakpoint
CREATE INDEX `job_lane` ON `job` (`account_id`,`state`,`priority`,`id`);--> statement-breakpoint
CREATE INDEX `job_state` ON `job` (`state`,`id`);--> statement-breakpoint
CREATE INDEX `job_run` ON `job` (`run_id`,`state`);--> statement-breakpoint
CREATE INDEX `job_listing` ON `job` (`listing_id`,`id`);--> statement-breakpoint
CREATE INDEX `job_finished` ON `job` (`finished_at`);--> statement-breakpoint
CREATE INDEX `sale_sold` ON `sale` (`sold_at`,`id`);--> statement-breakpoint
CREATE INDEX `sale_item` ON `sale` (`item_id`);--> statement-breakpoint
CREATE FULLTEXT INDEX `item_words` ON `item` (`title`,`sku`,`brand`,`model`,`location`);