CREATE TABLE `removed` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`kind` varchar(12) NOT NULL,
	`was` bigint unsigned NOT NULL,
	`name` varchar(80) NOT NULL,
	`row` json NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `removed_id` PRIMARY KEY(`id`),
	CONSTRAINT `removed_was` UNIQUE(`kind`,`was`)
);
