CREATE TABLE `column_memory` (
	`signature` varchar(64) NOT NULL,
	`ties` json NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `column_memory_signature` PRIMARY KEY(`signature`)
);
--> statement-breakpoint
CREATE TABLE `column_set` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`name` varchar(80) NOT NULL,
	`columns` json NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `column_set_id` PRIMARY KEY(`id`),
	CONSTRAINT `column_set_name_unique` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE `file_export` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`title` varchar(200) NOT NULL,
	`columns` json NOT NULL,
	`row_count` int NOT NULL DEFAULT 0,
	`item_count` int NOT NULL DEFAULT 0,
	`is_done` boolean NOT NULL DEFAULT false,
	`by_name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `file_export_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `file_export_row` (
	`export_id` bigint unsigned NOT NULL,
	`item_id` bigint unsigned NOT NULL,
	`position` int NOT NULL,
	`combination` varchar(16) NOT NULL DEFAULT '',
	`cells` json NOT NULL,
	CONSTRAINT `file_export_row_export_id_item_id_position_pk` PRIMARY KEY(`export_id`,`item_id`,`position`)
);
--> statement-breakpoint
CREATE TABLE `file_import` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`name` varchar(200) NOT NULL,
	`bytes` int NOT NULL,
	`contents` varchar(64) NOT NULL,
	`layout` json NOT NULL,
	`headers` json NOT NULL,
	`samples` json NOT NULL,
	`ties` json NOT NULL,
	`recognised` json NOT NULL,
	`options` json NOT NULL,
	`export_id` bigint unsigned,
	`state` varchar(10) NOT NULL,
	`counts` json NOT NULL,
	`task_id` bigint unsigned,
	`run_id` bigint unsigned,
	`by_id` varchar(40) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `file_import_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `file_import_row` (
	`import_id` bigint unsigned NOT NULL,
	`line` int NOT NULL,
	`kind` varchar(8) NOT NULL,
	`item_id` bigint unsigned,
	`combination` varchar(16) NOT NULL DEFAULT '',
	`label` varchar(200) NOT NULL,
	`raw` json NOT NULL,
	`cells` json NOT NULL,
	`why` varchar(300),
	`column_id` varchar(120),
	`left_out` boolean NOT NULL DEFAULT false,
	`decided` varchar(4),
	`is_done` boolean NOT NULL DEFAULT false,
	CONSTRAINT `file_import_row_import_id_line_pk` PRIMARY KEY(`import_id`,`line`)
);
--> statement-breakpoint
CREATE INDEX `export_created` ON `file_export` (`created_at`);--> statement-breakpoint
CREATE INDEX `import_created` ON `file_import` (`created_at`);--> statement-breakpoint
CREATE INDEX `import_row_kind` ON `file_import_row` (`import_id`,`kind`,`line`);