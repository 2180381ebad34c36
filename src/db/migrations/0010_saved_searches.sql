CREATE TABLE `saved_search` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`name` varchar(80) NOT NULL,
	`filter` json NOT NULL,
	`sort` varchar(20) NOT NULL,
	`dir` varchar(4) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `saved_search_id` PRIMARY KEY(`id`),
	CONSTRAINT `saved_search_name_unique` UNIQUE(`name`)
);
