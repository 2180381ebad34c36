DROP INDEX `listing_account_state` ON `listing`;--> statement-breakpoint
DROP INDEX `listing_state` ON `listing`;--> statement-breakpoint
CREATE INDEX `listing_stage` ON `listing` (`state`,`account_id`,`item_id`,`blocking`);