import { z } from 'zod';
import {
  BANK_REFS,
  groundField,
  halfStud,
  heightPoints,
  levelFields,
  name,
  plates,
  size,
} from '../fields.ts';
import { defineKind } from '../kind.ts';

export const FALLS = ['even', 'points'] as const;

export const streamKind = defineKind({
  schema: z.strictObject({
    name,
    points: heightPoints,
    ...levelFields,
    width: size.max(128).default(6),
    /** Between points of given height the surface falls evenly, or stays level and falls at the point. */
    falls: z.enum(FALLS).default('even'),
    ground: groundField.default('water'),
    depth: plates.min(1).default(1),
    bank: halfStud.min(0).max(64).default(1),
    bankGround: groundField.default('sand'),
  }),
  group: 'streams',
  word: 'stream',
  public: true,
  refs: { level: 'level', ...BANK_REFS },
  outline: 7,
  relief: 'land',
  beyond: ({ width, bank }) => width / 2 + bank,
});
