import { MM_PER_PLATE, MM_PER_STUD } from '../src/grid/index.ts';
import { listOf, padsInOrder, type Area, type Scene } from '../src/document/index.ts';

/**
 * The relief by slow, independent code, for tests and benchmarks: stud by stud, thing by thing, borders found by
 * halving, footprints of turned buildings by clipping. It knows pads with edges, hills, hollows, ways, buildings
 * and trees. `ties` are the studs whose height lies so near to a half that either plate is right.
 */
export function slowRelief(scene: Scene): { height: number[]; top: number[]; ties: Set<number> } {
  const ties = new Set<number>();
  const [part] = listOf(scene, 'footprint');
  const at = (x: number, y: number) =>
    x >= part.x && y >= part.y && x < part.x + part.w && y < part.y + part.d;
  const land = new Map<string, number>();
  const grid: [number, number][] = [];
  for (let y = part.y; y < part.y + part.d; y++)
    for (let x = part.x; x < part.x + part.w; x++) grid.push([x, y]);
  const level = ({ level: id, offset }: { level: string; offset: number }) => scene.level[id].height + offset;

  const crests = new Map<object, number>();
  const unsure = new Set<object>();
  for (const form of [...listOf(scene, 'hill'), ...listOf(scene, 'hollow')])
    crests.set(
      form,
      crestOf(form, () => unsure.add(form)),
    );
  for (const [x, y] of grid) {
    const p = { x: x + 0.5, y: y + 0.5 };
    const tied = () => ties.add((y - part.y) * part.w + x - part.x);
    let height = 0;
    for (const pad of padsInOrder(scene)) {
      const flat = level(pad);
      if (within(pad, p)) height = flat;
      else if (pad.shape === 'rect' && height !== flat) {
        const out: { by: number; edge: (typeof pad.edges)['n'] }[] = [];
        if (p.x < pad.x) out.push({ by: pad.x - p.x, edge: pad.edges.w });
        if (p.x >= pad.x + pad.w) out.push({ by: p.x - pad.x - pad.w, edge: pad.edges.e });
        if (p.y < pad.y) out.push({ by: pad.y - p.y, edge: pad.edges.n });
        if (p.y >= pad.y + pad.d) out.push({ by: p.y - pad.y - pad.d, edge: pad.edges.s });
        const leads = out.every(
          ({ by, edge }) => by <= pad.reach && ['slope', 'terrace'].includes(edge.kind),
        );
        if (leads && pad.reach > 0) {
          let bricks = 0;
          for (const { by, edge } of out) bricks = Math.max(bricks, by / edge.run);
          const drop = out.some(({ edge }) => edge.kind === 'terrace')
            ? Math.ceil(bricks) * 3
            : Math.round(bricks * 3);
          if (height < flat) height = flat - drop > height ? flat - drop : height;
          else height = flat + drop < height ? flat + drop : height;
        }
      }
    }
    for (const hill of listOf(scene, 'hill')) {
      const up = within(hill, p) ? rise(hill, hill.height, crests.get(hill) ?? 1, p, tied) : 0;
      if (up > 0 && unsure.has(hill)) tied();
      if (up > 0) height = Math.max(height, level(hill) + up);
    }
    for (const hollow of listOf(scene, 'hollow')) {
      const down = within(hollow, p) ? rise(hollow, hollow.depth, crests.get(hollow) ?? 1, p, tied) : 0;
      if (down > 0 && unsure.has(hollow)) tied();
      if (down > 0) height = Math.min(height, level(hollow) - down);
    }
    land.set(`${x} ${y}`, height);
  }

  const ground = new Map(land);
  const groundOf = (x: number, y: number) => land.get(`${Math.floor(x)} ${Math.floor(y)}`) ?? null;
  for (const way of listOf(scene, 'way')) {
    const line = densely(way.points);
    const fixed = way.points.flatMap((point) =>
      point.z === null
        ? []
        : [{ along: line.find((s) => s.vertex === way.points.indexOf(point))?.along ?? 0, z: point.z }],
    );
    let last = line.map(({ x, y }) => groundOf(x, y)).find((z) => z !== null) ?? 0;
    let z = line.map(({ x, y, along }) => {
      if (fixed.length > 0) return interpolated(fixed, along);
      last = groundOf(x, y) ?? last;
      return last + way.rise;
    });
    if (fixed.length === 0 && way.onSteep === 'ramp') {
      const most = way.maxGrade / 100 / (MM_PER_PLATE / MM_PER_STUD);
      const stretch = (i: number, j: number) => Math.abs(line[i].along - line[j].along) * most;
      const mean = z.map((_, i) => {
        let [fill, cut] = [-Infinity, Infinity];
        z.forEach((other, j) => {
          fill = Math.max(fill, other - stretch(i, j));
          cut = Math.min(cut, other + stretch(i, j));
        });
        return (fill + cut) / 2;
      });
      // Between the mean and the ground: from the places where the ground crosses the mean, and from those beside them.
      const sign = (i: number) => (z[i] >= mean[i] ? 1 : -1);
      z = z.map((own, i) => {
        let best = own;
        const nearer = (other: number) =>
          (best = sign(i) > 0 ? Math.min(best, other) : Math.max(best, other));
        for (const step of [-1, 1])
          for (let j = i + step; j >= 0 && j < z.length; j += step) {
            if (sign(j) === sign(i)) {
              nearer(z[j] + sign(i) * stretch(i, j));
              continue;
            }
            const along = (stretch(i, j) + stretch(i, j - step)) / 2;
            nearer((mean[j] + mean[j - step]) / 2 + sign(i) * along);
            break;
          }
        return best;
      });
    }
    for (const [x, y] of grid) {
      const near = nearest(way.points, { x: x + 0.5, y: y + 0.5 }, way.width / 2);
      if (near === null) continue;
      const exact = interpolated(
        line.map((stop, i) => ({ along: stop.along, z: z[i] })),
        near,
      );
      if (Math.abs(exact - Math.floor(exact) - 0.5) < 1e-4) ties.add((y - part.y) * part.w + x - part.x);
      ground.set(`${x} ${y}`, plates(exact));
    }
  }

  const top = new Map(ground);
  for (const plot of listOf(scene, 'plot')) {
    const angle = (plot.turn * Math.PI) / 180;
    const [cx, cy] = [plot.x + plot.w / 2, plot.y + plot.d / 2];
    // Seen from the building, the stud is what is turned.
    const touched = grid.filter(([x, y]) => {
      const square = [
        [x, y],
        [x + 1, y],
        [x + 1, y + 1],
        [x, y + 1],
      ].map(([px, py]) => ({
        x: (px - cx) * Math.cos(angle) + (py - cy) * Math.sin(angle),
        y: (py - cy) * Math.cos(angle) - (px - cx) * Math.sin(angle),
      }));
      return clippedArea(square, plot.w / 2, plot.d / 2) > 1e-9;
    });
    const stands = Math.max(...touched.map(([x, y]) => ground.get(`${x} ${y}`) ?? -Infinity));
    for (const [x, y] of touched) top.set(`${x} ${y}`, stands + plot.height);
  }
  for (const tree of listOf(scene, 'tree')) {
    const [sx, sy] = [Math.floor(tree.x), Math.floor(tree.y)];
    if (!at(sx, sy)) continue;
    const reaches = (ground.get(`${sx} ${sy}`) ?? 0) + tree.height;
    for (const [x, y] of grid) {
      const key = `${x} ${y}`;
      const close = Math.hypot(x + 0.5 - tree.x, y + 0.5 - tree.y) <= Math.max(0.5, tree.crown / 2);
      if (close && reaches > (top.get(key) ?? 0)) top.set(key, reaches);
    }
  }
  const list = (map: Map<string, number>) => grid.map(([x, y]) => (map.get(`${x} ${y}`) ?? 0) + 0);
  return { height: list(ground), top: list(top), ties };
}

