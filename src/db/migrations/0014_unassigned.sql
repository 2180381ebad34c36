ALTER TABLE `sale` ADD `unassigned` boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX `sale_oversold` ON `sale` (`oversold`);--> statement-breakpoint
CREATE INDEX `sale_unassigned` ON `sale` (`unassigned`);--> statement-breakpoint
UPDATE `sale` s LEFT JOIN `item` i ON i.`id` = s.`item_id` SET s.`unassigned` = 1 WHERE s.`state` = 'paid' AND (i.`id` IS NULL OR (i.`axes` <> '[]' AND s.`combination` IS NULL AND s.`variation` IS NULL));
