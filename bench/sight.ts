import { slowSeenCounts } from '../packages/core/test/slowSeen.ts';
import { compile } from '../packages/core/src/terrain/index.ts';
import {
  apparentSizes,
  heightField,
  seenCounts,
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
  return [
    { what: `480×320: studs seen from ${EYES} places`, measured: seen.ms, aim: 2000, ...ms },
    { what: `… and the solid angle of each`, measured: sizes.ms, ...ms },
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
