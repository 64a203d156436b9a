import { listOf, trackLine, type Scene, wallLine } from '../document/index.ts';
import { wayProfile, heightAlong, heightOfStud, type Relief } from '../terrain/index.ts';

/** A line along the stud grid: a seam, or a piece of one. It runs south when upright, else east. */
export interface GridLine {
  x: number;
  y: number;
  upright: boolean;
  /** Studs. */
  length: number;
}

/** A way, track, stream or wall that passes over a line. */
export interface Crossing {
  kind: 'way' | 'track' | 'stream' | 'run';
  id: string;
  name: string;
  /** Of its middle, studs from the line's beginning. */
  centre: number;
  /** How much of the line it takes, studs: its width, longer the more it slants. */
  width: number;
  /** From square to the line, degrees: 0 crosses squarely, 90 runs along it. */
  angle: number;
  /** Of its surface there, plates; null for what lies on the ground as it is. */
  height: number | null;
}

/** Degrees from square up to which a crossing counts as square. */
export const SQUARE_WITHIN = 2;

interface Strip {
  kind: Crossing['kind'];
  id: string;
  name: string;
  width: number;
  points: readonly { x: number; y: number; z: number | null }[];
}

/** The lines of a scene that can pass over a seam, with their widths. */
export function stripsOf(scene: Scene, relief: Relief): Strip[] {
  const level = (id: string) => scene.level[id]?.height ?? 0;
  return [
    ...listOf(scene, 'way').map((way): Strip => {
      const profile = wayProfile(way, (x, y) => heightOfStud(relief, Math.floor(x), Math.floor(y)));
      const z = heightAlong(profile);
      let along = 0;
      const points = way.points.map(({ x, y }, i) => {
        if (i > 0) along += Math.hypot(x - way.points[i - 1].x, y - way.points[i - 1].y);
        return { x, y, z: z(along) };
      });
      return { kind: 'way', id: way.id, name: way.name, width: way.width, points };
    }),
    ...listOf(scene, 'track').map((track): Strip => ({
      kind: 'track',
      id: track.id,
      name: track.name,
      width: track.bed,
      points: trackLine(track, level(track.level) + track.offset).line,
    })),
    ...listOf(scene, 'stream').map(({ id, name, width, points }): Strip => ({
      kind: 'stream',
      id,
      name,
      width,
      points: points.map(({ x, y, z }) => ({ x, y, z })),
    })),
    ...listOf(scene, 'run').map((run): Strip => ({
      ...{ kind: 'run', id: run.id, name: run.name, width: run.thick },
      points: wallLine(run).map(({ x, y }) => ({ x, y, z: null })),
    })),
  ];
}

/** Where strips pass over a line, in the order along it. A strip that only touches the line's end is left out. */
export function crossingsOf(strips: readonly Strip[], line: GridLine): Crossing[] {
  const found: Crossing[] = [];
  for (const { kind, id, name, width, points } of strips)
    for (let i = 1; i < points.length; i++) {
      const [p, q] = [points[i - 1], points[i]].map(({ x, y, z }) => ({
        // Across the line and along it.
        u: line.upright ? x - line.x : y - line.y,
        t: line.upright ? y - line.y : x - line.x,
        z,
      }));
      // Its beginning counts, its end does not, so that a corner on the line counts once.
      if (p.u === q.u || p.u >= 0 === q.u >= 0) continue;
      const share = p.u / (p.u - q.u);
      const centre = p.t + (q.t - p.t) * share;
      const [du, dt] = [Math.abs(q.u - p.u), Math.abs(q.t - p.t)];
      const slant = Math.atan2(dt, du);
      const wide = width / Math.max(Math.cos(slant), 0.05);
      if (centre + wide / 2 <= 0 || centre - wide / 2 >= line.length) continue;
      found.push({
        ...{ kind, id, name, centre, width: wide },
        angle: (slant * 180) / Math.PI,
        height: p.z === null || q.z === null ? null : p.z + (q.z - p.z) * share,
      });
    }
  return found.sort((a, b) => a.centre - b.centre || (a.id < b.id ? -1 : 1));
}

/** Why one may not cut there: a track is parted squarely or not at all. */
export const slantsOver = ({ kind, angle }: Crossing) => kind === 'track' && angle > SQUARE_WITHIN;
