CREATE TABLE `listing_net` (
	`listing_id` bigint unsigned NOT NULL,
	`item_version` int NOT NULL,
	`price` bigint NOT NULL,
	`stamp` varchar(40) NOT NULL,
	`net` bigint NOT NULL,
	CONSTRAINT `listing_net_listing_id` PRIMARY KEY(`listing_id`)
);
