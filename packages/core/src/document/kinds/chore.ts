import { z } from 'zod';
import { instant, line, name } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** Packing at home, setting up and taking down at the show, setting up at home again. */
export const SHOW_PHASES = ['leave', 'setup', 'takedown', 'rebuild'] as const;
/** When a task of one's own is done: before everything, once all modules stand, or after everything. */
export const CHORE_TURNS = ['first', 'modules', 'last'] as const;

/** A task of setting up or taking down: one of one's own, or what is known of one that follows from the plan. */
export const choreKind = defineKind({
  schema: z.strictObject({
    name,
    phase: z.enum(SHOW_PHASES).default('setup'),
    /** Key of the task from the plan that it is about; empty: one of one's own. */
    task: line().max(160).default(''),
    turn: z.enum(CHORE_TURNS).default('last'),
    /** Minutes and hands; null: as guessed. */
    minutes: z.int().min(1).max(1440).nullable().default(null),
    hands: z.int().min(0).max(50).nullable().default(null),
    /** Not done this time. */
    dropped: z.boolean().default(false),
    began: instant,
    ended: instant,
  }),
  group: 'chores',
  word: 'task of the show',
  ownBy: [],
});
