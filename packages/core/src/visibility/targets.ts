import { MM_PER_PLATE } from '../grid/index.ts';
import { entityOf, keyOf, labelOf, type Kind, type Scene, type Side } from '../document/index.ts';
import { OUTSIDE, bodiesOf, type Body, type Relief } from '../terrain/index.ts';
import { WATCHERS, type PublicEyes, type Watcher } from './eyes.ts';
import { FREE, firstHider, peaksOf, type Peaks, type Eye, type HeightField } from './seen.ts';

// Buildings and small scenes as eyes see them: points on their faces, the lines to them, and what cuts those off.

/** A point that is looked at; seen only from before its face. */
interface Target {
  at: Eye;
  /** Away from the face, studs east and north; null: it is seen from all round. */
  out: { x: number; y: number } | null;
  side: Side | null;
  /** The area it stands for, studs × mm. */
  weight: number;
}

/** A face has a point each so many studs along it and so many mm up it, but no more points than these. */
const POINT = { along: 2, up: 20, mostAlong: 12, mostUp: 6 };
/** A small scene is looked at where the faces of its figures are, as a share of their height. */
const FACE = 0.9;

/** What is seen of a building or a small scene. */
export interface SeenThing {
  kind: 'plot' | 'figure';
  id: string;
  name: string;
  /** Share of the lines from eyes to those parts of it that face them which nothing cuts off, 0 to 1; null: none faces any. */
  free: Record<Watcher, number | null>;
  /** The share of all watchers by the side it faces, of those sides that face somebody; of a building alone. */
  sides: { side: Side; free: number }[];
  /** What cuts its lines off first, the most first: shares of all its lines. */
  hiders: Hider[];
}

export interface Hider {
  kind: Kind;
  id: string;
  name: string;
  share: number;
  /** Whether it stands on the ground, so that it could be moved or taken away. */
  isStanding: boolean;
}

/** What stands, and is put on the ground. */
const STANDING: readonly Kind[] = ['plot', 'run', 'repeat', 'planting', 'tree'];

/** Looks at buildings and small scenes of a compiled scene, one after the other. */
export class Lookout {
  readonly #field: HeightField;
  /** With everything in its place: what is taken away only lowers the field. */
  readonly #peaks: Peaks;
  readonly #bodies: ReadonlyMap<string, Body[]>;
  #studsOf: ReadonlyMap<number, number[]> | null = null;
  readonly #numberOf: ReadonlyMap<string, number>;

  /** @param standing everything that stands in the scene, where it is known already */
  constructor(
    readonly scene: Scene,
    readonly relief: Relief,
    readonly eyes: PublicEyes,
    standing: readonly Body[] = bodiesOf(scene, relief),
  ) {
    this.#field = heightField(relief);
    this.#peaks = peaksOf(this.#field);
    const bodies = new Map<string, Body[]>();
    for (const body of standing) {
      const key = keyOf(body.kind, body.id);
      const list = bodies.get(key);
      if (list) list.push(body);
      else bodies.set(key, [body]);
    }
    this.#bodies = bodies;
    this.#numberOf = new Map(relief.things.map(({ kind, id }, i) => [keyOf(kind, id), i + 1]));
  }