/** Ties are settled the same way whatever the last digits of a number say. */
const TIE = 1e-7;
const plates = (value: number) => Math.floor(value + 0.5 + TIE);

interface Point {
  x: number;
  y: number;
}

/** Whether a point lies in an area: of outlines by a ray to the west. */
function within(area: Area, p: Point): boolean {
  const { x, y, w, d } = area;
  if (area.shape === 'rect') return p.x >= x && p.y >= y && p.x < x + w && p.y < y + d;
  if (area.shape === 'oval') {
    const u = p.x - area.x - area.w / 2;
    const v = (2 * (p.y - area.y)) / area.d - 1;
    // On the chord as it is laid: west end in, east end out.
    const chord = (Math.sqrt(Math.max(0, 1 - v * v)) * area.w) / 2;
    return chord > 0 && u >= -chord - TIE && u < chord - TIE;
  }
  let inside = false;
  area.outline.forEach((from, i) => {
    const to = area.outline[(i + 1) % area.outline.length];
    const [a, b] = [from, to].map(({ x, y }) => ({ x: area.x + x * area.w, y: area.y + y * area.d }));
    if (a.y <= p.y !== b.y <= p.y && a.x + ((p.y - a.y) / (b.y - a.y)) * (b.x - a.x) <= p.x + TIE)
      inside = !inside;
  });
  return inside;
}

