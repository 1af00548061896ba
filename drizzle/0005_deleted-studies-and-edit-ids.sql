ALTER TABLE `revisions` ADD `edit_id` text;--> statement-breakpoint
CREATE UNIQUE INDEX `revisions_by_edit` ON `revisions` (`study_id`,`edit_id`);--> statement-breakpoint
ALTER TABLE `studies` ADD `deleted_at` text;