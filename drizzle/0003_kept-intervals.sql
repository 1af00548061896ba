CREATE TABLE `kept_intervals` (
	`study_id` text NOT NULL,
	`key` text NOT NULL,
	`intervals` text NOT NULL,
	`at` text NOT NULL,
	PRIMARY KEY(`study_id`, `key`),
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
