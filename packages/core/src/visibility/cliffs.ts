import { MM_PER_PLATE, MM_PER_STUD, type Rect } from '../grid/index.ts';
import { SIDES, labelOf, runsEast, type Kind, type Scene, type Side } from '../document/index.ts';
import { NEIGHBOUR_STEPS, OUTSIDE, type Relief } from '../terrain/index.ts';
import { WATCHERS, byWatcher, type PublicEyes, type Watcher } from './eyes.ts';
import { FREE, firstHider, type Eye, type HeightField, type Peaks } from './seen.ts';

// Where the ground falls by a brick or more from stud to stud, and at the edges of the display: which of it is seen.

/** Ground that falls by so much is a cliff, plates: a brick (ours, no source). */
const CLIFF_PLATES = 3;
/** A face has a point each so many mm up it, but no more than these. */
const POINT = { up: 20, most: 3 };

/** What is seen of all cliffs of one thing that look one way, or of one edge of the display. */
export interface SeenCliff {
  /** The hill, the pad and the like that falls; the display: one of its edges, or ground of no thing. */
  kind: Kind;
  id: string;
  name: string;
  side: Side;
  isEdge: boolean;
  /** How long they are, studs, and how large, mm². */
  studs: number;
  area: number;
  /** Share of the lines from eyes before them that nothing cuts off, 0 to 1; null: nobody of that height is before them. */
  free: Record<Watcher, number | null>;
  /** What nobody sees of them: studs whose whole face is hidden. */
  hidden: number;
  /** From where they are seen the nearest, mm; null: from nowhere. */
  nearest: number | null;
}

/** The face of one stud towards one side. */
interface Face {
  stud: number;
  side: number;
  /** Plates over the datum. */
  low: number;
  high: number;
  /** It ends the footprint. */
  isEdge: boolean;
}

/** A face with what is seen of it. */
export interface KeptFace extends Face {
  /** By watcher: the weight of all lines from eyes before it, then of those that nothing cuts off. */
  weights: readonly number[];
  isSeen: boolean;
  /** The shortest free line, mm; Infinity: nobody sees it. */
  nearest: number;
}

const STEPS = SIDES.map((side) => NEIGHBOUR_STEPS[side]);
const keyOfFace = ({ stud, side }: Face): number => 4 * stud + side;

/** The face of a stud to one side; null: the ground does not fall there by a brick. */
export function faceAt({ w, d, height, ground }: Relief, stud: number, side: number): Face | null {
  const high = height[stud];
  if (ground[stud] === OUTSIDE || high < CLIFF_PLATES) return null;
  const { x, y } = STEPS[side];
  const [column, row] = [(stud % w) + x, Math.trunc(stud / w) + y];
  const beside = row * w + column;
  const isEdge = column < 0 || row < 0 || column >= w || row >= d || ground[beside] === OUTSIDE;
  const low = isEdge ? 0 : Math.max(0, height[beside]);
  return high - low >= CLIFF_PLATES ? { stud, side, low, high, isEdge } : null;
}

/** The faces of the ground, stud by stud from the north-west. */
function facesOf(relief: Relief): Face[] {
  const faces: Face[] = [];
  for (let stud = 0; stud < relief.ground.length; stud++)
    for (let side = 0; side < STEPS.length; side++) {
      const face = faceAt(relief, stud, side);
      if (face) faces.push(face);
    }
  return faces;
}

/** How many points a face has. */
const pointCount = ({ low, high }: Pick<Face, 'low' | 'high'>): number =>
  Math.min(POINT.most, Math.max(1, Math.round(((high - low) * MM_PER_PLATE) / POINT.up)));

/** The middle of the foot of a face, in the frame of lines of sight. */
function footOf({ w, d }: Relief, { stud, side, low }: Face): Eye {
  const { x, y } = STEPS[side];
  return {
    x: (stud % w) + 0.5 + x / 2,
    y: d - Math.trunc(stud / w) - 0.5 - y / 2,
    z: low * MM_PER_PLATE,
  };
}

/** The points of a face that are looked at, one over the other. */
function pointsOf(relief: Relief, face: Face): Eye[] {
  const { x, y, z } = footOf(relief, face);
  const tall = (face.high - face.low) * MM_PER_PLATE;
  const rows = pointCount(face);
  return Array.from({ length: rows }, (_, k) => ({ x, y, z: z + (tall * (k + 0.5)) / rows }));
}

/**
 * What eyes see of all faces.
 * @param before faces that were looked at, by `keyOfFace`, and whether a line to one of them may meet something else now
 */
export function lookAtFaces(
  relief: Relief,
  eyes: PublicEyes,
  field: HeightField,
  peaks: Peaks,
  before: {
    faces: ReadonlyMap<number, KeptFace>;
    touches: (lowest: Eye) => boolean;
  } | null,
): Map<number, KeptFace> {
  const looked = new Map<number, KeptFace>();
  for (const face of facesOf(relief)) {
    const key = keyOfFace(face);
    const kept = before?.faces.get(key);
    const isKept =
      kept?.low === face.low &&
      kept.high === face.high &&
      kept.isEdge === face.isEdge &&
      before?.touches(footOf(relief, face)) === false;
    looked.set(key, isKept ? kept : lookAtFace(relief, eyes, field, peaks, face));
  }
  return looked;
}

