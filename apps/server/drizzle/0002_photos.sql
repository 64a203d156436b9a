CREATE TABLE `photo_files` (
	`displayId` text NOT NULL,
	`digest` text NOT NULL,
	`userId` text NOT NULL,
	`at` integer NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`bytes` blob NOT NULL,
	`small` blob NOT NULL,
	PRIMARY KEY(`displayId`, `digest`),
	FOREIGN KEY (`displayId`) REFERENCES `displays`(`id`) ON UPDATE no action ON DELETE cascade
);
