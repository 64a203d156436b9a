CREATE TABLE `batches` (
	`displayId` text NOT NULL,
	`seq` integer NOT NULL,
	`batchId` text NOT NULL,
	`userId` text NOT NULL,
	`author` text NOT NULL,
	`at` integer NOT NULL,
	`label` text NOT NULL,
	`changes` text NOT NULL,
	PRIMARY KEY(`displayId`, `seq`),
	FOREIGN KEY (`displayId`) REFERENCES `displays`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `batches_id` ON `batches` (`displayId`,`batchId`);--> statement-breakpoint
CREATE TABLE `displays` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`seq` integer DEFAULT 0 NOT NULL,
	`createdAt` integer NOT NULL,
	`changedAt` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `entities` (
	`displayId` text NOT NULL,
	`kind` text NOT NULL,
	`id` text NOT NULL,
	`v` integer NOT NULL,
	`data` text,
	PRIMARY KEY(`displayId`, `kind`, `id`),
	FOREIGN KEY (`displayId`) REFERENCES `displays`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `members` (
	`displayId` text NOT NULL,
	`userId` text NOT NULL,
	`role` text NOT NULL,
	`personId` text,
	PRIMARY KEY(`displayId`, `userId`),
	FOREIGN KEY (`displayId`) REFERENCES `displays`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`userId`) REFERENCES `users`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `members_user` ON `members` (`userId`);--> statement-breakpoint
CREATE TABLE `sessions` (
	`tokenHash` text PRIMARY KEY NOT NULL,
	`userId` text NOT NULL,
	`createdAt` integer NOT NULL,
	`expiresAt` integer NOT NULL,
	FOREIGN KEY (`userId`) REFERENCES `users`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `sessions_user` ON `sessions` (`userId`);--> statement-breakpoint
CREATE TABLE `users` (
	`id` text PRIMARY KEY NOT NULL,
	`login` text NOT NULL,
	`name` text NOT NULL,
	`passwordHash` text NOT NULL,
	`createdAt` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `users_login_unique` ON `users` (`login`);