ALTER TABLE `account` ADD `belongs` json;--> statement-breakpoint
ALTER TABLE `listing` ADD `chosen` boolean DEFAULT false NOT NULL;