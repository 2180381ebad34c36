CREATE TABLE `daily_summary` (
	`day` varchar(10) NOT NULL,
	`lines` json NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`sent_at` datetime(3),
	`tries` int NOT NULL DEFAULT 0,
	`next_try_at` datetime(3),
	`problem` varchar(300),
	CONSTRAINT `daily_summary_day` PRIMARY KEY(`day`)
);
