import { dictionary } from '@zxcvbn-ts/language-common';
import {
  newPassword,
  newAccountSchema,
  resetSchema,
  setPasswordSchema,
  setUpSchema,
} from '@quarry/protocol/accounts';

// Passwords as this server takes them: the schemas of the protocol, less the commonest passwords.

/** Passwords that are tried first, from a list of the commonest ones, in small letters. */
const COMMON = new Set(dictionary.passwords.filter((word): word is string => typeof word === 'string'));
/** Without figures and marks at its ends: “password1234!” is “password”. */
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

const strongPassword = newPassword.refine(
  (password) => !isCommon(password),
  'this password is among those tried first: choose another',
);

export const strongAccountSchema = newAccountSchema.extend({ password: strongPassword });
export const strongSetUpSchema = setUpSchema.extend({ password: strongPassword });
export const strongSetPasswordSchema = setPasswordSchema.extend({ password: strongPassword });
export const strongResetSchema = resetSchema.extend({ password: strongPassword });
