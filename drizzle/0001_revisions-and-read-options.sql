CREATE TABLE `revisions` (
	`study_id` text NOT NULL,
	`revision` integer NOT NULL,
	`at` text NOT NULL,
	`how` text NOT NULL,
	`of` integer,
	PRIMARY KEY(`study_id`, `revision`),
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `datasets` ADD `options` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `datasets` ADD `chunk_rows` integer DEFAULT 65536 NOT NULL;