  /** What is seen of a thing. @param without what is taken away meanwhile, keys of things */
  look(kind: 'plot' | 'figure', id: string, without: readonly string[] = []): SeenThing {
    const key = keyOf(kind, id);
    const targets = (this.#bodies.get(key) ?? []).flatMap((body) =>
      body.isPavement ? [] : targetsOf(body, this.relief),
    );
    const putBack = [key, ...without].map((one) => this.#takeAway(one));
    const sums = new Map<string, { all: number; free: number }>();
    const add = (name: string, weight: number, isFree: boolean) => {
      const sum = sums.get(name) ?? { all: 0, free: 0 };
      sum.all += weight;
      if (isFree) sum.free += weight;
      sums.set(name, sum);
    };
    const cut = new Map<number, number>();
    for (const who of WATCHERS)
      for (const eye of this.eyes.by[who])
        for (const { at, out, side, weight } of targets) {
          if (out && out.x * (eye.x - at.x) + out.y * (eye.y - at.y) <= 1e-6) continue;
          const hider = firstHider(this.#field, this.#peaks, at, eye);
          add(who, weight, hider === FREE);
          add('all', weight, hider === FREE);
          if (side !== null) add(side, weight, hider === FREE);
          if (hider !== FREE) {
            const owner = this.relief.owner[hider];
            cut.set(owner, (cut.get(owner) ?? 0) + weight);
          }
        }
    for (const back of putBack.toReversed()) back();
    const shareOf = (name: string) => {
      const sum = sums.get(name);
      return sum ? sum.free / sum.all : null;
    };
    const all = sums.get('all')?.all ?? 1;
    return {
      ...{ kind, id, name: labelOf(this.scene, kind, id) },
      free: { adult: shareOf('adult'), seated: shareOf('seated'), child: shareOf('child') },
      sides: (['n', 'e', 's', 'w'] as const).flatMap((side) => {
        const free = shareOf(side);
        return free === null ? [] : [{ side, free }];
      }),
      hiders: [...cut]
        .map(([owner, weight]) => this.#hider(owner, weight / all))
        .toSorted((a, b) => b.share - a.share || (a.id < b.id ? -1 : 1)),
    };
  }

  #hider(owner: number, share: number): Hider {
    const thing = owner > 0 ? this.relief.things[owner - 1] : null;
    if (!thing) return { kind: 'display', id: '', name: 'The ground', share, isStanding: false };
    const { kind, id } = thing;
    return { kind, id, name: labelOf(this.scene, kind, id), share, isStanding: STANDING.includes(kind) };
  }

  /** Lowers the studs of a thing to what it stands on. @returns puts them back */
  #takeAway(key: string): () => void {
    const number = this.#numberOf.get(key);
    if (number === undefined) return () => undefined;
    const studs = (this.#studsOf ??= studsByOwner(this.relief)).get(number) ?? [];
    const foot = Math.min(...(this.#bodies.get(key) ?? []).map(({ ground }) => ground));
    const { heights } = this.#field;
    const before = studs.map((i) => heights[i]);
    for (const i of studs)
      heights[i] = MM_PER_PLATE * Math.max(this.relief.surface[i], Number.isFinite(foot) ? foot : 0);
    return () => studs.forEach((i, k) => (heights[i] = before[k]));
  }
}

/** The studs on which each thing is uppermost, by its number. */
function studsByOwner({ owner }: Relief): Map<number, number[]> {
  const studsOf = new Map<number, number[]>();
  owner.forEach((number, i) => {
    if (number === 0) return;
    const studs = studsOf.get(number);
    if (studs) studs.push(i);
    else studsOf.set(number, [i]);
  });
  return studsOf;
}

/** The tops of a relief in mm over its datum; none outside the footprint. */
export const heightField = ({ w, d, top, ground }: Relief): HeightField => ({
  ...{ w, d },
  heights: Float64Array.from(top, (plates, i) => (ground[i] === OUTSIDE ? NaN : plates * MM_PER_PLATE)),
});

/** Whether a kind of thing is looked at by itself. */
export const lookedAt = (scene: Scene): { kind: 'plot' | 'figure'; id: string }[] =>
  (['plot', 'figure'] as const).flatMap((kind) =>
    Object.keys(scene[kind])
      .filter((id) => entityOf(scene, kind, id) !== undefined)
      .toSorted()
      .map((id) => ({ kind, id })),
  );

function targetsOf({ kind, corners, begins, top }: Body, { x, y, d }: Relief): Target[] {
  const frame = (at: { x: number; y: number }) => ({ x: at.x - x, y: y + d - at.y });
  const [low, high] = [begins * MM_PER_PLATE, top * MM_PER_PLATE];
  if (kind === 'figure') {
    const middle = {
      x: corners.reduce((sum, at) => sum + at.x, 0) / corners.length,
      y: corners.reduce((sum, at) => sum + at.y, 0) / corners.length,
    };
    return [{ at: { ...frame(middle), z: low + FACE * (high - low) }, out: null, side: null, weight: 1 }];
  }
  // Twice the area on the plan: its sign says which way round the corners go.
  const turn = Math.sign(
    corners.reduce((sum, a, i) => {
      const b = corners[(i + 1) % corners.length];
      return sum + a.x * b.y - b.x * a.y;
    }, 0),
  );
  const rows = pointsOf(high - low, POINT.up, POINT.mostUp);
  return corners.flatMap((a, i) => {
    const b = corners[(i + 1) % corners.length];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (length === 0 || high <= low) return [];
    // On the plan y grows to the south; here to the north.
    const out = { x: (turn * (b.y - a.y)) / length, y: (turn * (b.x - a.x)) / length };
    const columns = pointsOf(length, POINT.along, POINT.mostAlong);
    return columns.flatMap((along) =>
      rows.map((up): Target => ({
        at: {
          ...frame({ x: a.x + (b.x - a.x) * along, y: a.y + (b.y - a.y) * along }),
          z: low + up * (high - low),
        },
        ...{ out, side: sideOf(out) },
        weight: (length * (high - low)) / columns.length / rows.length,
      })),
    );
  });
}

/** Middles of even stretches of a length, as shares of it. */
function pointsOf(length: number, each: number, most: number): number[] {
  const count = Math.min(most, Math.max(1, Math.round(length / each)));
  return Array.from({ length: count }, (_, i) => (i + 0.5) / count);
}

function sideOf({ x, y }: { x: number; y: number }): Side {
  if (Math.abs(x) > Math.abs(y)) return x > 0 ? 'e' : 'w';
  return y > 0 ? 'n' : 's';
}
