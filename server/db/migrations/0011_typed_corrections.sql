ALTER TABLE `key_corrections` DROP COLUMN `component`;--> statement-breakpoint
ALTER TABLE `key_corrections` DROP COLUMN `answer`;