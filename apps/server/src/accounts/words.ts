import { dictionary } from '@zxcvbn-ts/language-common';
import { z } from 'zod';
import { line } from '@quarry/core/document';

// Schemas of sign-in names, full names and passwords.

export const login = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9._-]{2,40}$/, 'a sign-in name has 2 to 40 letters, digits, dots, hyphens or underscores');
export const fullName = line().trim().min(1, 'a name is needed').max(80);
/** Passwords that are tried first, from a list of the commonest ones, in small letters. */
const COMMON = new Set(dictionary.passwords.filter((word): word is string => typeof word === 'string'));
/** Without figures and marks at its ends: «password1234!» is «password». */
const root = (password: string) => password.toLowerCase().replace(/^[^a-z]+|[^a-z]+$/g, '');
const isCommon = (password: string): boolean => {
  const small = password.toLowerCase();
  const half = small.slice(0, Math.ceil(small.length / 2));
  return (
    [small, root(small)].some((word) => COMMON.has(word)) ||
    new Set(small).size < 5 ||
    (small === half.repeat(2) && COMMON.has(half)) ||
    ROWS.some((row) => row.includes(small))
  );
};
const ROWS = ['01234567890123456789', 'abcdefghijklmnopqrstuvwxyz', 'qwertyuiopasdfghjklzxcvbnm'];

export const newPassword = z
  .string()
  .min(12, 'a password has at least 12 characters')
  .max(200, 'a password has at most 200 characters')
  .refine((password) => !isCommon(password), 'this password is among those tried first: choose another');
export const anyPassword = z.string().min(1).max(200);
