import { PALETTE, DISTINCT_DELTA_E, colourName, lightContrast } from '../catalogue/index.ts';
import {
  boardFor,
  displayOf,
  largestLetters,
  lengthOfWords,
  letterHeight,
  listOf,
  SIDES,
  SIDE_WORDS,
  wordsOn,
  type Entity,
  type Scene,
} from '../document/index.ts';
import { countOf } from '../grid/index.ts';
import type { Lookout } from '../visibility/index.ts';
import { listed, percent, tenth } from './figures.ts';
import { moveFixes, namedThing, patch, type Fix, type FixesOf } from './fix.ts';
import { formatTenths, type FindingDraft, type Rule } from './finding.ts';

// Signboards that visitors cannot read, and what makes them readable.

type Signboard = Entity<'signboard'>;
/** To the next tenth. */
const tenthUp = (value: number): number => Math.ceil(10 * value - 1e-9) / 10;
const at = ({ id, x, y }: Signboard) => ({
  place: { x, y },
  things: [{ kind: 'signboard' as const, id }],
});

/** What a rule finds of each signboard, where it is known who looks. */
const ofEachBoard =
  (find: (sign: Signboard, lookout: Lookout) => FindingDraft[]): Rule['check'] =>
  ({ scene, lookout: ask }) => {
    const boards = listOf(scene, 'signboard');
    const lookout = boards.length > 0 ? ask() : null;
    return lookout ? boards.flatMap((sign) => find(sign, lookout)) : [];
  };

const signboardUnseen: Rule = {
  id: 'signboard-unseen',
  title: 'Visitors cannot see what is written on a signboard',
  basis:
    'Straight lines from visitors’ eyes, at all heights, to the middle of the board: those before its face, at most 75° off straight on (ours, no source), and those that nothing cuts off.',
  page: 'plan',
  severity: 'warning',
  check: ofEachBoard((sign, lookout) => {
    const sides = listed(displayOf(lookout.scene).viewedSides.map((side) => SIDE_WORDS[side]));
    const reading = lookout.reading(sign.id);
    if (!reading || reading.free > 0) return [];
    const { before } = reading;
    const [hider] = lookout.look('signboard', sign.id).hiders;
    const by = hider ? `; “${hider.name}” cuts off ${percent(100 * hider.share)} of the lines to it` : '';
    return [
      {
        ...at(sign),
        sentence:
          before === 0
            ? `“${wordsOn(sign)}” looks to ${sign.facing}°, and visitors look from the ${sides}: 0 eyes are before it.`
            : `Nobody sees “${wordsOn(sign)}”: of ${countOf(before, 'eye')} before it 0 do${by}.`,
        remedy: 'Turn it, move it, or hang it higher.',
        numbers: { before, free: 0 },
      },
    ];
  }),
};

const signboardSmall: Rule = {
  id: 'signboard-small',
  title: 'The letters of a signboard are too small to be read',
  basis:
    'Letters are read where they fill ten minutes of arc, twice what a normal eye needs (Snellen 1862: an optotype of 5′): 1 mm for each 344 mm, more when seen from the side, by the cosine. Of all eyes that see the board the best placed are asked.',
  page: 'plan',
  severity: 'note',
  check: ofEachBoard((sign, lookout) => {
    const reading = lookout.reading(sign.id);
    const letters = letterHeight(sign);
    if (!reading || reading.free === 0 || letters >= reading.needed) return [];
    return [
      {
        ...at(sign),
        sentence: `The letters of “${wordsOn(sign)}” are ${formatTenths(letters)} high; where it is seen best, ${Math.round(reading.aside)}° off straight on, they are read from ${formatTenths(tenthUp(reading.needed))} on.`,
        remedy: 'Write larger letters, on a larger board, turn it, or move it to the front.',
        numbers: { letters: tenth(letters), needed: tenthUp(reading.needed) },
      },
    ];
  }),
};

const lettersTooLong: Rule = {
  id: 'signboard-letters',
  title: 'The letters of a signboard do not go on it',
  basis:
    'In one line: capitals at most 7/10 of the board’s height, each with its gap 7/10 of its height wide (guesses of ours).',
  page: 'plan',
  severity: 'warning',
  check({ scene }) {
    return listOf(scene, 'signboard').flatMap((sign): FindingDraft[] => {
      const most = largestLetters(sign);
      if (sign.letters === null || sign.letters <= most) return [];
      return [
        {
          ...at(sign),
          sentence: `Letters of ${formatTenths(sign.letters)} make “${wordsOn(sign)}” ${formatTenths(lengthOfWords(sign, sign.letters))} long; on a board of ${countOf(sign.w, 'stud')} and ${countOf(sign.height, 'plate')} go letters of ${formatTenths(most)} at most.`,
          remedy: 'Smaller letters, fewer words, or a larger board.',
          numbers: { letters: sign.letters, most },
        },
      ];
    });
  },
};

/** Letters are told from their board at this contrast (ADA Accessibility Guidelines 1991, A4.30.3, from memory). */
const LEAST_CONTRAST = 0.7;

