import { gramsOfPart, partOf } from '../catalogue/index.ts';
import { sceneFrom } from '../document/index.ts';
import { GRAMS_PER_STUD_PLATE, compile, compileRelief, massOf } from '../terrain/index.ts';
import { CountCache, blockInputs, builtFrom, countedRelief } from './index.ts';

type Given = Parameters<typeof sceneFrom>[0];
const BASE: Given = {
  display: { name: 'Test', kind: 'diorama', method: 'solid' },
  levels: [{ id: 'low', name: 'Low', height: 0 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 24, d: 16 }],
};
const pad = (offset: number, more: object = {}) => ({
  ...{
    id: `p${offset}`,
    name: 'Pad',
    x: 0,
    y: 0,
    w: 24,
    d: 16,
    level: 'low',
    offset,
    ground: 'grass' as const,
  },
  ...more,
});
/** Stud-plates that the placed pieces of a scene fill, by block. */
const volumes = (given: Given) => {
  const scene = sceneFrom(given);
  const compiled = compile(scene);
  return new Map(
    blockInputs(scene, compiled).map((input) => {
      const { masonry } = builtFrom(input);
      let volume = 0;
      for (const { laid, h } of masonry.layers)
        for (let p = 0; p < laid.length; p += 4) volume += laid[p + 2] * laid[p + 3] * h;
      return [input.block.name, volume];
    }),
  );
};

describe('what lies over air, counted', () => {
  test('a deck and its pillars, each stud-plate once (volumes by hand)', () => {
    const given = {
      ...BASE,
      pads: [pad(3)],
      decks: [{ id: 'd', name: 'Quay', x: 2, y: 2, w: 18, d: 10, level: 'low', offset: 12 }],
    };
    const found = volumes(given);
    expect(found.get('Quay')).toBe(18 * 10 * 2);
    // Six pillars of 2 × 2 studs, from 3 to 10 plates.
    expect(found.get('under Quay')).toBe(6 * 4 * 7);
    expect(found.size).toBe(3);
  });
  test('arches of a viaduct are laid in courses that step out, each stud-plate once', () => {
    const deck = { id: 'd', name: 'Viaduct', x: 0, y: 2, w: 22, d: 4, level: 'low', offset: 42, thick: 2 };
    const found = volumes({
      ...BASE,
      decks: [{ ...deck, support: 'arches' as const, spacing: 20, pillar: 2 }],
    });
    // A half circle of 9 studs, its crown a brick under 40 plates: heights of nine steps by √(72² − off²) mm, to courses.
    const steps = Array.from({ length: 9 }, (_, i) => {
      const over = Math.sqrt(72 ** 2 - (8 * (8.5 - i)) ** 2) / 3.2;
      return Math.min(3 * Math.round((14.5 + over) / 3), 36);
    });
    const open = steps.reduce((sum, from) => sum + 2 * (40 - from), 0);
    expect(found.get('under Viaduct')).toBe(4 * (4 * 40 + open));
    expect(found.get('Viaduct')).toBe(22 * 4 * 2);
  });
  test('a cellar takes its room out of the ground, and its roof is built over it', () => {
    const solid = volumes({ ...BASE, pads: [pad(20)] });
    const cavity = { id: 'c', name: 'Cellar', x: 4, y: 4, w: 6, d: 5, level: 'low', offset: 3, clear: 12 };
    const hollow = volumes({ ...BASE, pads: [pad(20)], cavities: [cavity] });
    const sum = (all: ReadonlyMap<string, number>) => [...all.values()].reduce((a, b) => a + b, 0);
    expect(sum(solid) - sum(hollow)).toBe(6 * 5 * 12);
    expect(hollow.get('roof of Cellar')).toBe(6 * 5 * 5);
  });
  test('decks are cut where modules part, unless they lift off', () => {
    const modules = [
      { id: 'a', name: 'A1', x: 0, y: 0, w: 12, d: 16, bases: [] },
      { id: 'b', name: 'B1', x: 12, y: 0, w: 12, d: 16, bases: [] },
    ];
    const deck = {
      id: 'd',
      name: 'Span',
      x: 6,
      y: 2,
      w: 12,
      d: 4,
      level: 'low',
      offset: 12,
      support: 'ends' as const,
    };
    const names = (loose: boolean) =>
      [...volumes({ ...BASE, pads: [pad(3)], modules, decks: [{ ...deck, loose }] }).keys()].filter((name) =>
        name.startsWith('Span'),
      );
    expect(names(false)).toEqual(['Span, A1', 'Span, B1']);
    expect(names(true)).toEqual(['Span']);
  });
  test('what is counted is what weighs: the mass of the studs is the mass of the pieces and of the base', () => {
    const scene = sceneFrom({
      ...BASE,
      pads: [pad(14)],
      decks: [{ id: 'd', name: 'Quay', x: 2, y: 2, w: 12, d: 10, level: 'low', offset: 24, thick: 3 }],
      cavities: [{ id: 'c', name: 'Cave', x: 16, y: 4, w: 6, d: 6, level: 'low', offset: 3, clear: 6 }],
    });
    const count = new CountCache().count(scene, compile(scene));
    if (!count) throw new Error('no count');
    const pieces = count.blocks.flatMap(({ lines }) => lines);
    const grams = pieces.reduce((sum, { part, qty }) => sum + qty * gramsOfPart(part), 0);
    const mass = count.mass.grams.reduce((sum, one) => sum + one, 0);
    expect(mass - 24 * 16 * 0.18).toBeCloseTo(grams, 0);
    expect(pieces.every(({ part }) => partOf(part) !== null)).toBe(true);
    // The guess before it is counted has the same deck: 120 studs of 3 plates, and 6 pillars of 4 studs and 7 plates.
    const bare = compileRelief(scene);
    const without = compileRelief({ ...scene, deck: {} });
    const all = (relief: typeof bare, of: typeof scene) =>
      massOf(of, relief).grams.reduce((sum, one) => sum + one, 0);
    expect(all(bare, scene) - all(without, { ...scene, deck: {} })).toBeCloseTo(
      GRAMS_PER_STUD_PLATE * (120 * 3 + 6 * 4 * 7),
      0,
    );
  });
  test('a deck that lifts off is no part of what its module is carried with', () => {
    const of = (loose: boolean) => {
      const scene = sceneFrom({
        ...BASE,
        pads: [pad(3)],
        decks: [{ id: 'd', name: 'Quay', x: 2, y: 2, w: 12, d: 10, level: 'low', offset: 24, loose }],
      });
      const relief = countedRelief(scene);
      const sum = (carried: boolean) =>
        massOf(scene, relief, carried).grams.reduce((total, one) => total + one, 0);
      return { shown: sum(false), carried: sum(true) };
    };
    const [fixed, loose] = [of(false), of(true)];
    expect(fixed.carried).toBeCloseTo(fixed.shown, 3);
    // 120 studs of 2 plates on 6 pillars of 4 studs and 19 plates, as solid plastic.
    expect(loose.shown - loose.carried).toBeCloseTo(GRAMS_PER_STUD_PLATE * (240 + 6 * 4 * 19), 0);
  });
});
