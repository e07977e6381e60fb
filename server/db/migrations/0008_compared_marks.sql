ALTER TABLE `marking_tasks` ADD `compared_id` integer REFERENCES judgements(id);--> statement-breakpoint
ALTER TABLE `marking_tasks` ADD `told_at` integer;--> statement-breakpoint
UPDATE `marking_tasks` SET `told_at` = `done_at` WHERE `role` = 'standard' AND `done_at` IS NOT NULL;
