CREATE TABLE `photo_summary` (
	`item_id` bigint unsigned NOT NULL,
	`longest` int NOT NULL,
	`shortest` int NOT NULL,
	`ratio` double NOT NULL,
	`is_blurred` boolean NOT NULL,
	`is_dark` boolean NOT NULL,
	`is_empty` boolean NOT NULL,
	CONSTRAINT `photo_summary_item_id` PRIMARY KEY(`item_id`)
);
--> statement-breakpoint
DROP INDEX `photo_hash` ON `item_photo`;--> statement-breakpoint
CREATE INDEX `photo_hash_item` ON `item_photo` (`hash`,`item_id`);--> statement-breakpoint
INSERT INTO `photo_summary` (`item_id`, `longest`, `shortest`, `ratio`, `is_blurred`, `is_dark`, `is_empty`)
SELECT p.item_id, min(greatest(f.width, f.height)), min(least(f.width, f.height)), coalesce(max(if(p.position = 0, f.width * 1e0 / f.height, null)), 1),
  coalesce(max(f.sharp < 45), 0), coalesce(max(f.bright < 110 and f.middle < 60), 0), coalesce(max(p.position = 0 and f.empty_share > 0.75), 0)
FROM item_photo p JOIN photo_file f ON f.hash = p.hash GROUP BY p.item_id;
