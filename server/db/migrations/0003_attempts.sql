ALTER TABLE `arrivals` ADD `begun_at` integer;--> statement-breakpoint
UPDATE `arrivals` SET `begun_at` = `details_at` WHERE `attempt` > 1;--> statement-breakpoint
UPDATE `rounds` SET `settings` = json_set(`settings`, '$.pauseMinutes', 0, '$.forPractice', json('false'));
