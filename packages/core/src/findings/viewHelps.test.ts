import { reduce, sceneFrom } from '../document/index.ts';
import { compile, compileRelief } from '../terrain/index.ts';
import { sightOf } from '../visibility/index.ts';
import { evaluateRules, viewHelps } from './index.ts';

const TODAY = '2031-06-01';

/** A small scene behind a row of trees and a hut, seen from the south over a table of 740 mm; children see little. */
const scene = sceneFrom({
  display: { name: 'Green', kind: 'diorama', viewedSides: ['s'], place: 'hall' },
  places: [
    {
      id: 'hall',
      name: 'Hall',
      walls: [],
      sceneX: 1000,
      sceneY: 1000,
      eyeAdult: 1600,
      eyeSeated: 1200,
      eyeChild: 1050,
    },
  ],
  tables: [{ id: 't', name: 'Table', place: 'hall', x: 900, y: 900, w: 700, d: 500, height: 740 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 48 }],
  plots: [{ id: 'hut', name: 'Hut', x: 24, y: 30, w: 16, d: 8, height: 24, storeys: 1 }],
  trees: [{ id: 'elm', name: 'Elm', x: 33, y: 24, height: 50, crown: 8 }],
  figures: [{ id: 'dance', name: 'Dance', x: 32, y: 16 }],
});
const compiled = compile(scene);
const dance = { kind: 'figure', id: 'dance' } as const;

test('each help frees as much as it says, and brings no error or warning that was not there', () => {
  const freeIn = (of: typeof scene) => {
    const thing = sightOf(of, compileRelief(of))?.things.find(({ id }) => id === 'dance');
    return thing?.mean ?? NaN;
  };
  const graveIn = (of: typeof scene) =>
    evaluateRules(of, { relief: compileRelief(of), today: TODAY })
      .filter(({ severity }) => severity !== 'note')
      .map(({ key }) => key);
  const helps = viewHelps(compiled, dance, TODAY);
  const before = freeIn(scene);
  expect(before).toBeLessThan(0.5);
  expect(helps.length).toBeGreaterThan(1);
  for (const { words, changes, free } of helps) {
    const done = reduce(scene, changes);
    if (!done.ok) throw new Error(`${words}: ${done.refusal.sentence}`);
    expect([words, freeIn(done.scene)]).toEqual([words, expect.closeTo(free, 9)]);
    expect(free).toBeGreaterThanOrEqual(before + 0.03);
    expect(graveIn(scene)).toEqual(expect.arrayContaining(graveIn(done.scene)));
  }
  // The most first; of one thing in one direction only one.
  expect(helps.map(({ free }) => free)).toEqual(helps.map(({ free }) => free).toSorted((a, b) => b - a));
  expect(new Set(helps.map(({ words }) => words.replace(/\d+/g, ''))).size).toBe(helps.length);
});

test('a thing that nothing hides needs no help; nor is there one where it is not said who looks', () => {
  expect(viewHelps(compiled, { kind: 'plot', id: 'hut' }, TODAY)).toEqual([]);
  const unseen = reduce(scene, [
    {
      op: 'patch',
      kind: 'display',
      id: 'display',
      v: scene.display.display?.v ?? 1,
      set: { viewedSides: [] },
    },
  ]);
  if (!unseen.ok) throw new Error(unseen.refusal.sentence);
  expect(viewHelps(compile(unseen.scene), dance, TODAY)).toEqual([]);
});

test('the best place anywhere is found by trying each: none of an even grid frees more, and it lies clear on the display', () => {
  const best = viewHelps(compiled, dance, TODAY)[0];
  if (!best) throw new Error('nothing helps');
  const graveIn = (of: typeof scene) =>
    evaluateRules(of, { relief: compileRelief(of), today: TODAY })
      .filter(({ severity }) => severity !== 'note')
      .map(({ key }) => key);
  const known = new Set(graveIn(scene));
  // Every eighth stud of the display by itself, as the public sees it (64 × 48 studs: 48 places).
  let most = 0;
  for (let y = 0; y < 48; y += 8)
    for (let x = 0; x < 64; x += 8) {
      const { x: fx, y: fy, v } = scene.figure.dance;
      const moved = reduce(scene, [
        { op: 'patch', kind: 'figure', id: 'dance', v, set: { x: fx + x - 31, y: fy + y - 15 } },
      ]);
      if (!moved.ok) continue;
      const { scene: then } = moved;
      const at = then.figure.dance;
      if (at.x >= 24 && at.x < 40 && at.y >= 30 && at.y < 38) continue;
      const free = sightOf(then, compileRelief(then))?.things.find(({ id }) => id === 'dance')?.mean ?? 0;
      if (free > most && graveIn(then).every((key) => known.has(key))) most = free;
    }
  expect(most).toBeGreaterThan(0.9);
  expect(best.free).toBeGreaterThanOrEqual(most - 0.05);
});
