ALTER TABLE `marking_tasks` ADD `compared_id` integer REFERENCES judgements(id);--> statement-breakpoint
ALTER TABLE `marking_tasks` ADD `told_at` integer;