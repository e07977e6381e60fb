CREATE TABLE `correction_changes` (
	`correction_id` integer NOT NULL,
	`invitation_id` integer NOT NULL,
	`before` integer NOT NULL,
	`after` integer NOT NULL,
	`kept` integer,
	`band_before` text,
	`band_after` text,
	`told_at` integer,
	PRIMARY KEY(`correction_id`, `invitation_id`),
	FOREIGN KEY (`correction_id`) REFERENCES `key_corrections`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `correction_changes_of` ON `correction_changes` (`invitation_id`);--> statement-breakpoint
CREATE TABLE `round_bands` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`bands` text NOT NULL,
	`of` integer NOT NULL,
	`staff_id` integer NOT NULL,
	`reason` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `key_corrections` ADD `change` text;--> statement-breakpoint
ALTER TABLE `key_corrections` ADD `takes_back` integer;--> statement-breakpoint
ALTER TABLE `key_corrections` ADD `round_id` integer REFERENCES rounds(id);--> statement-breakpoint
ALTER TABLE `marks` ADD `correction_id` integer;--> statement-breakpoint
UPDATE `key_corrections` SET `change` = json_object('type', 'accept', 'component', `component`, 'answer', `answer`);--> statement-breakpoint
UPDATE `rounds` SET `settings` = json_set(`settings`, '$.withdrawn', 'scaled', '$.marksMayFall', json('false'), '$.bandsAfterwards', json('false'));
