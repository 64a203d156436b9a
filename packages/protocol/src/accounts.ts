import { z } from 'zod';
import { ROLES, line } from '@quarry/core/document';

// Accounts, sessions and messages: requests and answers of `/api/me`, `/api/session`, `/api/setup`, `/api/reset`,
// `/api/letters` and `/api/demo`. Times are ms since the epoch.

const login = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9._-]{2,40}$/, 'a sign-in name has 2 to 40 letters, digits, dots, hyphens or underscores');
const fullName = line().trim().min(1, 'a name is needed').max(80);
/** The least letters of a password. */
export const MIN_PASSWORD = 12;
/** A password to be set; the server also refuses the commonest ones. */
export const newPassword = z
  .string()
  .min(MIN_PASSWORD, `a password has at least ${MIN_PASSWORD} characters`)
  .max(200, 'a password has at most 200 characters');
const anyPassword = z.string().min(1).max(200);
const code = z.string().max(40);

export const signInSchema = z.strictObject({ login, password: anyPassword });
/** The fields of a new account. */
export const newAccountSchema = z.strictObject({ login, name: fullName, password: newPassword });
/** The first account of an instance. @see newAccountSchema */
export const setUpSchema = newAccountSchema.extend({ code });
export const setPasswordSchema = z.strictObject({ old: anyPassword, password: newPassword });
export const askResetSchema = z.strictObject({ login });
export const resetSchema = z.strictObject({ login, code, password: newPassword });
export const removeAccountSchema = z.strictObject({ password: anyPassword });
export const demoSignInSchema = z.strictObject({ login: z.string().max(40) });

export const welcomeSchema = z.object({ setupNeeded: z.boolean(), demo: z.boolean() });
export type Welcome = z.infer<typeof welcomeSchema>;

export const userSchema = z.object({ id: z.string(), login: z.string(), name: z.string() });
export type User = z.infer<typeof userSchema>;

/** A session of the user: `id` is a prefix of its digest, `here` marks the session of the request. */
export const sessionLineSchema = z.object({
  id: z.string(),
  agent: z.string(),
  createdAt: z.number(),
  seenAt: z.number(),
  here: z.boolean(),
});
export type SessionLine = z.infer<typeof sessionLineSchema>;

export const demoMemberSchema = z.object({
  login: z.string(),
  name: z.string(),
  role: z.enum(ROLES),
  line: z.string(),
});
export type DemoMember = z.infer<typeof demoMemberSchema>;

/** What a message is about. */
export const LETTER_TOPICS = ['mention', 'answer', 'digest', 'reset', 'crew', 'reminder'] as const;
/** A message that mail would carry; `readAt` is null until it is read. */
export const letterSchema = z.object({
  id: z.int(),
  displayId: z.string().nullable(),
  at: z.number(),
  about: z.enum(LETTER_TOPICS),
  subject: z.string(),
  body: z.string(),
  link: z.string(),
  readAt: z.number().nullable(),
});
export type Letter = z.infer<typeof letterSchema>;
export const letterIdSchema = z.coerce.number().int().min(1).max(1e15);
