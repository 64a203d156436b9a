import { partId, type Family } from '../catalogue/index.ts';
import { rimsOf } from '../cut/index.ts';
import { membersOf, plantsOf } from '../relief/index.ts';
import { listOf, type Scene } from '../scene/index.ts';

/** What stands on the plan, as parts: plants, figures, lamps, fences, track and bases. */

export interface ThingLine {
  part: string;
  colour: string;
  qty: number;
  purpose: 'planting' | 'figures' | 'lights' | 'walls' | 'track' | 'rim';
  /** Where it stands, studs of the display. */
  x: number;
  y: number;
  /** The thing it comes from. */
  from: string;
}

/** Plants come in a few sizes: the widest that the crown has room for. */
function plantPart(crown: number, height: number): string {
  const side = [6, 4, 2].find((size) => crown >= size) ?? 1;
  return partId('plant', side, side, side === 6 ? 24 : height > 6 ? 12 : 3);
}
const SEASON_COLOURS: Record<string, string> = {
  any: 'fern',
  spring: 'willow',
  summer: 'fern',
  autumn: 'rust',
  winter: 'bark',
};

/** Parts of what the plan sets out. Buildings are not among them: each has a list of its own. */
export function thingLines(scene: Scene): ThingLine[] {
  const lines: ThingLine[] = [];
  const add = (
    purpose: ThingLine['purpose'],
    part: string,
    colour: string,
    qty: number,
    { x, y }: { x: number; y: number },
    from: string,
  ) => void lines.push({ part, colour, qty, purpose, x, y, from });
  const piece = (family: Family, w: number, d: number, h?: number) => partId(family, w, d, h);
  for (const planting of listOf(scene, 'planting'))
    for (const plant of plantsOf(planting))
      add(
        'planting',
        plantPart(plant.crown, plant.height),
        SEASON_COLOURS[planting.mix[plant.kind].season],
        1,
        plant,
        planting.name,
      );
  for (const tree of listOf(scene, 'tree'))
    add('planting', plantPart(tree.crown, tree.height), SEASON_COLOURS[tree.season], 1, tree, tree.name);
  for (const figure of listOf(scene, 'figure'))
    if (figure.state !== 'placed')
      add('figures', piece('figure', 1, 2), 'any', figure.cast, figure, figure.name);
  for (const repeat of listOf(scene, 'repeat'))
    if (repeat.use === 'lamp')
      for (const member of membersOf(repeat, listOf(scene, 'module')).members)
        add('lights', piece('light', 1, 1), 'any', 1, member, repeat.name);
  for (const run of listOf(scene, 'run')) {
    if (run.use === 'hedge') continue;
    for (let i = 1; i < run.points.length; i++) {
      const [a, b] = [run.points[i - 1], run.points[i]];
      const length = Math.hypot(b.x - a.x, b.y - a.y);
      const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
      const count = Math.ceil(length / 4);
      if (count === 0) continue;
      if (run.use === 'wall')
        add(
          'walls',
          piece('brick', 1, 4),
          'pebble',
          count * Math.max(1, Math.round(run.height / 3)),
          middle,
          run.name,
        );
      else add('walls', piece('fence', 4, 1), 'bark', count, middle, run.name);
    }
  }
  for (const { module, pieces } of rimsOf(scene))
    for (const { part, qty } of pieces)
      add('rim', part, 'any', qty, { x: module.x + module.w / 2, y: module.y + module.d / 2 }, module.name);
  for (const track of listOf(scene, 'track'))
    for (const { go, length } of track.pieces) {
      const short = go === 'straight' && length <= 8;
      const count = go === 'straight' ? Math.ceil(length / 16) : 1;
      add('track', piece('track', 8, short ? 8 : 16), 'mist', count, track, track.name);
    }
  return lines;
}
