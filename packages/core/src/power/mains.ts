import { MM_PER_STUD } from '../grid/index.ts';
import { listOf, displayOf, type Entity, type Scene } from '../document/index.ts';
import { footprintBounds } from '../terrain/index.ts';
import {
  currentContents,
  frameOf,
  highestTable,
  pointToRoom,
  type RoomPoint,
  type Segment,
} from '../venue/index.ts';
import { publicDistance } from '../visibility/index.ts';

// Which adapter goes into which outlet of the room. Of the mains nothing else is planned.

/** A socket of the room or an extension lead. */
export type OutletRef = { kind: 'socket' | 'extension'; id: string };

/** A lead with a mains plug: of an adapter, or of an extension that is used. */
export interface MainsLead {
  kind: 'supply' | 'extension';
  id: string;
  name: string;
  /** Where it begins, mm of the room, and where it is plugged in. */
  from: RoomPoint;
  /** Null: no outlet that is free lies within it. */
  outlet: (OutletRef & { name: string; at: RoomPoint }) | null;
  /** Its own length, and what the straight way takes to its outlet, else to the nearest one, mm; null: there is none. */
  leadMm: number;
  needsMm: number | null;
  /** The straight way crosses where visitors stand or their barrier. */
  isCrossing: boolean;
}

interface Plug {
  kind: MainsLead['kind'];
  id: string;
  name: string;
  from: RoomPoint;
  leadMm: number;
  /** mm from where it lies down to the floor. */
  down: number;
}
interface Outlet extends OutletRef {
  name: string;
  at: RoomPoint;
  outlets: number;
}

const distance = (a: RoomPoint, b: RoomPoint) => Math.hypot(a.x - b.x, a.y - b.y);
const needOf = (plug: Plug, outlet: Outlet) => plug.down + distance(plug.from, outlet.at);

/** Extension leads of which every choice is tried. */
const MAX_TRIED = 6;

/**
 * Each adapter into an outlet within its lead, straight over the floor. As many adapters as possible get one; then as few
 * extension leads as possible lie; an extension goes into a socket, never into another extension.
 */
export function mainsLeads(scene: Scene): MainsLead[] {
  const frame = frameOf(scene);
  const table = highestTable(scene);
  const adapters = listOf(scene, 'supply')
    .filter(({ type }) => type !== 'battery')
    .map((supply): Plug => ({
      kind: 'supply',
      ...{ id: supply.id, name: supply.name, leadMm: supply.leadMm },
      from: pointToRoom(frame, supply),
      down: Math.max(0, table - supply.belowMm),
    }));
  const sockets = currentContents(scene, 'socket').map((one): Outlet => outletOf('socket', one));
  const extensions = currentContents(scene, 'extension');
  const lines = visitorLines(scene);
  const { plugs, found } = bestPlan(adapters, sockets, extensions);
  const all = [...sockets, ...extensions.map((one) => outletOf('extension', one))];
  return plugs.map((plug): MainsLead => {
    const outlet = found.get(plug) ?? null;
    const near = (plug.kind === 'extension' ? sockets : all).map((one) => needOf(plug, one));
    const line = outlet && { a: plug.from, b: outlet.at };
    return {
      ...{ kind: plug.kind, id: plug.id, name: plug.name, from: plug.from, leadMm: plug.leadMm },
      outlet: outlet && { kind: outlet.kind, id: outlet.id, name: outlet.name, at: outlet.at },
      needsMm: outlet ? needOf(plug, outlet) : near.length > 0 ? Math.min(...near) : null,
      isCrossing: line !== null && lines.some((one) => doCross(line, one)),
    };
  });
}

const outletOf = (
  kind: OutletRef['kind'],
  { id, name, x, y, outlets }: Entity<'socket'> | Entity<'extension'>,
): Outlet => ({
  ...{ kind, id, name, outlets },
  at: { x, y },
});