type Form = Area & Omit<Scene['hill'][string], 'height' | 'method'>;

function rise(form: Form, whole: number, crest: number, p: Point, tied: () => void): number {
  const { share } = shareOf(form, p, tied);
  // The studs nearest to the ridge are drawn up to it.
  const drawn = crest < 1e-7 ? 1 : Math.min(1, share + (1 - crest) * (share / crest) ** 8);
  const up = { even: drawn, convex: drawn * (2 - drawn), concave: drawn * drawn, sheer: 1 }[form.profile];
  const steps = form.terrace > 0 ? up * Math.ceil(whole / form.terrace) : up * whole + 0.5;
  if (Math.abs(steps - Math.round(steps)) < 1e-4) tied();
  // The outermost terrace stands on the outline, the last is what is left of the height.
  if (form.terrace > 0) return Math.min(whole, form.terrace * (1 + Math.floor(steps + TIE)));
  return Math.max(1, Math.min(whole, Math.floor(steps + TIE)));
}

function shareOf(form: Form, p: Point, tied: () => void): { far: number; share: number } {
  const a = { x: form.x + form.ridge.x1 * form.w, y: form.y + form.ridge.y1 * form.d };
  const b = { x: form.x + form.ridge.x2 * form.w, y: form.y + form.ridge.y2 * form.d };
  // The ridge's nearest point by trying: the distance to a segment has one valley.
  let [low, high] = [0, 1];
  const far = (s: number) => Math.hypot(p.x - a.x - s * (b.x - a.x), p.y - a.y - s * (b.y - a.y));
  for (let i = 0; i < 200; i++) {
    const [m, n] = [low + (high - low) / 3, high - (high - low) / 3];
    if (far(m) <= far(n)) high = n;
    else low = m;
  }
  const q = { x: a.x + low * (b.x - a.x), y: a.y + low * (b.y - a.y) };
  return { far: far(low), share: 1 - Math.min(1, out(form, q, p, tied)) };
}

/** The share of the way to the ridge of the stud that has the most, of those within two studs of it, of outlines of all; 1 without. */
function crestOf(form: Form, tied: () => void): number {
  let most = -1;
  for (let y = Math.floor(form.y) - 1; y < form.y + form.d + 1; y++)
    for (let x = Math.floor(form.x) - 1; x < form.x + form.w + 1; x++) {
      const p = { x: x + 0.5, y: y + 0.5 };
      let unsure = false;
      const { far, share } = shareOf(form, p, () => (unsure = true));
      if (!within(form, p) || (form.shape !== 'outline' && far > 2 + 1e-9)) continue;
      most = Math.max(most, share);
      if (unsure) tied();
    }
  return most < 0 ? 1 : most;
}

