CREATE TABLE `first_listed` (
	`item_id` bigint unsigned NOT NULL,
	`account_id` bigint unsigned NOT NULL,
	`at` datetime(3) NOT NULL,
	`nth` smallint NOT NULL DEFAULT 1,
	CONSTRAINT `first_listed_item_id_account_id_pk` PRIMARY KEY(`item_id`,`account_id`)
);
--> statement-breakpoint
CREATE TABLE `insight_cursor` (
	`source` varchar(20) NOT NULL,
	`up_to` bigint NOT NULL,
	CONSTRAINT `insight_cursor_source` PRIMARY KEY(`source`)
);
--> statement-breakpoint
CREATE TABLE `item_milestone` (
	`item_id` bigint unsigned NOT NULL,
	`listed_at` datetime(3),
	`cut_at` datetime(3),
	`renewed_at` datetime(3),
	`crossed_at` datetime(3),
	`moved_up_to` bigint,
	CONSTRAINT `item_milestone_item_id` PRIMARY KEY(`item_id`)
);
--> statement-breakpoint
CREATE TABLE `stock_layer` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`item_id` bigint unsigned NOT NULL,
	`units` int NOT NULL,
	`in_on` date NOT NULL,
	`out_on` date,
	`how` varchar(4) NOT NULL,
	`sale_id` bigint unsigned,
	CONSTRAINT `stock_layer_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `sale` ADD `fee_payment` bigint;--> statement-breakpoint
ALTER TABLE `sale` ADD `fee_handling` bigint;--> statement-breakpoint
ALTER TABLE `sale` ADD `fee_other` bigint;--> statement-breakpoint
ALTER TABLE `sale` ADD `taken_home` bigint GENERATED ALWAYS AS (if(currency = 'EUR', total - discount + buyer_postage, if(coalesce(rate_millionths, 0) = 0, null, floor((total - discount + buyer_postage) * 100000 * (case currency when 'CLP' then 1000 when 'ISK' then 1000 when 'JPY' then 1000 when 'KRW' then 1000 when 'PYG' then 1000 when 'UGX' then 1000 when 'VND' then 1000 when 'XAF' then 1000 when 'XOF' then 1000 when 'BHD' then 1 when 'IQD' then 1 when 'JOD' then 1 when 'KWD' then 1 when 'LYD' then 1 when 'OMR' then 1 when 'TND' then 1 else 10 end) / rate_millionths + 0.5)))) STORED;--> statement-breakpoint
ALTER TABLE `sale` ADD `kept_home` bigint GENERATED ALWAYS AS (if(currency = 'EUR', total - discount + buyer_postage - fee, if(coalesce(rate_millionths, 0) = 0, null, floor((total - discount + buyer_postage - fee) * 100000 * (case currency when 'CLP' then 1000 when 'ISK' then 1000 when 'JPY' then 1000 when 'KRW' then 1000 when 'PYG' then 1000 when 'UGX' then 1000 when 'VND' then 1000 when 'XAF' then 1000 when 'XOF' then 1000 when 'BHD' then 1 when 'IQD' then 1 when 'JOD' then 1 when 'KWD' then 1 when 'LYD' then 1 when 'OMR' then 1 when 'TND' then 1 else 10 end) / rate_millionths + 0.5)))) STORED;--> statement-breakpoint
ALTER TABLE `sale` ADD `payment_home` bigint GENERATED ALWAYS AS (if(currency = 'EUR', coalesce(fee_payment, 0), if(coalesce(rate_millionths, 0) = 0, null, floor((coalesce(fee_payment, 0)) * 100000 * (case currency when 'CLP' then 1000 when 'ISK' then 1000 when 'JPY' then 1000 when 'KRW' then 1000 when 'PYG' then 1000 when 'UGX' then 1000 when 'VND' then 1000 when 'XAF' then 1000 when 'XOF' then 1000 when 'BHD' then 1 when 'IQD' then 1 when 'JOD' then 1 when 'KWD' then 1 when 'LYD' then 1 when 'OMR' then 1 when 'TND' then 1 else 10 end) / rate_millionths + 0.5)))) STORED;--> statement-breakpoint
ALTER TABLE `sale` ADD `handling_home` bigint GENERATED ALWAYS AS (if(currency = 'EUR', coalesce(fee_handling, 0), if(coalesce(rate_millionths, 0) = 0, null, floor((coalesce(fee_handling, 0)) * 100000 * (case currency when 'CLP' then 1000 when 'ISK' then 1000 when 'JPY' then 1000 when 'KRW' then 1000 when 'PYG' then 1000 when 'UGX' then 1000 when 'VND' then 1000 when 'XAF' then 1000 when 'XOF' then 1000 when 'BHD' then 1 when 'IQD' then 1 when 'JOD' then 1 when 'KWD' then 1 when 'LYD' then 1 when 'OMR' then 1 when 'TND' then 1 else 10 end) / rate_millionths + 0.5)))) STORED;--> statement-breakpoint
ALTER TABLE `sale` ADD `other_home` bigint GENERATED ALWAYS AS (if(fee_other is null, if(currency = 'EUR', total - discount + buyer_postage, if(coalesce(rate_millionths, 0) = 0, null, floor((total - discount + buyer_postage) * 100000 * (case currency when 'CLP' then 1000 when 'ISK' then 1000 when 'JPY' then 1000 when 'KRW' then 1000 when 'PYG' then 1000 when 'UGX' then 1000 when 'VND' then 1000 when 'XAF' then 1000 when 'XOF' then 1000 when 'BHD' then 1 when 'IQD' then 1 when 'JOD' then 1 when 'KWD' then 1 when 'LYD' then 1 when 'OMR' then 1 when 'TND' then 1 else 10 end) / rate_millionths + 0.5))) - if(currency = 'EUR', total - discount + buyer_postage - fee, if(coalesce(rate_millionths, 0) = 0, null, floor((total - discount + buyer_postage - fee) * 100000 * (case currency when 'CLP' then 1000 when 'ISK' then 1000 when 'JPY' then 1000 when 'KRW' then 1000 when 'PYG' then 1000 when 'UGX' then 1000 when 'VND' then 1000 when 'XAF' then 1000 when 'XOF' then 1000 when 'BHD' then 1 when 'IQD' then 1 when 'JOD' then 1 when 'KWD' then 1 when 'LYD' then 1 when 'OMR' then 1 when 'TND' then 1 else 10 end) / rate_millionths + 0.5))), if(currency = 'EUR', fee_other, if(coalesce(rate_millionths, 0) = 0, null, floor((fee_other) * 100000 * (case currency when 'CLP' then 1000 when 'ISK' then 1000 when 'JPY' then 1000 when 'KRW' then 1000 when 'PYG' then 1000 when 'UGX' then 1000 when 'VND' then 1000 when 'XAF' then 1000 when 'XOF' then 1000 when 'BHD' then 1 when 'IQD' then 1 when 'JOD' then 1 when 'KWD' then 1 when 'LYD' then 1 when 'OMR' then 1 when 'TND' then 1 else 10 end) / rate_millionths + 0.5))))) STORED;--> statement-breakpoint
CREATE INDEX `layer_item` ON `stock_layer` (`item_id`);--> statement-breakpoint
CREATE INDEX `layer_all` ON `stock_layer` (`how`,`in_on`,`out_on`,`units`,`item_id`);--> statement-breakpoint
CREATE INDEX `sale_sums` ON `sale` (`sold_at`,`state`,`account_id`,`item_id`,`quantity`,`taken_home`,`kept_home`,`payment_home`,`handling_home`,`other_home`,`postage`,`packing`,`cost`);