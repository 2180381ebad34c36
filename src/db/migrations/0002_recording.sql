CREATE TABLE `own_field` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`field_key` varchar(30) NOT NULL,
	`label` varchar(40) NOT NULL,
	`type` varchar(8) NOT NULL,
	`choices` json NOT NULL,
	`most` int,
	`least` double,
	`greatest` double,
	`category` varchar(120) NOT NULL,
	`copied` boolean NOT NULL DEFAULT true,
	CONSTRAINT `own_field_id` PRIMARY KEY(`id`),
	CONSTRAINT `own_field_field_key_unique` UNIQUE(`field_key`)
);
--> statement-breakpoint
CREATE TABLE `phone_code` (
	`hash` varchar(64) NOT NULL,
	`item_id` bigint unsigned NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`until` datetime(3) NOT NULL,
	CONSTRAINT `phone_code_hash` PRIMARY KEY(`hash`)
);
--> statement-breakpoint
CREATE TABLE `setting` (
	`name` varchar(40) NOT NULL,
	`value` json NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `setting_name` PRIMARY KEY(`name`)
);
--> statement-breakpoint
ALTER TABLE `item` ADD `expires_on` date;--> statement-breakpoint
ALTER TABLE `item` ADD `own_values` json DEFAULT ('{}') NOT NULL;--> statement-breakpoint
ALTER TABLE `item` ADD `axes` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `item` ADD `variations` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `item_photo` ADD `flaw` varchar(200);--> statement-breakpoint
ALTER TABLE `movement` ADD `variation` varchar(200);--> statement-breakpoint
ALTER TABLE `photo_file` ADD `made_from` varchar(64);--> statement-breakpoint
ALTER TABLE `photo_file` ADD `recipe` json;--> statement-breakpoint
ALTER TABLE `sale` ADD `variation` varchar(200);