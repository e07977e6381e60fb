CREATE TABLE `acts_on_record` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` integer NOT NULL,
	`staff_id` integer,
	`act` text NOT NULL,
	`subject` text NOT NULL,
	`invitation_id` integer,
	`reason` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `acts_concerning` ON `acts_on_record` (`invitation_id`);--> statement-breakpoint
CREATE TABLE `arrivals` (
	`invitation_id` integer NOT NULL,
	`attempt` integer NOT NULL,
	`details_at` integer,
	`correction` text,
	`correction_settled_at` integer,
	`checks` text,
	`checks_at` integer,
	`picture_file` text,
	`picture_at` integer,
	`identity_file` text,
	`rules_version` text,
	`rules_at` integer,
	`waiting_at` integer,
	`door_tries` integer DEFAULT 0 NOT NULL,
	`admitted_at` integer,
	`admitted_by` integer,
	PRIMARY KEY(`invitation_id`, `attempt`),
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`admitted_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `candidate_sessions` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`invitation_id` integer NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `candidates` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`email` text NOT NULL,
	`reference` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `candidates_reference_unique` ON `candidates` (`reference`);--> statement-breakpoint
CREATE TABLE `invitations` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`candidate_id` integer NOT NULL,
	`link_hash` text NOT NULL,
	`extra_percent` integer NOT NULL,
	`arrangements` text NOT NULL,
	`time_zone` text,
	`invited_at` integer NOT NULL,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`candidate_id`) REFERENCES `candidates`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `invitations_link_hash_unique` ON `invitations` (`link_hash`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`kind` text NOT NULL,
	`subject` integer NOT NULL,
	`run_at` integer NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`done_at` integer,
	`trouble` text
);
--> statement-breakpoint
CREATE INDEX `jobs_due` ON `jobs` (`done_at`,`run_at`);--> statement-breakpoint
CREATE TABLE `journal` (
	`arrival` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`device` text NOT NULL,
	`seq` integer NOT NULL,
	`about` text NOT NULL,
	`target` text NOT NULL,
	`value` text NOT NULL,
	`client_at` integer NOT NULL,
	`server_at` integer NOT NULL,
	`standing` text NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `entry_once` ON `journal` (`sitting_id`,`device`,`seq`);--> statement-breakpoint
CREATE TABLE `letters` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`invitation_id` integer,
	`to` text NOT NULL,
	`subject` text NOT NULL,
	`text` text NOT NULL,
	`attachments` text NOT NULL,
	`at` integer NOT NULL,
	`sent_at` integer,
	`trouble` text,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `marking_tasks` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`sitting_id` integer NOT NULL,
	`target` text NOT NULL,
	`assessor_id` integer,
	`claimed_at` integer,
	`done_at` integer,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`assessor_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `one_task_a_part` ON `marking_tasks` (`sitting_id`,`target`);--> statement-breakpoint
CREATE INDEX `tasks_open` ON `marking_tasks` (`round_id`,`target`,`done_at`);--> statement-breakpoint
CREATE TABLE `marks` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`target` text NOT NULL,
	`staff_id` integer,
	`hundredths` integer NOT NULL,
	`verdict` text,
	`reasons` text NOT NULL,
	`levels` text,
	`comment` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `marks_of_sitting` ON `marks` (`sitting_id`);--> statement-breakpoint
CREATE TABLE `messages` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`invitation_id` integer,
	`staff_id` integer,
	`at` integer NOT NULL,
	`text` text NOT NULL,
	`hand` integer NOT NULL,
	`answered_at` integer,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `messages_of` ON `messages` (`invitation_id`);--> statement-breakpoint
CREATE INDEX `messages_in` ON `messages` (`round_id`);--> statement-breakpoint
CREATE TABLE `papers` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`version` integer NOT NULL,
	`document` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `rounds` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`title` text NOT NULL,
	`paper_id` integer NOT NULL,
	`opens_at` integer NOT NULL,
	`closes_at` integer NOT NULL,
	`time_zone` text NOT NULL,
	`settings` text NOT NULL,
	`signed_off_at` integer,
	`signed_off_by` integer,
	`released_at` integer,
	FOREIGN KEY (`paper_id`) REFERENCES `papers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`signed_off_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `rounds_key_unique` ON `rounds` (`key`);--> statement-breakpoint
CREATE TABLE `settings` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sittings` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`invitation_id` integer NOT NULL,
	`attempt` integer NOT NULL,
	`seed` text NOT NULL,
	`script` text NOT NULL,
	`started_at` integer,
	`deadline_at` integer,
	`closed_at` integer,
	`closed_by` text,
	`handed_in_at` integer,
	`received_at` integer,
	`receipt_hash` text,
	`holder` text,
	`scored_at` integer,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `sittings_script_unique` ON `sittings` (`script`);--> statement-breakpoint
CREATE UNIQUE INDEX `one_sitting_an_attempt` ON `sittings` (`invitation_id`,`attempt`);--> statement-breakpoint
CREATE INDEX `sittings_open` ON `sittings` (`closed_at`,`deadline_at`);--> statement-breakpoint
CREATE TABLE `staff` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`email` text NOT NULL,
	`name` text NOT NULL,
	`password_hash` text NOT NULL,
	`roles` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `staff_email_unique` ON `staff` (`email`);--> statement-breakpoint
CREATE TABLE `staff_sessions` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`staff_id` integer NOT NULL,
	`expires_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `time_events` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`at` integer NOT NULL,
	`event` text NOT NULL,
	`staff_id` integer,
	`reason` text NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `time_events_of` ON `time_events` (`sitting_id`);