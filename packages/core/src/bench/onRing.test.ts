import fc from 'fast-check';
import { reduce, sceneFrom, type Scene } from '../document/index.ts';
import { evaluateRules } from '../findings/index.ts';
import { runPieces, compileRelief, standsOn, wallFoot } from '../terrain/index.ts';
import { runs } from '../../test/runs.ts';
import { roofOnRing, storeyOnRing } from './index.ts';

const keep = (more: object = {}) =>
  sceneFrom({
    display: { name: 'Keep', kind: 'diorama' },
    levels: [{ id: 'low', name: 'Low', height: 1 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 96 }],
    pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 96, d: 96, level: 'low', offset: 2, ground: 'grass' }],
    runs: [
      {
        ...{ id: 'r', name: 'Keep', use: 'wall', height: 24, thick: 1, ring: 24, panel: 4 },
        points: [
          { x: 48, y: 48 },
          { x: 60, y: 48 },
        ],
        openings: [
          { at: 1, part: 'door-4x1', sill: 0 },
          { at: 7, part: 'window-2x1x2', sill: 2 },
        ],
        ...more,
      },
    ],
  });
/** The display with a storey on its ring and a roof on that, and their ids. */
function built(scene: Scene): Scene | null {
  const fresh = (kind: string) => `new-${kind}`;
  const relief = compileRelief(scene);
  const storey = reduce(scene, storeyOnRing(scene, relief, scene.run.r, fresh));
  if (!storey.ok) throw new Error(storey.refusal.sentence);
  const roof = roofOnRing(storey.scene.run['new-run'], fresh);
  if (!roof) return null;
  const done = reduce(storey.scene, roof);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return done.scene;
}

test('a storey and a roof on a ring of 24: as high as they come, without the door, the floor level with the wall', () => {
  const scene = built(keep());
  if (!scene) throw new Error('no roof');
  const relief = compileRelief(scene);
  const upper = scene.run['new-run'];
  expect(upper).toMatchObject({ name: 'Keep, storey 2', onRun: 'r', ring: 24 });
  expect(upper.openings.map(({ at }) => at)).toEqual([7]);
  // The ground is at 3, both rings are 24 high: 3 + 24, and the roof on 3 + 48.
  expect(wallFoot(scene, relief, upper)).toBe(27);
  expect(scene.deck['new-deck']).toMatchObject({ offset: 26, thick: 1 });
  // Inner radius 15.19, outer one 16.19 (regular polygon): a circle of 32 lies on it.
  expect(scene.plot['new-plot']).toMatchObject({
    ...{ name: 'Roof of Keep', x: 32, y: 32, w: 32, d: 32, mount: 'loose' },
  });
  expect(standsOn(scene, relief, scene.plot['new-plot'])).toBe(51);
  const errors = evaluateRules(scene).filter(({ severity }) => severity === 'error');
  expect(errors.map(({ sentence }) => sentence)).toEqual([]);
  // A third one is counted on.
  const third = storeyOnRing(scene, relief, upper, (kind) => `third-${kind}`);
  expect(third[0]).toMatchObject({ data: { name: 'Keep, storey 3', onRun: 'new-run' } });
  // Of the wall’s pieces those of the door are bricks now.
  expect(runPieces(upper, { length: 4, before: 0 }).some(({ part }) => part.startsWith('door'))).toBe(false);
});

test('a square has no round roof; a ring between studs gets one between studs, and no floor where it lies on no corner', () => {
  expect(built(keep({ ring: 4 }))).toBeNull();
  const half = { x: 48.5, y: 48.5 };
  const between = built(keep({ points: [half, { x: 60, y: 48.5 }] }));
  expect(between?.plot['new-plot']).toMatchObject({ x: 32, y: 32, w: 33, d: 33 });
  expect(between?.deck['new-deck']).toBeDefined();
  const mixed = built(keep({ points: [{ x: 48, y: 48.5 }, half] }));
  expect(mixed?.deck['new-deck']).toBeUndefined();
  expect(mixed?.plot['new-plot']).toMatchObject({ w: 32, d: 33 });
});

test('of any ring what is built on it lies on it all round, and its floor hangs nowhere too far from a pillar', () => {
  let roofs = 0;
  fc.assert(
    fc.property(
      fc.record({
        ring: fc.integer({ min: 3, max: 40 }),
        panel: fc.integer({ min: 2, max: 8 }).map((n) => n / 2),
        thick: fc.integer({ min: 1, max: 4 }),
        turned: fc.integer({ min: 0, max: 30 }),
        half: fc.boolean(),
      }),
      ({ ring, panel, thick, turned, half }) => {
        const middle = { x: half ? 48.5 : 48, y: half ? 48.5 : 48 };
        const toward = { x: middle.x + 12, y: middle.y + turned / 2 };
        const scene = built(keep({ ring, panel, thick, points: [middle, toward], openings: [] }));
        if (!scene) return;
        roofs++;
        const found = evaluateRules(scene).filter(({ rule }) =>
          ['stands-on-nothing', 'plot-across', 'slab-span'].includes(rule),
        );
        expect(found.map(({ sentence }) => sentence)).toEqual([]);
      },
    ),
    { numRuns: runs(25) },
  );
  expect(roofs).toBeGreaterThan(0);
});
