import fc from 'fast-check';
import { boardFor, largestLetters, letterHeight, reduce, sceneFrom, type Scene } from '../document/index.ts';
import { thingLines } from '../materials/index.ts';
import { compileRelief, recompile, compile } from '../terrain/index.ts';
import { viewHelps } from '../findings/index.ts';
import { Lookout, publicEyes, sightOf, walkMesh } from './index.ts';

/** 60 × 20 studs, looked at from the south: one step of 480 mm, so that eyes stand before both ends, 75 studs off. */
const sceneOf = (signs: object[], more: object = {}): Scene =>
  sceneFrom({
    display: { name: 'Signs', kind: 'diorama', viewedSides: ['s'], place: 'hall' },
    places: [
      {
        ...{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 },
        ...{ eyeAdult: 1600, eyeSeated: 1200, eyeChild: 1050 },
      },
    ],
    tables: [{ id: 't', name: 'Table', place: 'hall', x: 0, y: 0, w: 480, d: 160, height: 740 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 60, d: 20 }],
    signboards: signs.map((sign, i) => ({ id: `s${i}`, name: `Sign ${i}`, x: 30, y: 10, ...sign })),
    ...more,
  });
const lookoutOf = (scene: Scene): Lookout => {
  const relief = compileRelief(scene);
  const eyes = publicEyes(scene, relief);
  if (!eyes) throw new Error('nobody looks');
  return new Lookout(scene, relief, eyes);
};

test('the largest letters that go on a board, and the smallest board they go on, by hand', () => {
  const board = { name: 'x', text: 'ASSAY OFFICE', w: 12, height: 4, letters: null };
  // By height 0.7 × 12.8 = 8.96 mm; by length 96 ÷ (12 × 0.7) = 11.4 mm.
  expect(largestLetters(board)).toBe(8.9);
  expect(letterHeight({ ...board, letters: 3.5 })).toBe(3.5);
  // By length: 40 ÷ (12 × 0.7) = 4.76 mm.
  expect(largestLetters({ ...board, w: 5 })).toBe(4.7);
  // Of 9 mm: 75.6 mm long, and 9 ÷ 0.7 = 12.86 mm high, five plates.
  expect(boardFor({ ...board, w: 5 }, 9)).toEqual({ w: 10, height: 5 });
  // An empty text says the name.
  expect(largestLetters({ ...board, text: '', name: 'ASSAY OFFICE' })).toBe(8.9);
});

test('who reads a board, by hand: ten minutes of arc, less from aside', () => {
  const scene = sceneOf([{ text: 'A', w: 6, height: 6, up: 12, letters: 2.7 }]);
  const reading = lookoutOf(scene).reading('s0');
  // The face is 9.5 studs in; both eyes of a height 30 studs aside: 240 mm, and 84.5 studs before it: 676 mm. The middle
  // of the board is 15 plates up, 48 mm.
  const needed = (eye: number) => {
    const [distance, straight] = [Math.hypot(240, 676, eye - 740 - 48), 676];
    return (distance * Math.tan(((10 / 60) * Math.PI) / 180)) / (straight / distance);
  };
  expect([needed(1050), needed(1200), needed(1600)].map((mm) => mm.toFixed(2))).toEqual([
    '2.51',
    '2.94',
    '5.05',
  ]);
  expect(reading).toMatchObject({ before: 8, free: 8, by: { child: 1, seated: 0, adult: 0 } });
  expect(reading?.needed).toBeCloseTo(needed(1050), 9);
  expect(reading?.aside).toBeCloseTo((Math.acos(676 / Math.hypot(240, 676, 262)) * 180) / Math.PI, 9);
  // The nearest free line is a child’s to the near end of the board, 28 studs aside (5 studs wide of 6 at most two apart).
  const seen = lookoutOf(scene).look('signboard', 's0').nearest;
  expect(seen?.distance).toBeCloseTo(Math.hypot(8 * 28, 676, 262), 9);
  expect(seen?.down).toBeCloseTo((Math.atan(262 / Math.hypot(8 * 28, 676)) * 180) / Math.PI, 9);
  // What Sight tells is the same.
  const told = sightOf(scene, compileRelief(scene))?.things.find(({ kind }) => kind === 'signboard');
  expect(told?.reads).toEqual(reading?.by);
});

