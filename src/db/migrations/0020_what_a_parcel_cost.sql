ALTER TABLE `sale` ADD `buyer_postage` bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `sale` ADD `discount` bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `sale` ADD `postage` bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `sale` ADD `packing` bigint DEFAULT 0 NOT NULL;