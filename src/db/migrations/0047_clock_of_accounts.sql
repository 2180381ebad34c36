ALTER TABLE `account` ADD `clock_ahead_ms` bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `account` ADD `clock_before_ms` bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `account` ADD `clock_changed_at` datetime(3);