/** What is seen of a face. */
export function lookAtFace(
  relief: Relief,
  eyes: PublicEyes,
  field: HeightField,
  peaks: Peaks,
  face: Face,
): KeptFace {
  const weights = new Array<number>(2 * WATCHERS.length).fill(0);
  const step = STEPS[face.side];
  let nearest = Infinity;
  for (const point of pointsOf(relief, face))
    WATCHERS.forEach((who, watcher) => {
      for (const eye of eyes.by[who]) {
        const [dx, dy] = [eye.x - point.x, eye.y - point.y];
        // On the plan y grows to the south; here to the north.
        if (step.x * dx - step.y * dy <= 1e-6) continue;
        weights[watcher] += eye.crowd;
        if (firstHider(field, peaks, point, eye) !== FREE) continue;
        weights[WATCHERS.length + watcher] += eye.crowd;
        nearest = Math.min(nearest, Math.hypot(dx * MM_PER_STUD, dy * MM_PER_STUD, eye.z - point.z));
      }
    });
  return { ...face, weights, isSeen: nearest < Infinity, nearest };
}

/** Faces by what falls and by the side it looks to: the most that nobody sees first. */
export function cliffsOf(scene: Scene, relief: Relief, faces: ReadonlyMap<number, KeptFace>): SeenCliff[] {
  const groups = new Map<number, SeenCliff & { sums: Float64Array }>();
  const falls = relief.things.map(({ kind }) => FALLS.includes(kind));
  for (const face of faces.values()) {
    const { isEdge } = face;
    const number = relief.owner[face.stud];
    const owner = !isEdge && number > 0 && falls[number - 1] ? number : 0;
    const key = 8 * owner + 2 * face.side + (isEdge ? 1 : 0);
    let group = groups.get(key);
    if (!group) groups.set(key, (group = groupOf(scene, relief, owner, SIDES[face.side], isEdge)));
    const area = (face.high - face.low) * MM_PER_PLATE * MM_PER_STUD;
    const each = area / pointCount(face);
    group.studs++;
    group.area += area;
    for (let k = 0; k < group.sums.length; k++) group.sums[k] += each * face.weights[k];
    if (face.isSeen) group.nearest = Math.min(group.nearest ?? Infinity, face.nearest);
    else group.hidden++;
  }
  return [...groups.values()]
    .map(({ sums, ...cliff }) => {
      const share = (who: Watcher) => {
        const k = WATCHERS.indexOf(who);
        return sums[k] > 0 ? sums[WATCHERS.length + k] / sums[k] : null;
      };
      return { ...cliff, free: byWatcher(share) };
    })
    .toSorted((a, b) => b.hidden - a.hidden || b.area - a.area || (a.name < b.name ? -1 : 1));
}

/** Cliffs of one thing to one side, before any is counted. @param owner number of the thing; 0: the display */
function groupOf(
  scene: Scene,
  relief: Relief,
  owner: number,
  side: Side,
  isEdge: boolean,
): SeenCliff & { sums: Float64Array } {
  const thing = owner > 0 ? relief.things[owner - 1] : { kind: 'display' as const, id: '' };
  const nobodys = isEdge ? 'Edge of the display' : 'The ground';
  return {
    ...{ ...thing, side, isEdge, studs: 0, area: 0, hidden: 0, nearest: null },
    name: owner > 0 ? labelOf(scene, thing.kind, thing.id) : nobodys,
    ...{ free: byWatcher(() => null), sums: new Float64Array(2 * WATCHERS.length) },
  };
}

/** What falls by itself; on the rest stands something else, or it is nobody's. */
const FALLS: readonly Kind[] = ['pad', 'hill', 'hollow', 'water', 'stream', 'way', 'terrain', 'cavity'];

/** Studs in a row whose faces to one side nobody sees. */
export interface HiddenFaces extends Rect {
  side: Side;
}

/** Fewest studs in a row that are worth telling (ours, no source). */
const LEAST = 4;

/** Stretches of faces that nobody sees, the longest first. */
export function hiddenFaces(relief: Relief, faces: ReadonlyMap<number, KeptFace>): HiddenFaces[] {
  const found: HiddenFaces[] = [];
  const hidden = SIDES.map(() => new Uint8Array(relief.w * relief.d));
  for (const { stud, side, isSeen } of faces.values()) if (!isSeen) hidden[side][stud] = 1;
  SIDES.forEach((side, k) => {
    const isAlongX = runsEast(side);
    const [lines, along] = isAlongX ? [relief.d, relief.w] : [relief.w, relief.d];
    for (let line = 0; line < lines; line++)
      for (let from = 0, at = 0; at <= along; at++) {
        const stud = isAlongX ? line * relief.w + at : at * relief.w + line;
        if (at < along && hidden[k][stud] === 1) continue;
        if (at - from >= LEAST)
          found.push(
            isAlongX
              ? { side, x: relief.x + from, y: relief.y + line, w: at - from, d: 1 }
              : { side, x: relief.x + line, y: relief.y + from, w: 1, d: at - from },
          );
        from = at + 1;
      }
  });
  return found.toSorted((a, b) => b.w * b.d - a.w * a.d || a.y - b.y || a.x - b.x);
}
