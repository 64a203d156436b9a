import { MM_PER_PLATE, MM_PER_STUD } from '../grid/index.ts';
import { wallCorners } from './plotAreas.ts';
import type { Entity } from './schema.ts';
import { listOf, type Scene } from './scene.ts';

// What is written on a signboard, how large, and where its board stands.

type Signboard = Omit<Entity<'signboard'>, 'id' | 'v'>;

/** What it says. */
export const wordsOn = ({ text, name }: Pick<Signboard, 'text' | 'name'>): string =>
  text === '' ? name : text;

/** Of a board’s height capitals take at most so much; a letter with its gap is so wide, of its height (guesses of ours). */
const OF_HEIGHT = 0.7;
const LETTER_WIDE = 0.7;

/** How long the words are in letters of a height, in its unit. */
export const lengthOfWords = (sign: Pick<Signboard, 'text' | 'name'>, height: number): number =>
  LETTER_WIDE * height * [...wordsOn(sign)].length;

/** The largest letters with which the words go on the board in one line, mm: whole tenths. */
export function largestLetters(sign: Pick<Signboard, 'text' | 'name' | 'w' | 'height'>): number {
  const high = OF_HEIGHT * sign.height * MM_PER_PLATE;
  const wide = (sign.w * MM_PER_STUD) / lengthOfWords(sign, 1);
  return Math.floor(10 * Math.min(high, wide) + 1e-9) / 10;
}

/** The smallest board, no smaller than there is, on which letters of a height go: studs and plates. @param letters mm */
export const boardFor = (
  sign: Pick<Signboard, 'text' | 'name' | 'w' | 'height'>,
  letters: number,
): Pick<Signboard, 'w' | 'height'> => ({
  w: Math.max(sign.w, Math.ceil(lengthOfWords(sign, letters) / MM_PER_STUD - 1e-9)),
  height: Math.max(sign.height, Math.ceil(letters / OF_HEIGHT / MM_PER_PLATE - 1e-9)),
});

/** Height of its capital letters, mm: as typed, else the largest that go on. */
export const letterHeight = (sign: Pick<Signboard, 'text' | 'name' | 'w' | 'height' | 'letters'>): number =>
  sign.letters ?? largestLetters(sign);

/** Corners of its board on the plan, a stud deep, in order round it. */
export const signboardCorners = ({ x, y, w, facing }: Pick<Signboard, 'x' | 'y' | 'w' | 'facing'>) =>
  wallCorners({ x: x - w / 2, y: y - 0.5, w, d: 1, turn: (facing + 180) % 360 });

/** Where its letters look: studs east and north. */
export function outOf({ facing }: Pick<Signboard, 'facing'>): { x: number; y: number } {
  const angle = (facing * Math.PI) / 180;
  return { x: Math.sin(angle), y: Math.cos(angle) };
}

/** Those on a post of their own: they come off before what they stand on is carried; the others are part of a wall. */
export const postedBoards = (scene: Pick<Scene, 'signboard'>): Entity<'signboard'>[] =>
  listOf(scene, 'signboard').filter(({ on }) => on === 'post');

/**
 * Letters are read where they fill this much, radians: ten minutes of arc, twice what a normal eye needs (Snellen 1862: an
 * optotype of 5′).
 */
const READ_ANGLE = ((10 / 60) * Math.PI) / 180;

/** How high letters must be to be read straight on from a distance, both in one unit. */
export const lettersReadAt = (distance: number): number => distance * Math.tan(READ_ANGLE);
/** From how far letters of a height are read straight on, in its unit. */
export const readUpTo = (letters: number): number => letters / Math.tan(READ_ANGLE);