const signboardDim: Rule = {
  id: 'signboard-dim',
  title: 'The letters of a signboard hardly differ from its board',
  basis:
    'How much less light the darker of the two colours sends back, as a share of the lighter: 70 % or more is legible (ADA Accessibility Guidelines 1991, A4.30.3, from memory).',
  page: 'plan',
  severity: 'note',
  check({ scene }) {
    return listOf(scene, 'signboard').flatMap((sign): FindingDraft[] => {
      const contrast = lightContrast(sign.colour, sign.ink);
      if (contrast === null || contrast >= LEAST_CONTRAST) return [];
      return [
        {
          ...at(sign),
          sentence: `${colourName(sign.ink)} letters on ${colourName(sign.colour)} differ in light by ${percent(100 * contrast)} on “${wordsOn(sign)}”; legible is ${percent(100 * LEAST_CONTRAST)} or more.`,
          remedy: 'Take a lighter or darker colour for one of them.',
          numbers: { contrast: Number(contrast.toFixed(2)) },
        },
      ];
    });
  },
};

/** Before its own colour for this share of what is seen it does not stand out. */
const HALF = 0.5;

const signboardBlends: Rule = {
  id: 'signboard-blends',
  title: 'A signboard has the colour of what is behind it',
  basis:
    'What straight lines from visitors’ eyes meet behind the edge of the board, its colour beside the board’s: below 10 by CIEDE2000 they are one colour (common practice, no source). Found when that is so for half of what is seen.',
  page: 'plan',
  severity: 'note',
  check: ofEachBoard((sign, lookout) => {
    const blends = lookout.blendOf('signboard', sign.id);
    const [most] = blends?.against ?? [];
    if (!blends || !most || blends.share < HALF) return [];
    return [
      {
        ...at(sign),
        sentence: `${percent(100 * blends.share)} of the edge of “${wordsOn(sign)}” is seen before its own colour: ${colourName(most.own)} before ${colourName(most.colour)} of “${most.name}” differs by ${most.deltaE.toFixed(1)}; ${DISTINCT_DELTA_E} or more is told apart.`,
        remedy: 'Take another colour for the board, or a rim round it.',
        numbers: { share: Number(blends.share.toFixed(2)), difference: tenth(most.deltaE) },
      },
    ];
  }),
};

export const SIGNBOARD_RULES: readonly Rule[] = [
  signboardUnseen,
  signboardSmall,
  lettersTooLong,
  signboardDim,
  signboardBlends,
];

const set = (sign: Signboard, words: string, fields: Partial<Signboard>): Fix => ({
  words,
  changes: [patch('signboard', sign, fields)],
});

/** Turns of a board to each side, first to those from which it is looked at. */
export function turnBoard(scene: Scene, sign: Signboard): Fix[] {
  const { viewedSides } = displayOf(scene);
  return [...new Set([...viewedSides, ...SIDES])].flatMap((side) => {
    // From north by the compass.
    const facing = 90 * SIDES.indexOf(side);
    if (sign.facing === facing) return [];
    return [set(sign, `Turn “${sign.name}” to look ${SIDE_WORDS[side]}`, { facing })];
  });
}

/** A board on which letters of a height go. */
function widened(sign: Signboard, letters: number): Fix {
  const board = boardFor(sign, letters);
  return set(
    sign,
    `Make “${sign.name}” ${countOf(board.w, 'stud')} wide and ${countOf(board.height, 'plate')} high`,
    { ...board, letters: sign.letters === null ? null : letters },
  );
}

const SOLID = PALETTE.filter(({ finish }) => finish === 'solid');

/** What makes a signboard readable, by rule. */
export const SIGNBOARD_FIXES: Readonly<Record<string, FixesOf>> = {
  'signboard-unseen': (scene, finding) => {
    const sign = namedThing(scene, finding, 'signboard');
    if (!sign) return [];
    return [...turnBoard(scene, sign), ...moveFixes(scene, { kind: 'signboard', id: sign.id }, [2, 4, 8])];
  },
  'signboard-small': (scene, finding) => {
    const sign = namedThing(scene, finding, 'signboard');
    const { needed } = finding.numbers;
    if (!sign || needed === undefined) return [];
    const most = largestLetters(sign);
    return [
      ...(most >= needed
        ? [set(sign, `Write “${sign.name}” as large as goes on it, ${formatTenths(most)}`, { letters: null })]
        : [widened(sign, needed)]),
      ...turnBoard(scene, sign),
    ];
  },
  'signboard-letters': (scene, finding) => {
    const sign = namedThing(scene, finding, 'signboard');
    if (!sign || sign.letters === null) return [];
    return [
      set(sign, `Write “${sign.name}” as large as goes on it, ${formatTenths(largestLetters(sign))}`, {
        letters: null,
      }),
      widened(sign, sign.letters),
    ];
  },
  'signboard-dim': (scene, finding) => {
    const sign = namedThing(scene, finding, 'signboard');
    if (!sign) return [];
    const contrastOf = (ink: string) => lightContrast(sign.colour, ink) ?? 0;
    const [best] = SOLID.toSorted((a, b) => contrastOf(b.id) - contrastOf(a.id));
    return [set(sign, `Write “${sign.name}” in ${best.name}`, { ink: best.id })];
  },
};
