/** Reach over a large scene from many sides, and the moves that would mend most. */
import { compileRelief } from '../packages/core/src/terrain/index.ts';
import { sceneFrom, type Scene } from '../packages/core/src/document/index.ts';
import { bestMoves, reachOf } from '../packages/core/src/reach/index.ts';
import type { Row } from './table.ts';

/** A scene of 480×320 studs on tables of 640 × 640 mm in a hall: 6 × 4 of them, with an aisle all round. */
export function largeHall(): Scene {
  return sceneFrom({
    display: { name: 'Large', kind: 'city', place: 'hall' },
    places: [
      {
        id: 'hall',
        name: 'Hall',
        walls: [
          { x: 0, y: 0 },
          { x: 12_000, y: 0 },
          { x: 12_000, y: 9_000 },
          { x: 0, y: 9_000 },
        ],
        sceneX: 3000,
        sceneY: 3000,
      },
    ],
    footprint: [{ id: 'all', name: 'All', x: 0, y: 0, w: 480, d: 320 }],
    tables: Array.from({ length: 60 }, (_, i) => ({
      id: `t${i}`,
      name: `Table ${i + 1}`,
      place: 'hall',
      // Twenty-four under the scene, the rest along the walls: their edges are open sides too.
      ...(i < 24
        ? { x: 3000 + (i % 6) * 640, y: 3000 + Math.trunc(i / 6) * 640, w: 640, d: 640 }
        : {
            x: 600 + ((i - 24) % 9) * 1250,
            y: i < 33 ? 600 : i < 42 ? 7800 : i < 51 ? 1400 : 7000,
            w: 600,
            d: 400,
          }),
    })),
  });
}

export function benchSite(): Promise<Row[]> {
  const scene = largeHall();
  const relief = compileRelief(scene);
  const timed = (run: () => unknown) => {
    const times = Array.from({ length: 5 }, () => {
      const began = performance.now();
      run();
      return performance.now() - began;
    });
    return times.sort((a, b) => a - b)[2];
  };
  const { sides } = reachOf(scene, relief);
  return Promise.resolve([
    {
      what: `reach of 480×320 studs from ${sides.length} open sides (60 tables)`,
      measured: timed(() => reachOf(scene, relief)),
      unit: 'ms',
      aim: 150,
      better: 'less',
    },
    {
      what: 'the three best moves of that hall',
      measured: timed(() => bestMoves(scene, relief)),
      unit: 'ms',
      aim: 2000,
      better: 'less',
    },
  ]);
}
