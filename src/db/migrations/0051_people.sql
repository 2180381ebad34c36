CREATE TABLE `auth_two_factor` (
	`id` varchar(36) NOT NULL,
	`user_id` varchar(36) NOT NULL,
	`secret` text NOT NULL,
	`backup_codes` text NOT NULL,
	`verified` boolean NOT NULL DEFAULT false,
	`failed_verification_count` int NOT NULL DEFAULT 0,
	`locked_until` datetime(3),
	CONSTRAINT `auth_two_factor_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `invitation` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`hash` varchar(64) NOT NULL,
	`role` varchar(12) NOT NULL,
	`for_whom` varchar(120) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	CONSTRAINT `invitation_id` PRIMARY KEY(`id`),
	CONSTRAINT `invitation_hash_unique` UNIQUE(`hash`)
);
--> statement-breakpoint
CREATE TABLE `people_event` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`at` datetime(3) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`what` varchar(300) NOT NULL,
	CONSTRAINT `people_event_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `api_token` ADD `role` varchar(12) DEFAULT 'packer' NOT NULL;--> statement-breakpoint
ALTER TABLE `auth_user` ADD `role` varchar(12) DEFAULT 'packer' NOT NULL;--> statement-breakpoint
ALTER TABLE `auth_user` ADD `two_factor_enabled` boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX `two_factor_user` ON `auth_two_factor` (`user_id`);--> statement-breakpoint
-- Whoever was here before had the shop alone.
UPDATE `auth_user` SET `role` = 'owner';--> statement-breakpoint
UPDATE `api_token` SET `role` = 'owner';
