CREATE TABLE `checkpoints` (
	`displayId` text NOT NULL,
	`seq` integer NOT NULL,
	`at` integer NOT NULL,
	`rows` text NOT NULL,
	PRIMARY KEY(`displayId`, `seq`),
	FOREIGN KEY (`displayId`) REFERENCES `displays`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `invitations` (
	`id` text PRIMARY KEY NOT NULL,
	`tokenHash` text NOT NULL,
	`displayId` text NOT NULL,
	`role` text NOT NULL,
	`personId` text,
	`madeBy` text NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`createdAt` integer NOT NULL,
	`expiresAt` integer NOT NULL,
	`usedAt` integer,
	`usedBy` text,
	`revokedAt` integer,
	FOREIGN KEY (`displayId`) REFERENCES `displays`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `invitations_tokenHash_unique` ON `invitations` (`tokenHash`);--> statement-breakpoint
CREATE INDEX `invitations_display` ON `invitations` (`displayId`);--> statement-breakpoint
CREATE TABLE `letters` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`userId` text NOT NULL,
	`displayId` text,
	`at` integer NOT NULL,
	`about` text NOT NULL,
	`subject` text NOT NULL,
	`body` text NOT NULL,
	`link` text DEFAULT '' NOT NULL,
	`readAt` integer,
	FOREIGN KEY (`userId`) REFERENCES `users`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`displayId`) REFERENCES `displays`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `letters_user` ON `letters` (`userId`,`id`);--> statement-breakpoint
CREATE TABLE `marks` (
	`displayId` text NOT NULL,
	`userId` text NOT NULL,
	`what` text NOT NULL,
	`upTo` integer NOT NULL,
	PRIMARY KEY(`displayId`, `userId`, `what`),
	FOREIGN KEY (`displayId`) REFERENCES `displays`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`userId`) REFERENCES `users`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `resets` (
	`codeHash` text PRIMARY KEY NOT NULL,
	`userId` text NOT NULL,
	`madeBy` text NOT NULL,
	`createdAt` integer NOT NULL,
	`expiresAt` integer NOT NULL,
	FOREIGN KEY (`userId`) REFERENCES `users`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `shares` (
	`displayId` text PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`names` integer DEFAULT false NOT NULL,
	`createdAt` integer NOT NULL,
	FOREIGN KEY (`displayId`) REFERENCES `displays`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `shares_token_unique` ON `shares` (`token`);--> statement-breakpoint
ALTER TABLE `batches` ADD `told` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `sessions` ADD `agent` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `sessions` ADD `seenAt` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `users` ADD `keeper` integer DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE `users` SET `keeper` = true WHERE `createdAt` = (SELECT min(`createdAt`) FROM `users`);
