CREATE TABLE `printable` (
	`file_key` varchar(64) NOT NULL,
	`bytes` int NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `printable_file_key` PRIMARY KEY(`file_key`)
);
--> statement-breakpoint
ALTER TABLE `artwork` ADD `pixels` varchar(64);--> statement-breakpoint
ALTER TABLE `artwork` ADD `twin_of` bigint unsigned;