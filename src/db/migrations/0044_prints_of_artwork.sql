ALTER TABLE `remote_photo` MODIFY COLUMN `hash` varchar(220) NOT NULL;--> statement-breakpoint
ALTER TABLE `artwork` ADD `tones` json;--> statement-breakpoint
ALTER TABLE `artwork` ADD `print` json;--> statement-breakpoint
ALTER TABLE `item` ADD `placings` json DEFAULT ('{}') NOT NULL;--> statement-breakpoint
ALTER TABLE `item` ADD `looks` json DEFAULT ('{}') NOT NULL;--> statement-breakpoint
ALTER TABLE `photo_file` ADD `visible` json;--> statement-breakpoint
ALTER TABLE `template` ADD `print` json;