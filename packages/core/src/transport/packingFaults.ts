import { PACK_TOLERANCE, type Packed, type PackItem, type PackSpace } from './packItem.ts';

/**
 * What is wrong with a packing, each fault in words; none: it holds. Written from the definitions, apart from the search:
 * each pair of pieces is looked at by itself, loads go down from the highest.
 */
export function packingFaults(
  items: readonly PackItem[],
  space: PackSpace,
  packed: readonly Packed[],
): string[] {
  const itemOf = new Map(items.map((item) => [item.id, item]));
  const faults: string[] = [];
  const lies = (a: number, b: number, c: number, d: number) =>
    Math.min(b, d) - Math.max(a, c) > PACK_TOLERANCE;
  const beside = (a: Packed, b: Packed) => lies(a.x, a.x + a.w, b.x, b.x + b.w);
  const level = (a: Packed, b: Packed) => lies(a.z, a.z + a.h, b.z, b.z + b.h);
  const along = (a: Packed, b: Packed) => lies(a.y, a.y + a.d, b.y, b.y + b.d);
  for (const trip of new Set(packed.map((piece) => piece.trip))) {
    const pieces = packed.filter((piece) => piece.trip === trip);
    const mass = pieces.reduce((sum, { id }) => sum + (itemOf.get(id)?.mass ?? 0), 0);
    if (mass > (space.maxMass ?? Infinity)) faults.push(`Trip ${trip} carries ${mass} g.`);
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
        ...[piece.x + piece.w - space.w, piece.y + piece.d - space.d, piece.z + piece.h - space.h],
      ];
      if (Math.max(...reaches) > PACK_TOLERANCE) faults.push(`${piece.id} stands outside.`);
      const load = loads.get(piece.id) ?? 0;
      if (load > item.bears * (1 + 1e-9)) faults.push(`${piece.id} bears ${load} g.`);
      let held = piece.z <= PACK_TOLERANCE ? piece.w * piece.d : 0;
      for (const other of pieces) {
        if (other === piece) continue;
        const order = itemOf.get(other.id)?.order ?? item.order;
        if (beside(piece, other) && along(piece, other) && level(piece, other))
          faults.push(`${piece.id} and ${other.id} lie in one another.`);
        const isBehind =
          other.y + other.d <= piece.y + PACK_TOLERANCE && beside(piece, other) && level(piece, other);
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
