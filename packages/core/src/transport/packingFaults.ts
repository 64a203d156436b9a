import { PACK_TOLERANCE, archBoxes, type Packed, type PackItem, type PackSpace } from './packItem.ts';

/**
 * What is wrong with a packing, each fault in words; none: it holds. Written from the definitions, apart from the search:
 * each pair of pieces is looked at by itself, loads go down from the highest.
 */
export function packingFaults(
  items: readonly PackItem[],
  space: PackSpace | readonly PackSpace[],
  packed: readonly Packed[],
): string[] {
  const itemOf = new Map(items.map((item) => [item.id, item]));
  const faults: string[] = [];
  const lies = (a: number, b: number, c: number, d: number) =>
    Math.min(b, d) - Math.max(a, c) > PACK_TOLERANCE;
  type Box = Omit<Packed, 'trip' | 'id'>;
  const beside = (a: Box, b: Box) => lies(a.x, a.x + a.w, b.x, b.x + b.w);
  const level = (a: Box, b: Box) => lies(a.z, a.z + a.h, b.z, b.z + b.h);
  const along = (a: Box, b: Box) => lies(a.y, a.y + a.d, b.y, b.y + b.d);
  for (const trip of new Set(packed.map((piece) => piece.trip))) {
    const within = 'w' in space ? space : space[trip - 1];
    if (!within) {
      faults.push(`There is no trip ${trip}.`);
      continue;
    }
    const arches = archBoxes(within);
    const door = within.door ?? { x: 0, w: within.w };
    const pieces = packed.filter((piece) => piece.trip === trip);
    const mass = pieces.reduce((sum, { id }) => sum + (itemOf.get(id)?.mass ?? 0), 0);
    if (mass > (within.maxMass ?? Infinity)) faults.push(`Trip ${trip} carries ${mass} g.`);
    const loads = new Map<string, number>();
    for (const piece of pieces.toSorted((a, b) => b.z - a.z)) {
      const item = itemOf.get(piece.id);
      if (!item) {
        faults.push(`${piece.id} is no piece.`);
        continue;
      }
      const isAsIs = piece.w === item.w && piece.d === item.d;
      const isTurned = item.canTurn && piece.w === item.d && piece.d === item.w;
      if (piece.h !== item.h || (!isAsIs && !isTurned)) faults.push(`${piece.id} has another size.`);
      const reaches = [
        ...[piece.x, piece.y, piece.z].map((from) => -from),
        ...[piece.x + piece.w - within.w, piece.y + piece.d - within.d, piece.z + piece.h - within.h],
      ];
      if (Math.max(...reaches) > PACK_TOLERANCE) faults.push(`${piece.id} stands outside.`);
      const load = loads.get(piece.id) ?? 0;
      if (load > item.bears * (1 + 1e-9)) faults.push(`${piece.id} bears ${load} g.`);
      let held = piece.z <= PACK_TOLERANCE ? piece.w * piece.d : 0;
      for (const arch of arches) {
        if (!beside(piece, arch) || !along(piece, arch)) continue;
        if (level(piece, arch)) faults.push(`${piece.id} stands in a wheel arch.`);
        if (Math.abs(arch.h - piece.z) <= PACK_TOLERANCE && piece.z > PACK_TOLERANCE)
          held +=
            (Math.min(piece.x + piece.w, arch.x + arch.w) - Math.max(piece.x, arch.x)) *
            (Math.min(piece.y + piece.d, arch.y + arch.d) - Math.max(piece.y, arch.y));
      }
      // Aside at its own depth until it is free of the door's frame and, from behind their front, of the arches.
      const free = arches.filter((arch) => level(piece, arch) && piece.y + piece.d > arch.y + PACK_TOLERANCE);
      const [left, right] = [
        Math.max(door.x, ...free.filter(({ x }) => x === 0).map(({ w }) => w)),
        Math.min(door.x + door.w, ...free.filter(({ x }) => x > 0).map(({ x }) => x)),
      ];
      if (piece.w > right - left + PACK_TOLERANCE) faults.push(`${piece.id} does not come out.`);
      const out = { ...piece, x: Math.min(Math.max(piece.x, left), right - piece.w), y: 0, d: piece.y };
      const aside = { ...piece, x: Math.min(piece.x, out.x), w: Math.abs(out.x - piece.x) + piece.w };
      for (const other of pieces) {
        if (other === piece) continue;
        const order = itemOf.get(other.id)?.order ?? item.order;
        if (beside(piece, other) && along(piece, other) && level(piece, other))
          faults.push(`${piece.id} and ${other.id} lie in one another.`);
        const isBehind =
          level(piece, other) && [out, aside].some((swept) => beside(swept, other) && along(swept, other));
        const isUnder =
          other.z >= piece.z + piece.h - PACK_TOLERANCE && beside(piece, other) && along(piece, other);
        if (item.order < order && (isBehind || isUnder))
          faults.push(`${piece.id} is ${isBehind ? 'behind' : 'under'} ${other.id}, which is needed later.`);
        if (Math.abs(other.z + other.h - piece.z) > PACK_TOLERANCE || piece.z <= PACK_TOLERANCE) continue;
        if (!beside(piece, other) || !along(piece, other)) continue;
        const area =
          (Math.min(piece.x + piece.w, other.x + other.w) - Math.max(piece.x, other.x)) *
          (Math.min(piece.y + piece.d, other.y + other.d) - Math.max(piece.y, other.y));
        held += area;
        loads.set(other.id, (loads.get(other.id) ?? 0) + ((item.mass + load) * area) / (piece.w * piece.d));
        if (itemOf.get(other.id)?.bears === 0)
          faults.push(`${other.id} bears nothing, and ${piece.id} stands on it.`);
      }
      if (held < piece.w * piece.d * (1 - 1e-9)) faults.push(`${piece.id} stands partly on nothing.`);
    }
  }
  const ids = packed.map(({ id }) => id);
  if (new Set(ids).size < ids.length) faults.push('A piece is packed twice.');
  return faults;
}
