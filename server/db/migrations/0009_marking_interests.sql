CREATE TABLE `marking_interests` (
	`sitting_id` integer NOT NULL,
	`staff_id` integer NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`sitting_id`, `staff_id`),
	FOREIGN KEY (`sitting_id`) REFERENCES `sittings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
