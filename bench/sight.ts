import { slowSeenCounts } from '../packages/core/test/slowSeen.ts';
import { listOf, reduce, type Change, type Scene } from '../packages/core/src/document/index.ts';
import { compile, recompile } from '../packages/core/src/terrain/index.ts';
import {
  SightCache,
  apparentSizes,
  heightField,
  seenCounts,
  sightOf,
  trianglesOf,
  walkMesh,
} from '../packages/core/src/visibility/index.ts';
import { largeScene } from './relief.ts';
import type { Row } from './table.ts';

const EYES = 40;

/** What eyes see of a large display, the display as faces. */
export function benchSight(): Row[] {
  const scene = largeScene();
  const { relief } = compile(scene);
  const field = heightField(scene, relief);
  const eyes = Array.from({ length: EYES }, (_, i) => ({ x: (480 * i) / (EYES - 1), y: -75, z: 860 }));
  const time = <T>(work: () => T): { ms: number; result: T } => {
    const began = performance.now();
    const result = work();
    return { ms: performance.now() - began, result };
  };
  const seen = time(() => seenCounts(field, eyes));
  const sizes = time(() => apparentSizes(field, eyes));
  const walk = time(() => walkMesh(scene, relief));
  // The slow reference asks each column for each line: a corner of the same ground is enough.
  const small = { w: 64, d: 48, heights: new Float64Array(64 * 48) };
  for (let y = 0; y < small.d; y++)
    small.heights.set(field.heights.subarray(y * field.w, y * field.w + small.w), y * small.w);
  const fewEyes = eyes.slice(0, 1);
  const slow = time(() => slowSeenCounts(small, fewEyes));
  const fast = time(() => seenCounts(small, fewEyes));
  const ms = { unit: 'ms', better: 'less' } as const;
  const watched = watchedScene();
  const compiled = compile(watched);
  const cache = new SightCache();
  const ignore = () => undefined;
  const all = time(() => sightOf(watched, compiled.relief, ignore, cache));
  /** Median time to look again after a thing moved by a stud, and back. */
  const again = (kind: 'tree' | 'plot', nth: number): number => {
    const thing = listOf(watched, kind)[nth];
    const moved = changed(watched, [
      { op: 'patch', kind, id: thing.id, v: thing.v, set: { x: thing.x + 1 } },
    ]);
    const then = recompile(compiled, moved).compiled;
    const times = Array.from({ length: 10 }, (_, k) =>
      k % 2 === 0
        ? time(() => sightOf(moved, then.relief, ignore, cache)).ms
        : time(() => sightOf(watched, compiled.relief, ignore, cache)).ms,
    );
    return times.toSorted((a, b) => a - b)[5];
  };
  return [
    { what: `480×320: studs seen from ${EYES} places`, measured: seen.ms, aim: 2000, ...ms },
    { what: `… and the solid angle of each`, measured: sizes.ms, ...ms },
    { what: 'all that is seen there, 600 buildings with their floors too', measured: all.ms, ...ms },
    { what: '… again after a tree moved by a stud', measured: again('tree', 40), aim: 200, ...ms },
    { what: '… again after a building moved by a stud', measured: again('plot', 300), aim: 200, ...ms },
    {
      what: '64×48: times faster than each column by itself',
      measured: slow.ms / fast.ms,
      unit: '×',
      better: 'more',
    },
    { what: '480×320: all of it as faces', measured: walk.ms, ...ms },
    {
      what: '… in triangles',
      measured: walk.result ? trianglesOf(walk.result.parts) : 0,
      unit: '',
      better: 'less',
    },
  ];
}

/** The large display in a hall, looked at from the south. */
function watchedScene(): Scene {
  const scene = largeScene();
  const [display] = listOf(scene, 'display');
  return changed(scene, [
    { op: 'add', kind: 'place', id: 'hall', data: { name: 'Hall', walls: [], sceneX: 0, sceneY: 0 } },
    { op: 'patch', kind: 'table', id: 't', v: 1, set: { place: 'hall', height: 740 } },
    {
      ...{ op: 'patch', kind: 'display', id: display.id, v: display.v },
      set: { viewedSides: ['s'], place: 'hall' },
    },
  ]);
}

function changed(scene: Scene, changes: Change[]): Scene {
  const done = reduce(scene, changes);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return done.scene;
}
