ALTER TABLE `item` ADD `remind_on` date;--> statement-breakpoint
ALTER TABLE `item` ADD `remind_of` varchar(120) DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX `item_remind` ON `item` (`remind_on`);