import { formatPlates, type Rect } from '@quarry/core/grid';
import { membersOf, plantsOf, type Plant } from '@quarry/core/terrain';
import { wallCorners, listOf, plotBounds, type Entity, type Planting } from '@quarry/core/document';
import { MONO, SANS, halo, hatch, inStuds, plate, visible, wrap, type Picture } from './ink.ts';
import { toScreen } from './viewport.ts';

type Ctx = CanvasRenderingContext2D;

export function drawPlots(ctx: Ctx, picture: Picture): void {
  const { palette, view } = picture;
  const fills = new Path2D();
  const walls = new Path2D();
  const labelled: { name: string; on: Rect; note: string; hatched: boolean }[] = [];
  for (const plot of listOf(picture.scene, 'plot')) {
    const on = visible(picture, plotBounds(plot));
    if (!on) continue;
    outline(fills, picture, plot);
    // Walls too thin to be seen are left out.
    const wall = plot.wall * view.scale > 1.2 ? plot.wall : 0;
    if (wall > 0 && plot.w > 4 * wall && plot.d > 4 * wall)
      outline(walls, picture, {
        ...plot,
        x: plot.x + wall,
        y: plot.y + wall,
        w: plot.w - 2 * wall,
        d: plot.d - 2 * wall,
      });
    if (on.w > 26 && on.d > 12)
      labelled.push({
        name: plot.name,
        on,
        note: `${formatPlates(plot.height)} tall`,
        hatched: plot.turn % 90 === 0,
      });
  }
  ctx.fillStyle = palette.sheet;
  ctx.fill(fills);
  ctx.strokeStyle = palette.line;
  ctx.lineWidth = 0.7;
  ctx.beginPath();
  const inset = view.scale > 1.2 ? view.scale : 0;
  for (const { on, hatched } of labelled)
    if (hatched) hatch(ctx, { x: on.x + inset, y: on.y + inset, w: on.w - 2 * inset, d: on.d - 2 * inset });
  ctx.stroke();
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1.2;
  ctx.stroke(fills);
  ctx.lineWidth = 0.6;
  ctx.stroke(walls);
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  for (const { name, on, note } of labelled) {
    ctx.font = `500 11px ${SANS}`;
    const lines = wrap(ctx, name, on.w - 8, Math.trunc((on.d - 4) / 13));
    const tall = on.d > lines.length * 13 + 22 && on.w > 56;
    const top = on.y + on.d / 2 - ((lines.length - 1) * 13) / 2 - (tall ? 6 : 0);
    lines.forEach((line, i) => plate(ctx, line, on.x + on.w / 2, top + i * 13, palette.ink, palette.sheet));
    if (!tall) continue;
    ctx.font = `10px ${MONO}`;
    plate(ctx, note, on.x + on.w / 2, top + lines.length * 13, palette.ink2, palette.sheet);
  }
}

function outline(path: Path2D, { view }: Picture, plot: Parameters<typeof wallCorners>[0]): void {
  wallCorners(plot).forEach((corner, i) => {
    const { x, y } = toScreen(view, corner.x, corner.y);
    if (i === 0) path.moveTo(x, y);
    else path.lineTo(x, y);
  });
  path.closePath();
}

/** Plants are worked out once for each planting: entities never change. */
const plants = new WeakMap<Planting, readonly Plant[]>();
const plantsIn = (planting: Planting): readonly Plant[] => {
  const known = plants.get(planting) ?? plantsOf(planting);
  plants.set(planting, known);
  return known;
};

/** Walls and fences, repeats, plants: what dresses the ground, seen from above. */
export function drawDressing(ctx: Ctx, picture: Picture): void {
  const { palette, scene, view } = picture;
  const px = 1 / view.scale;
  inStuds(ctx, picture, () => {
    ctx.strokeStyle = palette.ink;
    ctx.fillStyle = palette.sheet;
    ctx.lineWidth = 0.8 * px;
    for (const planting of listOf(scene, 'planting')) {
      if (!visible(picture, planting)) continue;
      ctx.setLineDash([1 * px, 3 * px]);
      ctx.strokeRect(planting.x, planting.y, planting.w, planting.d);
      ctx.setLineDash([]);
      for (const plant of plantsIn(planting)) crown(ctx, picture, plant.x, plant.y, plant.crown);
    }
    for (const tree of listOf(scene, 'tree')) crown(ctx, picture, tree.x, tree.y, tree.crown);
    for (const run of listOf(scene, 'run')) {
      ctx.lineWidth = Math.max(run.use === 'wall' || run.use === 'hedge' ? run.thick : 0, 1.6 * px);
      ctx.strokeStyle = run.use === 'hedge' ? palette.ink2 : palette.ink;
      ctx.setLineDash(
        run.use === 'hedge' ? [2.5 * px, 1.5 * px] : run.use === 'fence' ? [5 * px, 2 * px] : [],
      );
      ctx.beginPath();
      run.points.forEach(({ x, y }, i) => (i === 0 ? ctx.moveTo(x, y) : ctx.lineTo(x, y)));
      ctx.stroke();
    }
    ctx.setLineDash([]);
    ctx.lineWidth = 1.2 * px;
    ctx.strokeStyle = palette.ink;
    const modules = listOf(scene, 'module');
    for (const repeat of listOf(scene, 'repeat')) {
      ctx.setLineDash([1 * px, 3 * px]);
      ctx.beginPath();
      repeat.points.forEach(({ x, y }, i) => (i === 0 ? ctx.moveTo(x, y) : ctx.lineTo(x, y)));
      ctx.stroke();
      ctx.setLineDash([]);
      const { members, dropped } = membersOf(repeat, modules);
      for (const { x, y, angle } of members) {
        ctx.save();
        ctx.translate(x, y);
        ctx.rotate(angle);
        const [w, d] = [Math.max(repeat.length, 4 * px), Math.max(1, 4 * px)];
        ctx.fillRect(-w / 2, -d / 2, w, d);
        ctx.strokeRect(-w / 2, -d / 2, w, d);
        ctx.restore();
      }
      // One that keeps off a seam is a cross where it would have stood.
      ctx.beginPath();
      for (const { x, y } of dropped)
        for (const lean of [1, -1]) {
          ctx.moveTo(x - 3 * px, y - 3 * px * lean);
          ctx.lineTo(x + 3 * px, y + 3 * px * lean);
        }
      ctx.stroke();
    }
  });
  for (const flag of listOf(scene, 'flag')) drawFlag(ctx, picture, flag);
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.font = `600 10px ${MONO}`;
  for (const figure of listOf(scene, 'figure')) {
    const { x, y } = toScreen(view, figure.x, figure.y);
    ctx.beginPath();
    ctx.arc(x, y, 8, 0, Math.PI * 2);
    ctx.fillStyle = figure.state === 'placed' ? palette.ink : palette.sheet;
    ctx.fill();
    ctx.lineWidth = 1.2;
    ctx.setLineDash(figure.state === 'idea' ? [2, 2] : []);
    ctx.strokeStyle = palette.ink;
    ctx.stroke();
    ctx.setLineDash([]);
    ctx.fillStyle = figure.state === 'placed' ? palette.sheet : palette.ink;
    ctx.fillText(String(figure.cast), x, y + 0.5);
  }
}