test('a board that looks away has nobody before it; turned, it does, and that is offered', () => {
  const scene = sceneOf([{ facing: 0 }]);
  expect(lookoutOf(scene).reading('s0')).toMatchObject({ before: 0, free: 0, needed: Infinity });
  expect(lookoutOf(scene).look('signboard', 's0')).toMatchObject({ mean: 0, free: { adult: 0, child: 0 } });
  // To the east it would look past one of the two places of each height.
  const [best] = viewHelps(compile(scene), { kind: 'signboard', id: 's0' }, '2031-01-01');
  expect(best).toMatchObject({ words: 'Turn “Sign 0” to look south', free: 1 });
  const done = reduce(scene, best.changes);
  if (!done.ok) throw new Error(done.refusal.sentence);
  const { compiled } = recompile(compile(scene), done.scene);
  expect(lookoutOf(compiled.scene).reading('s0')).toMatchObject({ before: 8, free: 8 });
});

test('what stands before a board hides it from just the eyes whose line goes through it (random boards and walls)', () => {
  const whole = (min: number, max: number) => fc.integer({ min, max });
  fc.assert(
    fc.property(
      fc.record({ x: whole(4, 56), y: whole(2, 9), facing: whole(120, 240), up: whole(0, 30) }),
      fc.record({ x: whole(0, 50), y: whole(11, 16), w: whole(1, 10), d: whole(1, 3), height: whole(3, 90) }),
      (sign, wall) => {
        const scene = sceneOf([sign], { plots: [{ id: 'p', name: 'Wall', ...wall, storeys: 1 }] });
        const lookout = lookoutOf(scene);
        const angle = (sign.facing * Math.PI) / 180;
        // North is up: the plan’s y runs south.
        const at = [sign.x + Math.sin(angle) / 2, sign.y - Math.cos(angle) / 2, (sign.up + 3) * 3.2];
        let [before, free] = [0, 0];
        for (const eye of Object.values(lookout.eyes.by).flat()) {
          const to = [eye.x, 20 - eye.y, eye.z];
          const way = to.map((value, i) => value - at[i]);
          const mm = [way[0] * 8, way[1] * 8, way[2]];
          const straight = (Math.sin(angle) * mm[0] - Math.cos(angle) * mm[1]) / Math.hypot(...mm);
          if (straight < Math.cos((75 * Math.PI) / 180)) continue;
          before++;
          // The stretch of the line within the box, by its slabs.
          const box = [
            [wall.x, wall.x + wall.w],
            [wall.y, wall.y + wall.d],
            [0, wall.height * 3.2],
          ];
          let [enter, leave] = [0, 1];
          box.forEach(([low, high], i) => {
            const [a, b] = [(low - at[i]) / way[i], (high - at[i]) / way[i]];
            enter = Math.max(enter, Math.min(a, b));
            leave = Math.min(leave, Math.max(a, b));
          });
          if (leave - enter <= 1e-9) free++;
        }
        const reading = lookout.reading('s0');
        expect([reading?.before, reading?.free]).toEqual([before, free]);
      },
    ),
    { numRuns: 60 },
  );
});

test('a board is bricks with a course of plates, and its post bricks; on a wall it has none', () => {
  const lines = (more: object) =>
    thingLines(sceneOf([{ w: 6, height: 4, up: 10, colour: 'slate', ...more }])).map(
      ({ part, colour, qty }) => `${qty} ${part} ${colour}`,
    );
  const board = ['1 brick-1x4 slate', '1 brick-1x2 slate', '1 plate-1x4 slate', '1 plate-1x2 slate'];
  expect(lines({ on: 'wall' })).toEqual(board);
  // Ten plates take four bricks.
  expect(lines({})).toEqual([...board, '4 brick-1x1 any']);
});

test('in the walk its board, its post and a band of its letters’ size stand where it does', () => {
  const scene = sceneOf([{ facing: 90, w: 4, height: 6, up: 12, text: 'ABC', letters: 5 }]);
  const mesh = walkMesh(scene, compileRelief(scene), { isOpen: false, isParted: false });
  const box = (material: string) => {
    const { positions = [] } = mesh?.parts.find((part) => part.material === material) ?? {};
    return [0, 1, 2].map((axis) => {
      const values = [...positions].filter((_, i) => i % 3 === axis);
      return [Math.min(...values), Math.max(...values)].map((value) => Number(value.toFixed(4)));
    });
  };
  // Turned to the east it is a stud deep and four long to the south; 0.4 studs are a plate.
  expect(box('colour slate')).toEqual([
    [29.5, 30.5],
    [4.8, 7.2],
    [8, 12],
  ]);
  // 5 mm high about the middle, 3 × 0.7 × 5 = 10.5 mm long, just before the east face.
  expect(box('colour chalk')).toEqual([
    [30.5, 30.56],
    [5.6875, 6.3125],
    [9.3438, 10.6563],
  ]);
  expect(box('wall')[1]).toEqual([0, 4.8]);
});