/** The plan by which most adapters are plugged in with the fewest extension leads. */
function bestPlan(
  adapters: readonly Plug[],
  sockets: readonly Outlet[],
  extensions: readonly Entity<'extension'>[],
): { plugs: Plug[]; found: Map<Plug, Outlet> } {
  const choices =
    extensions.length > MAX_TRIED
      ? [extensions]
      : Array.from({ length: 1 << extensions.length }, (_, mask) =>
          extensions.filter((_one, i) => mask & (1 << i)),
        );
  let best: { plugs: Plug[]; found: Map<Plug, Outlet>; plugged: number; laid: number } | null = null;
  for (const chosen of choices) {
    const laid = chosen.map((one): Plug => ({
      kind: 'extension',
      ...{ id: one.id, name: one.name, leadMm: one.leadMm, down: 0 },
      from: { x: one.x, y: one.y },
    }));
    // Without a socket for one of them the choice gives no power at all; where every one is laid, those do not count.
    const roots = matched(laid, sockets);
    const live = laid.filter((plug) => roots.has(plug));
    if (live.length < laid.length && choices.length > 1) continue;
    const outlets = chosen
      .filter(({ id }) => live.some((plug) => plug.id === id))
      .map((one) => outletOf('extension', one));
    const plugs = [...live, ...adapters];
    const found = matched(plugs, [...sockets, ...outlets], live.length);
    const plugged = found.size - live.length;
    if (best && (plugged < best.plugged || (plugged === best.plugged && laid.length >= best.laid))) continue;
    best = { plugs: [...adapters, ...live], found, plugged, laid: laid.length };
  }
  return best ?? { plugs: [...adapters], found: new Map() };
}

/**
 * As many plugs as possible, each into one outlet within its lead (augmenting paths, after Kuhn 1955); the near ones are
 * tried first. @param extensions how many plugs at the beginning go into sockets only
 */
function matched(
  plugs: readonly Plug[],
  outlets: readonly Outlet[],
  extensions = plugs.length,
): Map<Plug, Outlet> {
  const held = outlets.map((): Plug[] => []);
  const within = new Map(
    plugs.map((plug, i) => [
      plug,
      outlets
        .map((outlet, k) => ({ k, need: needOf(plug, outlet) }))
        .filter(({ k, need }) => need <= plug.leadMm && (i >= extensions || outlets[k].kind === 'socket'))
        .sort((a, b) => a.need - b.need)
        .map(({ k }) => k),
    ]),
  );
  const place = (plug: Plug, seen: Set<number>): boolean => {
    for (const k of within.get(plug) ?? []) {
      if (seen.has(k)) continue;
      seen.add(k);
      if (held[k].length < outlets[k].outlets) {
        held[k].push(plug);
        return true;
      }
      for (let i = 0; i < held[k].length; i++)
        if (place(held[k][i], seen)) {
          held[k][i] = plug;
          return true;
        }
    }
    return false;
  };
  for (const plug of plugs) place(plug, new Set());
  return new Map(held.flatMap((some, k) => some.map((plug) => [plug, outlets[k]] as const)));
}

/** Lines that keep visitors off, and those along which they stand, mm of the room. */
function visitorLines(scene: Scene): Segment[] {
  const barriers = currentContents(scene, 'barrier').map(({ x1, y1, x2, y2 }) => ({
    a: { x: x1, y: y1 },
    b: { x: x2, y: y2 },
  }));
  const size = footprintBounds(scene);
  if (!size) return barriers;
  const frame = frameOf(scene);
  const off = publicDistance(scene) / MM_PER_STUD;
  const [west, north, east, south] = [size.x, size.y, size.x + size.w, size.y + size.d];
  const standing = displayOf(scene).viewedSides.map((side): Segment => {
    const [ax, ay, bx, by] = {
      n: [west, north - off, east, north - off],
      s: [west, south + off, east, south + off],
      w: [west - off, north, west - off, south],
      e: [east + off, north, east + off, south],
    }[side];
    return { a: pointToRoom(frame, { x: ax, y: ay }), b: pointToRoom(frame, { x: bx, y: by }) };
  });
  return [...barriers, ...standing];
}

/** Whether two lines cross within both (touching counts). */
function doCross(p: Segment, q: Segment): boolean {
  const side = (line: Segment, at: RoomPoint) =>
    (line.b.x - line.a.x) * (at.y - line.a.y) - (line.b.y - line.a.y) * (at.x - line.a.x);
  if (side(p, q.a) * side(p, q.b) > 0 || side(q, p.a) * side(q, p.b) > 0) return false;
  // On one line they may still lie apart.
  const reach = (of: Segment, axis: 'x' | 'y') => [of.a[axis], of.b[axis]].sort((a, b) => a - b);
  return (['x', 'y'] as const).every((axis) => {
    const [[low, high], [from, to]] = [reach(p, axis), reach(q, axis)];
    return low <= to && from <= high;
  });
}