function crown(ctx: Ctx, picture: Picture, x: number, y: number, width: number): void {
  const { view } = picture;
  const px = 1 / view.scale;
  if (
    !visible(picture, { x: x - width / 2 - px, y: y - width / 2 - px, w: width + 2 * px, d: width + 2 * px })
  )
    return;
  ctx.beginPath();
  ctx.arc(x, y, Math.max(width / 2, 1.5 * px), 0, Math.PI * 2);
  if (width * view.scale > 5) ctx.fill();
  ctx.stroke();
  if (width * view.scale < 8) return;
  ctx.beginPath();
  for (const lean of [1, -1]) {
    ctx.moveTo(x - width * 0.18, y - width * 0.18 * lean);
    ctx.lineTo(x + width * 0.18, y + width * 0.18 * lean);
  }
  ctx.stroke();
}

/** Sixteenths of a turn clockwise from east, by the compass. */
const TURNS = { e: 0, se: 1, s: 2, sw: 3, w: 4, nw: 5, n: 6, ne: 7 } as const;

function drawFlag(ctx: Ctx, { palette, view }: Picture, flag: Entity<'flag'>): void {
  const { x, y } = toScreen(view, flag.x, flag.y);
  ctx.save();
  ctx.translate(x, y);
  ctx.rotate((TURNS[flag.heading] * Math.PI) / 4);
  ctx.beginPath();
  ctx.moveTo(2, -4);
  ctx.lineTo(15, 0);
  ctx.lineTo(2, 4);
  ctx.closePath();
  ctx.fillStyle = palette.iron;
  ctx.fill();
  ctx.beginPath();
  ctx.arc(0, 0, 2.5, 0, Math.PI * 2);
  ctx.fillStyle = palette.ink;
  ctx.fill();
  ctx.restore();
}

/** What is written on the plan for people: placeholders to be decided, and notes. */
export function drawSigns(ctx: Ctx, picture: Picture): void {
  const { palette, scene, view } = picture;
  ctx.textBaseline = 'middle';
  for (const marker of listOf(scene, 'marker')) {
    const on = visible(picture, marker);
    if (!on) continue;
    ctx.strokeStyle = palette.ochre;
    ctx.lineWidth = 1.4;
    ctx.setLineDash([4, 3]);
    ctx.strokeRect(on.x, on.y, on.w, on.d);
    ctx.setLineDash([]);
    ctx.font = `600 11px ${SANS}`;
    ctx.textAlign = 'center';
    const words = marker.state === 'open' ? `${marker.name} ?` : marker.name;
    const lines = on.w > 40 ? wrap(ctx, words, on.w - 6, Math.trunc(on.d / 13)) : ['?'];
    lines.forEach((line, i) =>
      halo(
        ctx,
        line,
        on.x + on.w / 2,
        on.y + on.d / 2 + (i - (lines.length - 1) / 2) * 13,
        palette.ochre,
        palette.sheet,
      ),
    );
  }
  ctx.font = `500 11px ${SANS}`;
  ctx.textAlign = 'left';
  for (const note of listOf(scene, 'note')) {
    const { x, y } = toScreen(view, note.x, note.y);
    ctx.fillStyle = palette.sheet;
    ctx.strokeStyle = palette.tarn;
    ctx.lineWidth = 1.2;
    ctx.beginPath();
    ctx.moveTo(x - 6, y - 7);
    ctx.lineTo(x + 2, y - 7);
    ctx.lineTo(x + 6, y - 3);
    ctx.lineTo(x + 6, y + 7);
    ctx.lineTo(x - 6, y + 7);
    ctx.closePath();
    ctx.fill();
    ctx.stroke();
    if (view.scale <= 2.5) continue;
    // To the other side where it would run off the scene.
    const east = toScreen(view, (picture.art?.relief.x ?? 0) + (picture.art?.relief.w ?? 0), 0).x;
    const west = x + 14 + ctx.measureText(note.name).width > east;
    ctx.textAlign = west ? 'right' : 'left';
    halo(ctx, note.name, x + (west ? -10 : 10), y, palette.tarn, palette.sheet);
  }
}
