ALTER TABLE `letters` ADD `once` text;--> statement-breakpoint
CREATE UNIQUE INDEX `letters_once` ON `letters` (`invitation_id`,`once`);--> statement-breakpoint
ALTER TABLE `marking_tasks` ADD `undecided` text DEFAULT '[]' NOT NULL;