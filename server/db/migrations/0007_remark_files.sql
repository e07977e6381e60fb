ALTER TABLE `overall_comments` ADD `file` text;--> statement-breakpoint
ALTER TABLE `overall_comments` ADD `file_type` text;