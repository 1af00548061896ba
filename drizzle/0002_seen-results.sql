CREATE TABLE `seen_results` (
	`study_id` text NOT NULL,
	`kind` text NOT NULL,
	`object_id` text NOT NULL,
	`inputs` text NOT NULL,
	`numbers` text NOT NULL,
	`revision` integer NOT NULL,
	`at` text NOT NULL,
	PRIMARY KEY(`study_id`, `kind`, `object_id`),
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
