ALTER TABLE `phones` ADD `code_hash` text;--> statement-breakpoint
CREATE INDEX `phones_by_code` ON `phones` (`code_hash`);