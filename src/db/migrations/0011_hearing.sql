ALTER TABLE `account` ADD `heard_at` datetime(3);--> statement-breakpoint
ALTER TABLE `account` ADD `renewing_by` varchar(60);--> statement-breakpoint
ALTER TABLE `account` ADD `renewing_until` datetime(3);