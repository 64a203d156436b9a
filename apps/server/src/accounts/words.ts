import { z } from 'zod';
import { line } from '@quarry/core/scene';

/** What sign-in names, names and passwords may be, wherever somebody types one. */

export const login = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9._-]{2,40}$/, 'a sign-in name has 2 to 40 letters, digits, dots, hyphens or underscores');
export const fullName = line().trim().min(1, 'a name is needed').max(80);
export const newPassword = z
  .string()
  .min(10, 'a password has at least 10 characters')
  .max(200, 'a password has at most 200 characters');
export const anyPassword = z.string().min(1).max(200);
