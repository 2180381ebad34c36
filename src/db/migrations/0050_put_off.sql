CREATE TABLE `need_later` (
	`need` varchar(80) NOT NULL,
	`until` datetime(3) NOT NULL,
	`why` varchar(200) NOT NULL,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `need_later_need` PRIMARY KEY(`need`)
);