/** The way out: of convex areas by halving, of outlines as the first crossing beyond the point. */
function out(form: Form, q: Point, p: Point, tied: () => void): number {
  const [dx, dy] = [p.x - q.x, p.y - q.y];
  if (Math.hypot(dx, dy) < 1e-9) return 0;
  if (form.shape === 'outline') {
    const corners = form.outline.map(({ x, y }) => ({ x: form.x + x * form.w, y: form.y + y * form.d }));
    const hits = corners.flatMap((a, i) => {
      const b = corners[(i + 1) % corners.length];
      // q + k d = a + m (b − a), by Cramer's rule.
      const whole = dx * (a.y - b.y) - dy * (a.x - b.x);
      if (whole === 0) return [];
      const k = ((a.x - q.x) * (a.y - b.y) - (a.y - q.y) * (a.x - b.x)) / whole;
      const m = (dx * (a.y - q.y) - dy * (a.x - q.x)) / whole;
      // Through a corner, or on the border: the last digits decide.
      if (Math.abs(m) < 1e-6 || Math.abs(m - 1) < 1e-6 || Math.abs(k - 1) < 1e-6) tied();
      return m >= 0 && m <= 1 && k > 0 ? [k] : [];
    });
    const beyond = hits.filter((k) => k >= 1);
    return beyond.length > 0 ? 1 / Math.min(...beyond) : 1 / Math.max(...hits, 1);
  }
  const inside = (k: number) => {
    const [x, y] = [q.x + k * dx, q.y + k * dy];
    if (form.shape === 'oval')
      return ((2 * (x - form.x)) / form.w - 1) ** 2 + ((2 * (y - form.y)) / form.d - 1) ** 2 <= 1;
    return x >= form.x && x <= form.x + form.w && y >= form.y && y <= form.y + form.d;
  };
  let [low, high] = [1, 1 + (2 * (form.w + form.d)) / Math.hypot(dx, dy)];
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (inside(middle)) low = middle;
    else high = middle;
  }
  return 1 / low;
}

interface Stop extends Point {
  along: number;
  vertex: number | null;
}

function densely(points: readonly Point[]): Stop[] {
  const stops: Stop[] = [{ ...points[0], along: 0, vertex: 0 }];
  let begun = 0;
  for (let i = 1; i < points.length; i++) {
    const length = Math.hypot(points[i].x - points[i - 1].x, points[i].y - points[i - 1].y);
    const parts = Math.max(1, Math.ceil(length));
    for (let part = 1; part <= parts; part++) {
      const s = part / parts;
      stops.push({
        x: points[i - 1].x + s * (points[i].x - points[i - 1].x),
        y: points[i - 1].y + s * (points[i].y - points[i - 1].y),
        along: begun + s * length,
        vertex: part === parts ? i : null,
      });
    }
    begun += length;
  }
  return stops;
}

function interpolated(marks: readonly { along: number; z: number }[], along: number): number {
  if (along <= marks[0].along) return marks[0].z;
  for (let i = 1; i < marks.length; i++)
    if (along <= marks[i].along) {
      const [a, b] = [marks[i - 1], marks[i]];
      return b.along === a.along ? a.z : a.z + ((b.z - a.z) * (along - a.along)) / (b.along - a.along);
    }
  return marks[marks.length - 1].z;
}

/** How far along a line the place nearest to a point is, when the point lies on the strip; null when it does not. */
function nearest(points: readonly Point[], p: Point, half: number): number | null {
  let best: { off: number; along: number } | null = null;
  let begun = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (length === 0) continue;
    const angle = Math.atan2(b.y - a.y, b.x - a.x);
    const t = (p.x - a.x) * Math.cos(angle) + (p.y - a.y) * Math.sin(angle);
    const side = (p.x - a.x) * Math.sin(angle) - (p.y - a.y) * Math.cos(angle);
    const found =
      t >= -TIE && t < length - TIE && side > TIE - half && side <= half + TIE
        ? { off: Math.abs(side), along: begun + t }
        : i < points.length - 1 && t >= length - TIE && Math.hypot(p.x - b.x, p.y - b.y) < half - TIE
          ? { off: Math.hypot(p.x - b.x, p.y - b.y), along: begun + length }
          : null;
    if (found && (!best || found.off < best.off - TIE)) best = found;
    begun += length;
  }
  return best && best.along;
}

/** Area of a polygon inside a rectangle of ±w and ±d, by clipping side after side. */
function clippedArea(polygon: Point[], w: number, d: number): number {
  const sides: ((p: Point) => number)[] = [(p) => w - p.x, (p) => w + p.x, (p) => d - p.y, (p) => d + p.y];
  let points = polygon;
  for (const inside of sides)
    points = points.flatMap((a, i) => {
      const b = points[(i + 1) % points.length];
      const [da, db] = [inside(a), inside(b)];
      const cut = { x: a.x + ((b.x - a.x) * da) / (da - db), y: a.y + ((b.y - a.y) * da) / (da - db) };
      return [...(da >= 0 ? [a] : []), ...(da >= 0 !== db >= 0 ? [cut] : [])];
    });
  let twice = 0;
  points.forEach((a, i) => {
    const b = points[(i + 1) % points.length];
    twice += a.x * b.y - b.x * a.y;
  });
  return Math.abs(twice) / 2;
}
