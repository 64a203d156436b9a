import { PLATES_PER_BRICK, formatPlates } from '@quarry/core/grid';
import {
  trackLine,
  reversed,
  displayOf,
  listOf,
  padsInOrder,
  type Change,
  type Pose,
  type Scene,
} from '@quarry/core/document';
import { currentContents } from '@quarry/core/venue';
import type { Drawn } from '../../board/Board.tsx';
import { tableFields } from '../../board/pick.ts';

interface DrawnThing {
  words: string;
  data: Record<string, unknown>;
  /** Changes that must come first, such as a level for the first pad. */
  before: Change[];
}

/** The next letter that no section has: A, B, … Z, AA … */
function nextLetter(scene: Scene): string {
  const used = new Set(listOf(scene, 'section').map(({ letter }) => letter));
  const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  return [...letters, ...letters.map((letter) => `A${letter}`)].find((letter) => !used.has(letter)) ?? '?';
}

/** The level that most of the ground lies on: what is drawn next most likely belongs to it too. */
export function defaultLevel(scene: Scene): { id: string; before: Change[] } {
  const levels = listOf(scene, 'level');
  if (levels.length === 0)
    return {
      id: 'ground',
      before: [{ op: 'add', kind: 'level', id: 'ground', data: { name: 'Ground', height: 3 } }],
    };
  const areas = new Map(levels.map(({ id }) => [id, 0]));
  for (const { level, w, d } of listOf(scene, 'pad')) areas.set(level, (areas.get(level) ?? 0) + w * d);
  const [id] = [...areas].reduce((best, entry) => (entry[1] > best[1] ? entry : best));
  return { id, before: [] };
}

/** How near an open end of track must be for a new track to go on from it, studs. */
const JOIN = 4;

/** The open end of a track nearest to a place, as the pose in which another track would begin. */
function openEnd(scene: Scene, at: { x: number; y: number }): Pose | null {
  const ends = listOf(scene, 'track').flatMap((track) => {
    const { joints } = trackLine(track, (scene.level[track.level]?.height ?? 0) + track.offset);
    return [reversed(joints[0]), joints[joints.length - 1]];
  });
  const far = ({ x, y }: Pose) => Math.hypot(x - at.x, y - at.y);
  return ends.filter((end) => far(end) <= JOIN).sort((a, b) => far(a) - far(b))[0] ?? null;
}

/** Default fields of a newly drawn entity. */
export function defaultsFor(scene: Scene, drawn: Drawn): DrawnThing {
  const name = (word: string) => `${word} ${listOf(scene, drawn.tool).length + 1}`;
  const level = defaultLevel(scene);
  const onLevel = { level: level.id };
  const { before } = level;
  switch (drawn.tool) {
    case 'footprint':
      return { words: 'a footprint part', data: { name: name('Part'), ...drawn.rect }, before: [] };
    case 'table':
      return {
        words: 'a table',
        data: {
          name: name('Table'),
          ...tableFields(scene, drawn.rect),
          height: currentContents(scene, 'table')[0]?.height ?? 740,
          place: displayOf(scene).place,
        },
        before: [],
      };
    case 'plot':
      return {
        words: 'a plot',
        data: { name: name('Plot'), ...drawn.rect, height: 30, storeys: 2 },
        before: [],
      };
    case 'section':
      return {
        words: 'a section',
        data: { letter: nextLetter(scene), name: name('Section'), ...drawn.rect },
        before: [],
      };
    case 'pad': {
      const last = padsInOrder(scene).at(-1)?.order ?? 0;
      const data = {
        name: name('Pad'),
        ...drawn.rect,
        ...onLevel,
        ground: 'grass',
        order: Math.min(100_000, last + 10),
      };
      return { words: 'a pad', data, before };
    }
    case 'hill':
      return {
        words: 'a hill',
        data: {
          name: name('Hill'),
          ...drawn.rect,
          shape: 'oval',
          ...onLevel,
          height: 18,
          terrace: PLATES_PER_BRICK,
        },
        before,
      };
    case 'hollow':
      return {
        words: 'a hollow',
        data: {
          name: name('Hollow'),
          ...drawn.rect,
          shape: 'oval',
          ...onLevel,
          depth: 6,
          terrace: PLATES_PER_BRICK,
        },
        before,
      };
    case 'water':
      return {
        words: 'water',
        data: {
          name: name('Water'),
          ...drawn.rect,
          shape: 'oval',
          ...onLevel,
          offset: surfaceUnder(scene, level.id),
          bank: 3,
        },
        before,
      };
    case 'planting':
      return {
        words: 'a planting',
        data: {
          name: name('Planting'),
          ...drawn.rect,
          mix: [
            { name: 'Birch', share: 2, low: 15, high: 24, crown: 4 },
            { name: 'Gorse', share: 3, low: 2, high: 5 },
          ],
        },
        before: [],
      };
    case 'marker':
      return { words: 'a marker', data: { name: name('To be decided'), ...drawn.rect }, before: [] };
    case 'reserved':
      return { words: 'reserved ground', data: { name: name('Kept free'), ...drawn.rect }, before: [] };
    case 'stream':
      return {
        words: 'a stream',
        data: { name: name('Stream'), points: withHeights(drawn.points), ...onLevel, offset: -1 },
        before,
      };
    case 'way':
      return { words: 'a way', data: { name: name('Way'), points: withHeights(drawn.points) }, before: [] };
    case 'run':
      return { words: 'a wall', data: { name: name('Wall'), points: drawn.points }, before: [] };
    case 'repeat':
      return { words: 'a repeat', data: { name: name('Lamps'), points: drawn.points }, before: [] };
    case 'track': {
      const end = openEnd(scene, drawn.at);
      const high = end ? end.z - (scene.level[level.id]?.height ?? 0) : 1;
      return {
        words: end ? `track on from ${formatPlates(end.z)}` : 'track',
        data: {
          name: name('Track'),
          ...(end ? { x: end.x, y: end.y, heading: end.heading } : drawn.at),
          ...onLevel,
          offset: high,
          pieces: [{ go: 'straight' }],
        },
        before,
      };
    }
    case 'tree':
      return { words: 'a tree', data: { name: name('Tree'), ...drawn.at }, before: [] };
    case 'figure':
      return { words: 'a small scene', data: { name: name('Scene'), ...drawn.at }, before: [] };
    case 'flag': {
      const { wind } = displayOf(scene);
      return {
        words: 'a flag',
        data: { name: name('Flag'), ...drawn.at, ...(wind ? { heading: downwind(wind) } : {}) },
        before: [],
      };
    }
    case 'note':
      return { words: 'a note', data: { name: name('Note'), ...drawn.at }, before: [] };
  }
}

/** A brick under its level, or as far as leaves a plate for the water itself. */
const surfaceUnder = (scene: Scene, level: string): number =>
  Math.max(-PLATES_PER_BRICK, Math.min(0, 1 - (scene.level[level]?.height ?? PLATES_PER_BRICK)));

const withHeights = (points: readonly { x: number; y: number }[]) =>
  points.map((point) => ({ ...point, z: null }));

const COMPASS = ['n', 'ne', 'e', 'se', 's', 'sw', 'w', 'nw'] as const;
/** Where a flag points in a wind that comes from somewhere. */
const downwind = (from: (typeof COMPASS)[number]) => COMPASS[(COMPASS.indexOf(from) + 4) % 8];
