ALTER TABLE `batches` ADD `sent` text;--> statement-breakpoint
ALTER TABLE `entities` ADD `stamp` text;