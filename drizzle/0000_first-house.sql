CREATE TABLE `changes` (
	`study_id` text NOT NULL,
	`revision` integer NOT NULL,
	`position` integer NOT NULL,
	`at` text NOT NULL,
	`subject` text NOT NULL,
	`object_id` text NOT NULL,
	`from_json` text NOT NULL,
	`to_json` text NOT NULL,
	`list_position` integer,
	PRIMARY KEY(`study_id`, `revision`, `position`),
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `chunks` (
	`dataset_id` text NOT NULL,
	`position` integer NOT NULL,
	`chunk` integer NOT NULL,
	`number_values` blob NOT NULL,
	`states` blob NOT NULL,
	PRIMARY KEY(`dataset_id`, `position`, `chunk`),
	FOREIGN KEY (`dataset_id`) REFERENCES `datasets`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `columns` (
	`dataset_id` text NOT NULL,
	`position` integer NOT NULL,
	`name` text NOT NULL,
	`texts` text NOT NULL,
	`summary` text NOT NULL,
	PRIMARY KEY(`dataset_id`, `position`),
	FOREIGN KEY (`dataset_id`) REFERENCES `datasets`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `columns_by_name` ON `columns` (`dataset_id`,`name`);--> statement-breakpoint
CREATE TABLE `datasets` (
	`id` text PRIMARY KEY NOT NULL,
	`state` text NOT NULL,
	`file_name` text NOT NULL,
	`bytes` integer NOT NULL,
	`sha256` text NOT NULL,
	`rows` integer NOT NULL,
	`delimiter` text NOT NULL,
	`decimal` text NOT NULL,
	`imported_at` text DEFAULT (datetime('now')) NOT NULL
);
--> statement-breakpoint
CREATE TABLE `studies` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`document` text NOT NULL,
	`revision` integer NOT NULL,
	`dataset_id` text NOT NULL,
	`created_at` text DEFAULT (datetime('now')) NOT NULL,
	`updated_at` text DEFAULT (datetime('now')) NOT NULL
);
