CREATE TABLE `result_codes` (
	`invitation_id` integer PRIMARY KEY NOT NULL,
	`hash` text NOT NULL,
	`made_at` integer NOT NULL,
	`tries` integer DEFAULT 0 NOT NULL,
	FOREIGN KEY (`invitation_id`) REFERENCES `invitations`(`id`) ON UPDATE no action ON DELETE no action
);
