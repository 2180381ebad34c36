CREATE TABLE `found_listing` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`account_id` bigint unsigned NOT NULL,
	`remote_id` varchar(60) NOT NULL,
	`url` varchar(300) NOT NULL,
	`state` varchar(8) NOT NULL,
	`sku` varchar(100) NOT NULL,
	`title` varchar(300) NOT NULL,
	`section` varchar(60) NOT NULL,
	`price` bigint,
	`quantity` int,
	`content` json NOT NULL,
	`photos` json NOT NULL,
	`facts` json NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`read_at` datetime(3) NOT NULL,
	`gathering_id` bigint unsigned,
	`hashes` json,
	`thing` bigint unsigned,
	`join_item` bigint unsigned,
	`item_id` bigint unsigned,
	`said` varchar(300),
	CONSTRAINT `found_listing_id` PRIMARY KEY(`id`),
	CONSTRAINT `found_once` UNIQUE(`account_id`,`remote_id`)
);
--> statement-breakpoint
CREATE TABLE `gathered_item` (
	`gathering_id` bigint unsigned NOT NULL,
	`item_id` bigint unsigned NOT NULL,
	`is_new` boolean NOT NULL,
	`taken` json NOT NULL,
	`said` varchar(300),
	`is_done` boolean NOT NULL DEFAULT false,
	CONSTRAINT `gathered_item_gathering_id_item_id_pk` PRIMARY KEY(`gathering_id`,`item_id`)
);
--> statement-breakpoint
CREATE TABLE `gathering` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`title` varchar(200) NOT NULL,
	`mode` varchar(10) NOT NULL,
	`prefer` json NOT NULL,
	`state` varchar(8) NOT NULL,
	`task_id` bigint unsigned,
	`chosen` int NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `gathering_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `match_decision` (
	`a` varchar(90) NOT NULL,
	`b` varchar(90) NOT NULL,
	`is_same` boolean NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `match_decision_a_b_pk` PRIMARY KEY(`a`,`b`)
);
--> statement-breakpoint
CREATE TABLE `match_question` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`gathering_id` bigint unsigned NOT NULL,
	`a` varchar(90) NOT NULL,
	`b` varchar(90) NOT NULL,
	`score` double NOT NULL,
	`evidence` json NOT NULL,
	`answer` varchar(9),
	CONSTRAINT `match_question_id` PRIMARY KEY(`id`),
	CONSTRAINT `question_once` UNIQUE(`gathering_id`,`a`,`b`)
);
--> statement-breakpoint
ALTER TABLE `photo_file` ADD `print` json;--> statement-breakpoint
CREATE INDEX `found_newest` ON `found_listing` (`account_id`,`made_at`,`id`);--> statement-breakpoint
CREATE INDEX `found_gathering` ON `found_listing` (`gathering_id`,`thing`);--> statement-breakpoint
CREATE INDEX `gathering_at` ON `gathering` (`at`);