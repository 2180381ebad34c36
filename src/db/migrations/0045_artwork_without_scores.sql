UPDATE `photo_file` p JOIN `artwork` a ON a.`hash` COLLATE utf8mb4_bin = p.`hash` COLLATE utf8mb4_bin SET p.`visible` = a.`visible`;--> statement-breakpoint
UPDATE `item` i JOIN `artwork` a ON a.`item_id` = i.`id`
	SET i.`placings` = json_object('*', concat_ws(' ', json_value(a.`placing`, '$.x'), json_value(a.`placing`, '$.y'), json_value(a.`placing`, '$.scale'), json_value(a.`placing`, '$.degrees')))
	WHERE concat_ws(' ', json_value(a.`placing`, '$.x'), json_value(a.`placing`, '$.y'), json_value(a.`placing`, '$.scale'), json_value(a.`placing`, '$.degrees')) <> '0.5 0.5 0.9 0';--> statement-breakpoint
ALTER TABLE `artwork` DROP COLUMN `visible`;--> statement-breakpoint
ALTER TABLE `artwork` DROP COLUMN `scores`;--> statement-breakpoint
ALTER TABLE `artwork` DROP COLUMN `placing`;