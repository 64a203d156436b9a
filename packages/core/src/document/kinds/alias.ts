import { z } from 'zod';
import { line } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const ALIAS_ABOUT = ['part', 'colour'] as const;

/** An alias: a word of an imported list and its meaning. */
export const aliasKind = defineKind({
  schema: z.strictObject({
    about: z.enum(ALIAS_ABOUT),
    word: line().trim().min(1).max(120),
    means: z.string().min(1).max(40),
  }),
  group: 'aliases',
  word: 'alias',
  label: (alias) => `alias “${alias.word}”`,
  ownBy: [],
});
