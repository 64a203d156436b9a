import { intersection, type Rect } from '@quarry/core/grid';
import { OUTSIDE, type Relief } from '@quarry/core/terrain';

const known = new WeakMap<Relief, { of: readonly Rect[]; spots: ReturnType<typeof spotHeights> }>();

/** The highest ground of each of some areas; looked for once a relief. Plates. */
export function spotHeights(
  relief: Relief,
  areas: readonly Rect[],
): { x: number; y: number; height: number }[] {
  const before = known.get(relief);
  if (before?.of.length === areas.length && before.of.every((area, i) => area === areas[i]))
    return before.spots;
  const spots = areas.flatMap((area) => {
    const spot = highest(relief, area);
    return spot ? [spot] : [];
  });
  known.set(relief, { of: areas, spots });
  return spots;
}

/** The stud of a section's highest ground that is nearest to the middle of all such studs; plates. */
function highest(relief: Relief, section: Rect): { x: number; y: number; height: number } | null {
  const area = intersection(section, relief);
  if (!area) return null;
  let top: { x: number; y: number }[] = [];
  let high = -32_768;
  for (let y = Math.ceil(area.y); y < area.y + area.d; y++)
    for (let x = Math.ceil(area.x); x < area.x + area.w; x++) {
      const i = (y - relief.y) * relief.w + x - relief.x;
      const height = relief.height[i] ?? high;
      if (relief.ground[i] === OUTSIDE || height < high) continue;
      if (height > high) [high, top] = [height, []];
      top.push({ x: x + 0.5, y: y + 0.5 });
    }
  if (top.length === 0) return null;
  const middle = {
    x: top.reduce((sum, { x }) => sum + x, 0) / top.length,
    y: top.reduce((sum, { y }) => sum + y, 0) / top.length,
  };
  const far = ({ x, y }: { x: number; y: number }) => Math.hypot(x - middle.x, y - middle.y);
  const nearest = top.reduce((best, stud) => (far(stud) < far(best) ? stud : best));
  return { ...nearest, height: high };
}
