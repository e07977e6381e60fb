ALTER TABLE `staff` ADD `disabled_at` integer;--> statement-breakpoint
ALTER TABLE `receipts` ADD `form` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `phrases` ADD `round_id` integer REFERENCES rounds(id);