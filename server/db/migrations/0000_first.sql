CREATE TABLE `arrivals` (
	`invitation_id` integer NOT NULL,
	`attempt` integer NOT NULL,
	`details_at` integer,
	`correction` text,
	`correction_settled_at` integer,
	`checks` text,
	`checks_at` integer,
	`picture_at` integer,
	`identity_at` integer,
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
CREATE TABLE `audit` (
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
CREATE INDEX `audit_of` ON `audit` (`invitation_id`,`act`);--> statement-breakpoint
CREATE TABLE `candidate_sessions` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`invitation_id` integer NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `clarification_reads` (
	`clarification_id` integer NOT NULL,
	`staff_id` integer NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`clarification_id`, `staff_id`),
	FOREIGN KEY (`clarification_id`) REFERENCES `clarifications`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `clarifications` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`target` text NOT NULL,
	`staff_id` integer NOT NULL,
	`text` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `clarifications_of` ON `clarifications` (`round_id`,`target`);--> statement-breakpoint
CREATE TABLE `current_answers` (
	`sitting_id` integer NOT NULL,
	`about` text NOT NULL,
	`target` text NOT NULL,
	`hold` integer NOT NULL,
	`number` integer NOT NULL,
	`depth` integer NOT NULL,
	`value` text NOT NULL,
	PRIMARY KEY(`sitting_id`, `about`, `target`)
);
--> statement-breakpoint
CREATE TABLE `decisions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`kind` text NOT NULL,
	`target` text NOT NULL,
	`facts` text NOT NULL,
	`opened_at` integer NOT NULL,
	`decided_at` integer,
	`choice` text,
	`staff_id` integer,
	`reason` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `decisions_of` ON `decisions` (`sitting_id`);--> statement-breakpoint
CREATE INDEX `decisions_open` ON `decisions` (`decided_at`);--> statement-breakpoint
CREATE TABLE `evidence` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`target` text NOT NULL,
	`request` text NOT NULL,
	`input` text NOT NULL,
	`document` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `evidence_of` ON `evidence` (`sitting_id`,`target`);--> statement-breakpoint
CREATE TABLE `experience` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`answers` text NOT NULL,
	`comment` text NOT NULL,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `experience_of` ON `experience` (`round_id`);--> statement-breakpoint
CREATE TABLE `explanations` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`observation_id` integer,
	`question` text NOT NULL,
	`staff_id` integer NOT NULL,
	`asked_at` integer NOT NULL,
	`answer` text,
	`answered_at` integer,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`observation_id`) REFERENCES `observations`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `explanations_of` ON `explanations` (`sitting_id`);--> statement-breakpoint
CREATE TABLE `file_uses` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`hash` text NOT NULL,
	`invitation_id` integer NOT NULL,
	`attempt` integer NOT NULL,
	`purpose` text NOT NULL,
	`at` integer NOT NULL,
	`keep_until` integer,
	`ended_at` integer,
	FOREIGN KEY (`hash`) REFERENCES `files`(`hash`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `file_uses_of` ON `file_uses` (`invitation_id`,`purpose`);--> statement-breakpoint
CREATE INDEX `file_uses_by` ON `file_uses` (`hash`);--> statement-breakpoint
CREATE TABLE `files` (
	`hash` text PRIMARY KEY NOT NULL,
	`type` text NOT NULL,
	`bytes` integer NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `forms` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`hash` text NOT NULL,
	`paper_version_id` integer NOT NULL,
	`document` text NOT NULL,
	FOREIGN KEY (`paper_version_id`) REFERENCES `paper_versions`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `forms_hash_unique` ON `forms` (`hash`);--> statement-breakpoint
CREATE TABLE `gaps` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`sitting_id` integer NOT NULL,
	`target` text NOT NULL,
	`first_judgement` integer NOT NULL,
	`second_judgement` integer NOT NULL,
	`opened_at` integer NOT NULL,
	`closed_at` integer,
	`settlement` integer,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`first_judgement`) REFERENCES `judgements`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`second_judgement`) REFERENCES `judgements`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`settlement`) REFERENCES `judgements`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `gaps_in` ON `gaps` (`round_id`,`target`,`closed_at`);--> statement-breakpoint
CREATE INDEX `gaps_of` ON `gaps` (`sitting_id`,`target`);--> statement-breakpoint
CREATE TABLE `heads` (
	`sitting_id` integer NOT NULL,
	`hold` integer NOT NULL,
	`number` integer NOT NULL,
	`chain` text NOT NULL,
	`arrived_at` integer NOT NULL,
	`heard` integer NOT NULL,
	`checked` integer NOT NULL,
	PRIMARY KEY(`sitting_id`, `hold`, `number`, `chain`)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE TABLE `holds` (
	`sitting_id` integer NOT NULL,
	`number` integer NOT NULL,
	`token` text NOT NULL,
	`granted_at` integer NOT NULL,
	`agent` text NOT NULL,
	`store` text NOT NULL,
	`opening` text NOT NULL,
	`whole` integer DEFAULT 0 NOT NULL,
	`chain` text NOT NULL,
	`broken` integer DEFAULT false NOT NULL,
	`rows` integer DEFAULT 0 NOT NULL,
	`bytes` integer DEFAULT 0 NOT NULL,
	PRIMARY KEY(`sitting_id`, `number`),
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `invitations` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`person_id` integer NOT NULL,
	`extra_percent` integer NOT NULL,
	`arrangements` text NOT NULL,
	`time_zone` text,
	`invited_at` integer NOT NULL,
	`questionnaire_at` integer,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `one_invitation_a_round` ON `invitations` (`round_id`,`person_id`);--> statement-breakpoint
CREATE INDEX `invitations_of` ON `invitations` (`person_id`);--> statement-breakpoint
CREATE TABLE `item_marking` (
	`round_id` integer NOT NULL,
	`target` text NOT NULL,
	`double_percent` integer NOT NULL,
	`tolerance` integer NOT NULL,
	`standard_every` integer NOT NULL,
	`signed_off_at` integer,
	`signed_off_by` integer,
	PRIMARY KEY(`round_id`, `target`),
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`signed_off_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `item_versions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`item_id` integer NOT NULL,
	`version` integer NOT NULL,
	`state` text NOT NULL,
	`document` text NOT NULL,
	`source` text,
	FOREIGN KEY (`item_id`) REFERENCES `items`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `one_item_version` ON `item_versions` (`item_id`,`version`);--> statement-breakpoint
CREATE TABLE `items` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `items_key_unique` ON `items` (`key`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`kind` text NOT NULL,
	`subject` integer NOT NULL,
	`state` text DEFAULT 'waiting' NOT NULL,
	`run_at` integer NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`done_at` integer,
	`trouble` text
);
--> statement-breakpoint
CREATE INDEX `jobs_due` ON `jobs` (`state`,`run_at`);--> statement-breakpoint
CREATE INDEX `jobs_about` ON `jobs` (`kind`,`subject`);--> statement-breakpoint
CREATE TABLE `journal` (
	`arrival` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`hold` integer NOT NULL,
	`number` integer NOT NULL,
	`variant` integer NOT NULL,
	`about` text NOT NULL,
	`target` text NOT NULL,
	`value` text,
	`patch` text,
	`restored` text,
	`claimed_at` integer NOT NULL,
	`arrived_at` integer NOT NULL,
	`aside` text,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `entry_once` ON `journal` (`sitting_id`,`hold`,`number`,`variant`);--> statement-breakpoint
CREATE TABLE `judgements` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`target` text NOT NULL,
	`role` text NOT NULL,
	`staff_id` integer NOT NULL,
	`given` text NOT NULL,
	`comment` text NOT NULL,
	`notes` text NOT NULL,
	`reason` text DEFAULT '' NOT NULL,
	`response` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `judgements_of` ON `judgements` (`sitting_id`,`target`);--> statement-breakpoint
CREATE TABLE `key_corrections` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`item` text NOT NULL,
	`version` integer NOT NULL,
	`part` text NOT NULL,
	`component` text NOT NULL,
	`answer` text NOT NULL,
	`staff_id` integer NOT NULL,
	`reason` text NOT NULL,
	`at` integer NOT NULL,
	`done` integer DEFAULT 0 NOT NULL,
	`of` integer,
	`finished_at` integer,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `corrections_of` ON `key_corrections` (`item`,`version`);--> statement-breakpoint
CREATE TABLE `letters` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`invitation_id` integer NOT NULL,
	`to` text NOT NULL,
	`facts` text NOT NULL,
	`at` integer NOT NULL,
	`sent_at` integer,
	`trouble` text,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `letters_of` ON `letters` (`invitation_id`);--> statement-breakpoint
CREATE TABLE `links` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`invitation_id` integer NOT NULL,
	`hash` text NOT NULL,
	`made_at` integer NOT NULL,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `links_hash_unique` ON `links` (`hash`);--> statement-breakpoint
CREATE INDEX `links_of` ON `links` (`invitation_id`);--> statement-breakpoint
CREATE TABLE `marking_holds` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`target` text NOT NULL,
	`staff_id` integer NOT NULL,
	`reason` text NOT NULL,
	`at` integer NOT NULL,
	`ended_at` integer,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `marking_holds_in` ON `marking_holds` (`round_id`);--> statement-breakpoint
CREATE TABLE `marking_tasks` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`sitting_id` integer NOT NULL,
	`target` text NOT NULL,
	`role` text NOT NULL,
	`failure` text,
	`trouble` text DEFAULT '' NOT NULL,
	`response` text NOT NULL,
	`assessor_id` integer,
	`position` integer NOT NULL,
	`draft` text,
	`judgement_id` integer,
	`done_at` integer,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`assessor_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`judgement_id`) REFERENCES `judgements`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tasks_of` ON `marking_tasks` (`sitting_id`,`target`);--> statement-breakpoint
CREATE INDEX `tasks_in` ON `marking_tasks` (`round_id`,`target`,`done_at`);--> statement-breakpoint
CREATE INDEX `tasks_queue` ON `marking_tasks` (`assessor_id`,`round_id`,`target`,`done_at`,`position`);--> statement-breakpoint
CREATE TABLE `marks` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`target` text NOT NULL,
	`component` text NOT NULL,
	`role` text NOT NULL,
	`cause` text NOT NULL,
	`supersedes` integer,
	`response` text NOT NULL,
	`staff_id` integer,
	`judgement_id` integer,
	`hundredths` integer NOT NULL,
	`verdict` text,
	`reasons` text NOT NULL,
	`level` integer,
	`at` integer NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`judgement_id`) REFERENCES `judgements`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `marks_of_sitting` ON `marks` (`sitting_id`,`target`,`component`);--> statement-breakpoint
CREATE INDEX `marks_superseded` ON `marks` (`supersedes`);--> statement-breakpoint
CREATE TABLE `media` (
	`hash` text PRIMARY KEY NOT NULL,
	`type` text NOT NULL,
	`bytes` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `media_keys` (
	`round_id` integer NOT NULL,
	`section` text NOT NULL,
	`key` text NOT NULL,
	PRIMARY KEY(`round_id`, `section`),
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
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
CREATE TABLE `observations` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`kind` text NOT NULL,
	`from_at` integer NOT NULL,
	`to_at` integer NOT NULL,
	`facts` text NOT NULL,
	`hash` text NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `observations_of` ON `observations` (`sitting_id`);--> statement-breakpoint
CREATE TABLE `overall_comments` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`staff_id` integer NOT NULL,
	`text` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `overall_comments_of` ON `overall_comments` (`sitting_id`);--> statement-breakpoint
CREATE TABLE `packs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`staff_id` integer NOT NULL,
	`at` integer NOT NULL,
	`done` integer NOT NULL,
	`of` integer NOT NULL,
	`cancelled_at` integer,
	`ready_at` integer,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `packs_of` ON `packs` (`round_id`);--> statement-breakpoint
CREATE TABLE `pages` (
	`sitting_id` integer NOT NULL,
	`hash` text NOT NULL,
	`bytes` integer NOT NULL,
	`held` integer NOT NULL,
	`state` text NOT NULL,
	`type` text,
	`view` text,
	`tries` integer NOT NULL,
	`completed_at` integer,
	`late` integer NOT NULL,
	PRIMARY KEY(`sitting_id`, `hash`),
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `paper_versions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`paper_id` integer NOT NULL,
	`version` integer NOT NULL,
	`document` text NOT NULL,
	FOREIGN KEY (`paper_id`) REFERENCES `papers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `one_paper_version` ON `paper_versions` (`paper_id`,`version`);--> statement-breakpoint
CREATE TABLE `papers` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `papers_key_unique` ON `papers` (`key`);--> statement-breakpoint
CREATE TABLE `people` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`email` text NOT NULL,
	`reference` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `people_reference_unique` ON `people` (`reference`);--> statement-breakpoint
CREATE INDEX `people_by_email` ON `people` (`email`);--> statement-breakpoint
CREATE TABLE `phones` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`target` text NOT NULL,
	`secret_hash` text NOT NULL,
	`until` integer NOT NULL,
	`joined_at` integer,
	`ended_at` integer,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `phones_secret_hash_unique` ON `phones` (`secret_hash`);--> statement-breakpoint
CREATE INDEX `phones_of` ON `phones` (`sitting_id`);--> statement-breakpoint
CREATE TABLE `phrases` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`staff_id` integer NOT NULL,
	`shared` integer NOT NULL,
	`text` text NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `phrases_of` ON `phrases` (`staff_id`);--> statement-breakpoint
CREATE TABLE `play_grants` (
	`sitting_id` integer NOT NULL,
	`file` text NOT NULL,
	`number` integer NOT NULL,
	`hold` integer NOT NULL,
	`granted_at` integer NOT NULL,
	`used_at` integer,
	PRIMARY KEY(`sitting_id`, `file`, `number`),
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `play_returns` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`file` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `play_returns_of` ON `play_returns` (`sitting_id`);--> statement-breakpoint
CREATE TABLE `printed_results` (
	`invitation_id` integer PRIMARY KEY NOT NULL,
	`sheet` text NOT NULL,
	`file` text NOT NULL,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `receipts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`at` integer NOT NULL,
	`hash` text NOT NULL,
	`reason` text NOT NULL,
	`sources` text NOT NULL,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `receipts_of` ON `receipts` (`sitting_id`);--> statement-breakpoint
CREATE TABLE `result_checks` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`invitation_id` integer NOT NULL,
	`reason` text NOT NULL,
	`asked_at` integer NOT NULL,
	`answer` text,
	`changed` integer,
	`answered_by` integer,
	`answered_at` integer,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`answered_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `checks_of` ON `result_checks` (`invitation_id`);--> statement-breakpoint
CREATE TABLE `round_staff` (
	`round_id` integer NOT NULL,
	`staff_id` integer NOT NULL,
	`role` text NOT NULL,
	PRIMARY KEY(`round_id`, `staff_id`, `role`),
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `rounds_of_staff` ON `round_staff` (`staff_id`);--> statement-breakpoint
CREATE TABLE `rounds` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`title` text NOT NULL,
	`paper_version_id` integer NOT NULL,
	`opens_at` integer NOT NULL,
	`closes_at` integer NOT NULL,
	`time_zone` text NOT NULL,
	`settings` text NOT NULL,
	`signed_off_at` integer,
	`signed_off_by` integer,
	`released_at` integer,
	`practice_at` integer,
	FOREIGN KEY (`paper_version_id`) REFERENCES `paper_versions`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`signed_off_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `rounds_key_unique` ON `rounds` (`key`);--> statement-breakpoint
CREATE TABLE `sealed_copies` (
	`form_id` integer NOT NULL,
	`section` text NOT NULL,
	`hash` text NOT NULL,
	`key` text NOT NULL,
	`bytes` blob NOT NULL,
	PRIMARY KEY(`form_id`, `section`),
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `sealed_copies_hash_unique` ON `sealed_copies` (`hash`);--> statement-breakpoint
CREATE TABLE `sealed_media` (
	`round_id` integer NOT NULL,
	`file` text NOT NULL,
	`section` text NOT NULL,
	`name` text NOT NULL,
	`hash` text NOT NULL,
	`bytes` integer NOT NULL,
	PRIMARY KEY(`round_id`, `file`),
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `set_asides` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`task_id` integer NOT NULL,
	`staff_id` integer NOT NULL,
	`reason` text NOT NULL,
	`note` text NOT NULL,
	`at` integer NOT NULL,
	`answer` text,
	`answered_by` integer,
	`answered_at` integer,
	FOREIGN KEY (`task_id`) REFERENCES `marking_tasks`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`answered_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `asides_of` ON `set_asides` (`task_id`);--> statement-breakpoint
CREATE TABLE `settings` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sittings` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`invitation_id` integer NOT NULL,
	`attempt` integer NOT NULL,
	`form_id` integer NOT NULL,
	`script` text NOT NULL,
	`device_name` text NOT NULL,
	`started_at` integer,
	`deadline_at` integer,
	`closed_at` integer,
	`closed_by` text,
	`claimed_hand_in_at` integer,
	`settled_at` integer,
	`scored_at` integer,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `sittings_script_unique` ON `sittings` (`script`);--> statement-breakpoint
CREATE UNIQUE INDEX `sittings_device_name_unique` ON `sittings` (`device_name`);--> statement-breakpoint
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
	`seen_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `standards` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`target` text NOT NULL,
	`sitting_id` integer NOT NULL,
	`use` text NOT NULL,
	`judgement_id` integer NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`judgement_id`) REFERENCES `judgements`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `one_standard` ON `standards` (`round_id`,`target`,`sitting_id`);--> statement-breakpoint
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
CREATE INDEX `time_events_of` ON `time_events` (`sitting_id`);--> statement-breakpoint
CREATE TABLE `verdicts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`sitting_id` integer NOT NULL,
	`verdict` text NOT NULL,
	`reason` text NOT NULL,
	`staff_id` integer NOT NULL,
	`at` integer NOT NULL,
	`agreed_by` integer,
	`agreed_at` integer,
	`ended_at` integer,
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`agreed_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `verdicts_of` ON `verdicts` (`sitting_id`);--> statement-breakpoint
CREATE TABLE `weighings` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`observation_id` integer NOT NULL,
	`weight` text NOT NULL,
	`reason` text NOT NULL,
	`staff_id` integer NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`observation_id`) REFERENCES `observations`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `weighings_of` ON `weighings` (`observation_id`);