INSERT INTO `task` (`kind`, `title`, `input`, `done_count`, `total_count`, `state`, `due_at`, `run_id`, `message`, `by_id`, `by_name`, `created_at`, `finished_at`)
SELECT 'publish', `title`, `input`, if(`state` = 'done', 1, 0), 1, if(`state` = 'cancelled', 'stopped', `state`), `due_at`, `run_id`, `message`, `by_id`, `by_name`, `created_at`, if(`state` = 'waiting', null, `due_at`) FROM `schedule` WHERE `kind` = 'publish' ORDER BY `id`;--> statement-breakpoint
DROP TABLE `schedule`;
