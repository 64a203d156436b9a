import { SIDE_WORDS, displayOf, listOf, type Scene, type Side } from '../scene/index.ts';
import { OUTSIDE, footprintBounds, heightRange, type Relief } from '../relief/index.ts';

/** What a rule card is held against: everything placed, as it stands. */
export interface CardState {
  /** Box round the footprint and everything that stands out of it, studs, and the height above the base, plates. */
  w: number;
  d: number;
  height: number;
  /** The widest overhang on each side of the base, studs. */
  overhang: Record<Side, number>;
  /** Buildings that stand out: by how much at most, over which side, and from which height above the base, plates. */
  over: { id: string; by: number; side: string; begins: number }[];
}

/** Measures the scene as a contest's judge would: against the box of the base. */
export function cardOf(scene: Scene, relief: Relief): CardState {
  const base = footprintBounds(scene) ?? { x: 0, y: 0, w: 0, d: 0 };
  const overhang: Record<Side, number> = { n: 0, e: 0, s: 0, w: 0 };
  const over: CardState['over'] = [];
  let height = 0;
  for (let i = 0; i < relief.top.length; i++)
    if (relief.ground[i] !== OUTSIDE) height = Math.max(height, relief.top[i]);
  for (const plot of listOf(scene, 'plot')) {
    const out: Record<Side, number> = {
      n: base.y - plot.y,
      e: plot.x + plot.w - base.x - base.w,
      s: plot.y + plot.d - base.y - base.d,
      w: base.x - plot.x,
    };
    const sides = (['n', 'e', 's', 'w'] as const).filter((side) => out[side] > 0);
    const ground = heightRange(relief, plot)?.high ?? 0;
    if (sides.length > 0) height = Math.max(height, ground + plot.height);
    for (const side of sides) overhang[side] = Math.max(overhang[side], out[side]);
    if (sides.length === 0) continue;
    const worst = sides.reduce((a, b) => (out[b] > out[a] ? b : a));
    over.push({ id: plot.id, by: out[worst], side: SIDE_WORDS[worst], begins: ground + plot.overhangFrom });
  }
  return {
    w: base.w + overhang.e + overhang.w,
    d: base.d + overhang.n + overhang.s,
    height,
    overhang,
    over,
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
