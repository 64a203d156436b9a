/** Compiling a large scene whole and after one edit, against the slow code of the tests. */
import {
  columnsOf,
  compile,
  compileRelief,
  contoursOf,
  recompile,
} from '../packages/core/src/terrain/index.ts';
import { reduce, sceneFrom, type Scene } from '../packages/core/src/document/index.ts';
import { slowRelief } from '../packages/core/test/slowRelief.ts';
import { median, type Row } from './table.ts';

/** A scene of 480×320 studs with 1,500 things: pads, hills, ways, buildings, trees. @param share of each, for a smaller one */
export function largeScene(share = 1): Scene {
  const [w, d] = [Math.round(480 * Math.sqrt(share)), Math.round(320 * Math.sqrt(share))];
  const many = (count: number) => Array.from({ length: Math.round(count * share) }, (_, i) => i);
  const at = (i: number, step: number) => ({ x: (i * 37 * step) % w, y: (i * 53 * step) % d });
  return sceneFrom({
    display: { name: 'Large', kind: 'diorama' },
    levels: [{ id: 'street', name: 'Street', height: 18 }],
    footprint: [{ id: 'all', name: 'All', x: 0, y: 0, w, d }],
    tables: [{ id: 't', name: 'Floor', x: 0, y: 0, w: w * 8, d: d * 8 }],
    pads: many(300).map((i) => ({
      id: `pad-${i}`,
      name: `Pad ${i}`,
      ...at(i, 1.5),
      w: 24 + (i % 5) * 6,
      d: 16 + (i % 7) * 4,
      shape: i % 3 ? ('rect' as const) : ('oval' as const),
      level: 'street',
      offset: (i % 6) * 2,
      ground: i % 2 ? ('grass' as const) : ('soil' as const),
      order: i,
      edges: i % 4 ? {} : { s: { kind: 'slope' as const, run: 2 } },
    })),
    hills: many(60).map((i) => ({
      id: `hill-${i}`,
      name: `Hill ${i}`,
      ...at(i, 2),
      w: 60,
      d: 48,
      shape: 'oval' as const,
      level: 'street',
      height: 12 + (i % 9) * 3,
      profile: i % 2 ? ('even' as const) : ('convex' as const),
    })),
    ways: many(40).map((i) => ({
      id: `way-${i}`,
      name: `Way ${i}`,
      points: [
        at(i, 3),
        { x: at(i, 3).x + 40, y: at(i, 3).y + 20 },
        { x: at(i, 3).x + 90, y: at(i, 3).y + 10 },
      ],
      width: 8,
    })),
    plots: many(600)
      .map((i) => ({
        id: `plot-${i}`,
        name: `House ${i}`,
        x: (i % 30) * 16 * Math.sqrt(share),
        y: Math.trunc(i / 30) * 16 * Math.sqrt(share),
        w: 10,
        d: 10,
        height: 20 + (i % 7) * 6,
        turn: i % 10 ? 0 : 30,
      }))
      .map((plot) => ({ ...plot, x: Math.round(plot.x), y: Math.round(plot.y) })),
    trees: many(500).map((i) => ({
      id: `tree-${i}`,
      name: `Tree ${i}`,
      ...at(i, 2.5),
      crown: 5,
      height: 24,
    })),
  });
}

/** The large scene with 100 decks and 100 cavities over it. */
function levelledScene(): Scene {
  const scene = largeScene();
  const changes = Array.from({ length: 200 }, (_, i) => {
    const data = {
      x: (i * 61) % 460,
      y: (i * 47) % 300,
      w: 16 + (i % 5) * 4,
      d: 12 + (i % 3) * 4,
      level: 'street',
    };
    return i % 2 === 0
      ? {
          ...{ op: 'add' as const, kind: 'deck' as const, id: `deck-${i}` },
          data: { name: `Deck ${i}`, ...data, offset: 40 },
        }
      : {
          ...{ op: 'add' as const, kind: 'cavity' as const, id: `cavity-${i}` },
          data: { name: `Cavity ${i}`, ...data, offset: -14, clear: 10 },
        };
  });
  const done = reduce(scene, changes);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return done.scene;
}

export function benchRelief(): Row[] {
  const scene = largeScene();
  const whole = median(7, () => void compileRelief(scene));
  const compiled = compile(scene);
  const moved = reduce(scene, [{ op: 'patch', kind: 'hill', id: 'hill-7', v: 1, set: { x: 100, y: 80 } }]);
  if (!moved.ok) throw new Error(moved.refusal.sentence);
  const edit = median(15, () => void recompile(compiled, moved.scene));
  const levelled = levelledScene();
  const levels = median(7, () => void compileRelief(levelled));
  const levelsCompiled = compile(levelled);
  const shifted = reduce(levelled, [
    { op: 'patch', kind: 'deck', id: 'deck-8', v: 1, set: { x: 120, y: 90 } },
  ]);
  if (!shifted.ok) throw new Error(shifted.refusal.sentence);
  const levelsEdit = median(15, () => void recompile(levelsCompiled, shifted.scene));
  const columns = median(3, () => void columnsOf(levelled, levelsCompiled.relief));
  const contours = median(5, () => void contoursOf(compiled.relief));
  const small = largeScene(0.02);
  const slow = median(3, () => void slowRelief(small));
  const fast = median(15, () => void compileRelief(small));
  return [
    {
      what: 'relief of 480×320 studs with 1,500 things, whole',
      measured: whole,
      unit: 'ms',
      aim: 300,
      better: 'less',
    },
    { what: 'the same after one hill moved', measured: edit, unit: 'ms', aim: 40, better: 'less' },
    { what: 'with 200 decks and cavities, whole', measured: levels, unit: 'ms', aim: 400, better: 'less' },
    { what: 'the same after one deck moved', measured: levelsEdit, unit: 'ms', aim: 50, better: 'less' },
    { what: 'the columns of all its studs', measured: columns, unit: 'ms', better: 'less' },
    { what: 'its contours', measured: contours, unit: 'ms', aim: 100, better: 'less' },
    {
      what: 'a fiftieth of it: how many times the slow code takes',
      measured: slow / fast,
      unit: '×',
      aim: 5,
      better: 'more',
    },
  ];
}
