ALTER TABLE `item` ADD `made_by` varchar(36);--> statement-breakpoint
ALTER TABLE `item` ADD CONSTRAINT `item_made_by_unique` UNIQUE(`made_by`);