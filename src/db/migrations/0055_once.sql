CREATE TABLE `request_key` (
	`hash` varchar(64) NOT NULL,
	`what` varchar(64) NOT NULL,
	`at` datetime(3) NOT NULL,
	`answer` longtext,
	`status` int,
	CONSTRAINT `request_key_hash` PRIMARY KEY(`hash`)
);
