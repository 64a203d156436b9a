import fc from 'fast-check';
import { changeOf, randomActs } from '../../test/randomChanges.ts';
import { randomDisplays } from '../../test/randomDisplays.ts';
import { runs } from '../../test/runs.ts';
import { reduce, sceneFrom, type Scene } from '../document/index.ts';
import { compile, recompile } from '../terrain/index.ts';
import { blockInputs } from './index.ts';
import { KINDS_OF_WHOLE_GROUND, unchangedBlocks } from './changedBlocks.ts';

describe('blocks that a change does not reach', () => {
  test('whatever changes, a block that passes is counted from the same data', () => {
    let passed = 0;
    fc.assert(
      fc.property(randomDisplays, randomActs, fc.boolean(), (first, acts, again) => {
        let before = compile(first);
        for (const one of acts) {
          const change = changeOf(before.scene, one);
          const done = change && reduce(before.scene, [change]);
          if (!done?.ok) continue;
          const after = again ? recompile(before, done.scene).compiled : compile(done.scene);
          const isSame = unchangedBlocks(before, after);
          const old = new Map(blockInputs(before.scene, before).map((input) => [input.block.id, input]));
          for (const input of isSame ? blockInputs(after.scene, after) : []) {
            if (!isSame?.(input.block)) continue;
            passed++;
            expect(old.get(input.block.id)).toEqual(input);
          }
          before = after;
        }
      }),
      { numRuns: runs(60) },
    );
    // The test says something only where blocks do pass.
    expect(passed).toBeGreaterThan(runs(50));
  });

  test('kinds that the ground of blocks is read from are compared, or lie in places that are', () => {
    const scene = sceneFrom({
      display: { name: 'Any', kind: 'diorama' },
      levels: [{ id: 'l', name: 'Low', height: 9 }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 32, d: 16 }],
      modules: [{ id: 'm', name: 'M', x: 0, y: 0, w: 16, d: 16, bases: [] }],
      sections: [{ id: 's', letter: 'A', name: 'West', x: 0, y: 0, w: 16, d: 16 }],
      waters: [{ id: 'w', name: 'Pool', x: 2, y: 2, w: 6, d: 6, level: 'l', struck: ['n'] }],
      pads: [{ id: 'p', name: 'Yard', x: 8, y: 0, w: 8, d: 8, level: 'l', ground: 'grass', method: 'raft' }],
      plots: [{ id: 'h', name: 'House', x: 20, y: 2, w: 8, d: 8, height: 18 }],
      cavities: [{ id: 'c', name: 'Cellar', x: 9, y: 1, w: 4, d: 4, level: 'l', offset: -8, clear: 4 }],
    });
    const compiled = compile(scene);
    const read = new Set<PropertyKey>();
    const watched = new Proxy<Scene>(scene, {
      get: (target, kind, receiver): unknown => {
        read.add(kind);
        return Reflect.get(target, kind, receiver);
      },
    });
    blockInputs(watched, { ...compiled, scene: watched });
    // Each of these lies in a place, and is compared there; decks are blocks of their own.
    const placed = ['pad', 'hill', 'water', 'plot', 'cavity', 'deck'];
    expect([...read].filter((kind) => !placed.includes(String(kind))).toSorted()).toEqual(
      [...KINDS_OF_WHOLE_GROUND].toSorted(),
    );
  });
});
