ALTER TABLE `api_token` ADD `expires_at` datetime(3);--> statement-breakpoint
ALTER TABLE `people_event` ADD `kind` varchar(8) DEFAULT 'change' NOT NULL;