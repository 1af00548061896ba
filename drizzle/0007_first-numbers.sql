CREATE TABLE `first_numbers` (
	`study_id` text NOT NULL,
	`kind` text NOT NULL,
	`object_id` text NOT NULL,
	`key` text NOT NULL,
	`result` text NOT NULL,
	PRIMARY KEY(`study_id`, `kind`, `object_id`),
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
