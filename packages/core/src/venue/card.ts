import { SIDE_WORDS, displayOf, listOf, type Kind, type Scene, type Side } from '../document/index.ts';
import { OUTSIDE, bodiesOf, footprintBounds, type Body, type Relief } from '../terrain/index.ts';

/** What a rule card is held against: everything placed, as it stands. */
export interface CardState {
  base: { w: number; d: number };
  /** Box round the footprint and everything that stands out of it, studs, and the height above the base, plates. */
  w: number;
  d: number;
  height: number;
  /** What reaches that height; null: the ground itself. */
  tallest: { kind: Kind; id: string } | null;
  /** The widest overhang on each side of the base, studs. */
  overhang: Record<Side, number>;
  /** What stands out: by how much at most, over which side, and from which height above the base, plates. */
  over: { kind: Kind; id: string; by: number; side: string; begins: number; at: { x: number; y: number } }[];
}

const SIDES = ['n', 'e', 's', 'w'] as const;
/** Hundredths of a stud: what is turned off the grid has no fewer digits. */
const rounded = (studs: number) => Math.round(studs * 100) / 100;

/** Measures the scene as a contest's judge would: everything that stands in it against the box of the base. */
export function cardOf(
  scene: Scene,
  relief: Relief,
  bodies: readonly Body[] = bodiesOf(scene, relief),
): CardState {
  const base = footprintBounds(scene) ?? { x: 0, y: 0, w: 0, d: 0 };
  const overhang: Record<Side, number> = { n: 0, e: 0, s: 0, w: 0 };
  const over = new Map<string, CardState['over'][number]>();
  let height = 0;
  let tallest: CardState['tallest'] = null;
  for (let i = 0; i < relief.height.length; i++)
    if (relief.ground[i] !== OUTSIDE) height = Math.max(height, relief.height[i]);
  for (const { kind, id, bounds, begins, top } of bodies) {
    if (top > height) [height, tallest] = [top, { kind, id }];
    const out: Record<Side, number> = {
      n: rounded(base.y - bounds.y),
      e: rounded(bounds.x + bounds.w - base.x - base.w),
      s: rounded(bounds.y + bounds.d - base.y - base.d),
      w: rounded(base.x - bounds.x),
    };
    const sides = SIDES.filter((side) => out[side] > 0);
    if (sides.length === 0) continue;
    for (const side of sides) overhang[side] = Math.max(overhang[side], out[side]);
    const worst = sides.reduce((a, b) => (out[b] > out[a] ? b : a));
    const key = `${kind} ${id}`;
    const known = over.get(key);
    const at = { x: bounds.x + bounds.w / 2, y: bounds.y + bounds.d / 2 };
    if (!known) over.set(key, { kind, id, by: out[worst], side: SIDE_WORDS[worst], begins, at });
    else {
      if (out[worst] > known.by) Object.assign(known, { by: out[worst], side: SIDE_WORDS[worst], at });
      known.begins = Math.min(known.begins, begins);
    }
  }
  return {
    base: { w: base.w, d: base.d },
    w: rounded(base.w + overhang.e + overhang.w),
    d: rounded(base.d + overhang.n + overhang.s),
    height,
    tallest,
    overhang,
    over: [...over.values()],
  };
}

/** Whether each rule of the card is met; null: the card has no such rule. */
export interface CardReport {
  base: boolean | null;
  /** The base with what the card lets stand out, studs, and whether all that is placed keeps within it. */
  all: { w: number; d: number; kept: boolean } | null;
  over: boolean;
  height: boolean | null;
  pieces: { placed: number; asked: number; kept: boolean };
}

/** Whether a size keeps within another, one way round or the other. */
const fits = (w: number, d: number, limitW: number, limitD: number) =>
  (w <= limitW && d <= limitD) || (d <= limitW && w <= limitD);

/** Holds a state against the card of its display. */
export function evaluateCard(scene: Scene, state: CardState): CardReport {
  const { limitW, limitD, limitHeight, cardOverhang, cardOverhangFrom } = displayOf(scene);
  const { base, w, d, height, over } = state;
  const limited = limitW !== null && limitD !== null;
  const whole = limited ? { w: limitW + 2 * cardOverhang, d: limitD + 2 * cardOverhang } : null;
  const pieces = listOf(scene, 'requirement');
  const placed = pieces.filter((piece) => piece.placed >= piece.count).length;
  return {
    base: limited ? fits(base.w, base.d, limitW, limitD) : null,
    all: whole && { ...whole, kept: fits(w, d, whole.w, whole.d) },
    over: over.every(({ by, begins }) => by <= cardOverhang && begins >= cardOverhangFrom),
    height: limitHeight === null ? null : height <= limitHeight,
    pieces: { placed, asked: pieces.length, kept: placed === pieces.length },
  };
}

/** Rule cards for common contest squares (common practice, no source: read your contest's own rules). */
export const RULE_CARDS = [
  {
    id: '8',
    word: '8 × 8, nothing over the edge',
    limitW: 8,
    limitD: 8,
    limitHeight: 30,
    cardOverhang: 0,
    cardOverhangFrom: 0,
  },
  {
    id: '10',
    word: '10 × 10, nothing over the edge',
    limitW: 10,
    limitD: 10,
    limitHeight: 36,
    cardOverhang: 0,
    cardOverhangFrom: 0,
  },
  {
    id: '16',
    word: '16 × 16, 2 over the edge from 2 bricks up',
    limitW: 16,
    limitD: 16,
    limitHeight: 72,
    cardOverhang: 2,
    cardOverhangFrom: 6,
  },
  {
    id: '32',
    word: '32 × 32, 4 over the edge from 4 bricks up',
    limitW: 32,
    limitD: 32,
    limitHeight: 120,
    cardOverhang: 4,
    cardOverhangFrom: 12,
  },
] as const;

/** The fields a rule card sets on a display. */
export const isCard = (scene: Scene, card: (typeof RULE_CARDS)[number]): boolean => {
  const { id: _id, word: _word, ...fields } = card;
  const display: Record<string, unknown> = { ...displayOf(scene) };
  return Object.entries(fields).every(([key, value]) => display[key] === value);
};
