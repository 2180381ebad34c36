RENAME TABLE `market_account` TO `account`, `learned` TO `mapping`, `own_field` TO `custom_field`, `former_number` TO `previous_remote_id`;--> statement-breakpoint
ALTER TABLE `account` RENAME INDEX `market_account_hook_key_unique` TO `account_hook_key_unique`;--> statement-breakpoint
ALTER TABLE `custom_field` RENAME INDEX `own_field_field_key_unique` TO `custom_field_field_key_unique`;--> statement-breakpoint
ALTER TABLE `previous_remote_id` RENAME INDEX `former_listing` TO `previous_listing`, RENAME INDEX `former_remote` TO `previous_remote`;--> statement-breakpoint
ALTER TABLE `mapping` RENAME COLUMN `place` TO `attribute`, RENAME COLUMN `said` TO `source`, RENAME COLUMN `theirs` TO `target`, RENAME INDEX `learned_once` TO `mapping_once`, RENAME INDEX `learned_at` TO `mapping_at`;--> statement-breakpoint
ALTER TABLE `job` RENAME COLUMN `mend` TO `fix`;--> statement-breakpoint
ALTER TABLE `listing` RENAME COLUMN `differences` TO `overrides`, RENAME COLUMN `own_price` TO `override_price`;--> statement-breakpoint
ALTER TABLE `listing` MODIFY `override_price` bigint, MODIFY `wanted_price` bigint, MODIFY `sent_price` bigint;--> statement-breakpoint
ALTER TABLE `item` MODIFY `price` bigint, MODIFY `retail_price` bigint, MODIFY `cost` bigint;--> statement-breakpoint
ALTER TABLE `sale` MODIFY `unit_price` bigint NOT NULL, MODIFY `total` bigint NOT NULL, MODIFY `fee` bigint NOT NULL, MODIFY `cost` bigint;--> statement-breakpoint
UPDATE `change_record` SET `field` = 'target' WHERE `field` = 'place' AND `listing_id` IS NOT NULL;
