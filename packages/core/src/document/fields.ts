import { z } from 'zod';

// The fields that the schemas of the document are made of, each with its limits.

/** No display is larger than this many studs a side (4,096 studs = 32.8 m). */
export const MAX_STUDS = 4096;
/** Nor has its footprint, from corner to corner, more studs than this (2,048 × 2,048). */
export const MAX_FOOTPRINT = 4_194_304;
const MAX_MM = 40_000;
const MAX_PLATES = 3000;

export const idSchema = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'an id is 1 to 40 small letters, digits or hyphens');
/**
 * Control characters, line separators and marks that turn the direction of writing: what stands in one line of a name
 * must not end that line in a calendar or a log, nor read backwards. Each run of them becomes a space.
 */
const UNSEEN = /[\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069\ufeff]+/gu;
/** The same in texts of several lines, whose line ends and tabs stay. */
const UNSEEN_IN_TEXT = /(?:(?![\n\t])[\p{Cc}\u202a-\u202e\u2066-\u2069\ufeff])+/gu;

/** Words in one line. */
export const line = () => z.string().overwrite((words) => words.replace(UNSEEN, ' '));
/** Words in several lines, which end as on every system. */
export const prose = () =>
  z.string().overwrite((words) => words.replace(/\r\n?/g, '\n').replace(UNSEEN_IN_TEXT, ' '));
export const name = line().trim().min(1, 'a name is needed').max(80, 'a name has at most 80 characters');
export const text = prose().max(2000, 'a text has at most 2,000 characters');
export const halfStud = z.number().multipleOf(0.5, 'positions stand on half studs');
export const position = halfStud.min(-MAX_STUDS).max(MAX_STUDS);
export const size = halfStud.min(0.5).max(MAX_STUDS);
export const millimetres = z.number().min(-MAX_MM).max(MAX_MM);
export const mmSize = z.number().min(1).max(MAX_MM);
export const plates = z.int().min(-MAX_PLATES).max(MAX_PLATES);
export const money = z.number().min(0).max(1_000_000);
export const reference = idSchema.nullable();
export const date = z.iso.date().nullable();
export const studArea = { x: position, y: position, w: size, d: size };
export const wholeStud = z.int().min(-MAX_STUDS).max(MAX_STUDS);
export const wholeSize = z.int().min(1).max(MAX_STUDS);
