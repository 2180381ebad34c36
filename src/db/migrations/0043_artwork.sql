CREATE TABLE `artwork` (
	`item_id` bigint unsigned NOT NULL,
	`hash` varchar(64) NOT NULL,
	`name` varchar(300) NOT NULL,
	`visible` json NOT NULL,
	`scores` json NOT NULL,
	`said` json NOT NULL,
	`placing` json NOT NULL,
	`is_broken` boolean NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `artwork_item_id` PRIMARY KEY(`item_id`),
	CONSTRAINT `artwork_hash_unique` UNIQUE(`hash`)
);
