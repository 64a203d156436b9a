import { partId, type Family } from '../catalogue/index.ts';
import { rimsOf } from '../cut/index.ts';
import { PLATES_PER_BRICK, present } from '../grid/index.ts';
import { bricksAlong, leavesOf, membersOf, plantsOf, runPieces } from '../terrain/index.ts';
import {
  appearances,
  characterAt,
  listOf,
  type Character,
  type Entity,
  type Repeat,
  type Scene,
  wallStraights,
} from '../document/index.ts';

// What stands on the plan, as parts: plants, figures, lamps, fences, track and bases.

export interface ThingLine {
  part: string;
  colour: string;
  qty: number;
  purpose: 'planting' | 'figures' | 'lights' | 'walls' | 'track' | 'rim';
  /** Where it stands, studs of the display; null: nowhere yet. */
  at: { x: number; y: number } | null;
  /** The thing it comes from. */
  from: string;
}

/** Plants come in a few sizes: the widest that the crown has room for. */
function plantPart(crown: number, height: number): string {
  const side = [6, 4, 2].find((size) => crown >= size) ?? 1;
  return partId('plant', side, side, side === 6 ? 24 : height > 6 ? 12 : 3);
}

/** Parts of one member of a repeat; empty when unknown. */
function memberParts({
  use,
  length,
  height,
}: Repeat): { purpose: ThingLine['purpose']; part: string; qty: number }[] {
  if (use === 'lamp') return [{ purpose: 'lights', part: partId('light', 1, 1), qty: 1 }];
  if (use === 'post')
    return [{ purpose: 'walls', part: partId('brick', 1, 1), qty: Math.max(1, Math.ceil(height / 3)) }];
  if (use === 'panel') {
    const tall = [18, 9, 3].find((one) => one <= height) ?? 3;
    return [
      {
        purpose: 'walls',
        part: partId('panel', length < 4 ? 2 : 4, 1, tall),
        qty: Math.ceil(length / (length < 4 ? 2 : 4)) * Math.max(1, Math.ceil(height / tall)),
      },
    ];
  }
  if (use === 'arch') {
    const span = [8, 6, 4, 3].find((one) => one <= length) ?? 3;
    const rise = height >= 6 ? 6 : 3;
    const piers = Math.max(0, Math.ceil((height - rise) / 3));
    return [
      { purpose: 'walls', part: partId('arch', 1, span, rise), qty: 1 },
      ...(piers > 0 ? [{ purpose: 'walls' as const, part: partId('brick', 1, 1), qty: 2 * piers }] : []),
    ];
  }
  return [];
}

/** Usual colours of walls, fences and hedges (ours, no source). */
const USUAL = { wall: 'pebble', hedge: 'fern', fence: 'bark', railing: 'bark' } as const;

/** A whole figure, of any kind. */
const FIGURE_PART = partId('figure', 2, 1);

/** Figures of a small scene that are no character: any will do. */
const unnamedFigures = (scene: Scene, { cast, spots }: Entity<'figure'>): number =>
  spots.length === 0
    ? cast
    : spots.filter((spot) => spot.form === 'figure' && characterAt(scene, spot) === null).length;

/**
 * The parts that one of a character still takes: what it wears, or a whole figure that is bought as it is. Nothing for one
 * that is ready, lent or looked for; nor for an animal or a vehicle whose parts nobody has told.
 */
export function wantedParts({ state, source, wears, form }: Character): Character['wears'] {
  if (state !== 'wanted' || source === 'own' || source === 'lent') return [];
  if (wears.length > 0) return wears;
  return form === 'figure' ? [{ part: FIGURE_PART, colour: 'any' }] : [];
}

/** Parts of what the plan sets out. Buildings are not among them: each has a list of its own. */
export function thingLines(scene: Scene): ThingLine[] {
  const lines: ThingLine[] = [];
  const add = (
    purpose: ThingLine['purpose'],
    part: string,
    colour: string,
    qty: number,
    at: ThingLine['at'],
    from: string,
  ) => void lines.push({ part, colour, qty, purpose, at: at && { x: at.x, y: at.y }, from });
  const piece = (family: Family, w: number, d: number, h?: number) => partId(family, w, d, h);
  const leaves = leavesOf(scene);
  for (const planting of listOf(scene, 'planting'))
    plantsOf(planting).forEach((plant, i) => {
      const colour = present(leaves.plants.get(planting.id)?.[i], 'the colour of a plant');
      add('planting', plantPart(plant.crown, plant.height), colour, 1, plant, planting.name);
    });
  for (const tree of listOf(scene, 'tree')) {
    const colour = present(leaves.trees.get(tree.id), 'the colour of a tree');
    add('planting', plantPart(tree.crown, tree.height), colour, 1, tree, tree.name);
  }
  for (const figure of listOf(scene, 'figure'))
    if (figure.state !== 'placed')
      add('figures', FIGURE_PART, 'any', unnamedFigures(scene, figure), figure, figure.name);
  const stands = appearances(scene);
  for (const character of listOf(scene, 'character'))
    for (const { part, colour } of wantedParts(character))
      add(
        'figures',
        part,
        colour,
        character.count,
        stands.get(character.id)?.[0]?.figure ?? null,
        character.name,
      );
  for (const sign of listOf(scene, 'signboard')) {
    const courses = [
      ['brick', Math.floor(sign.height / PLATES_PER_BRICK)],
      ['plate', sign.height % PLATES_PER_BRICK],
    ] as const;
    for (const [family, count] of courses)
      for (const { part, qty } of bricksAlong(sign.w, family))
        if (count > 0) add('walls', part, sign.colour, qty * count, sign, sign.name);
    const post = sign.on === 'post' ? Math.ceil(sign.up / PLATES_PER_BRICK) : 0;
    if (post > 0) add('walls', piece('brick', 1, 1), 'any', post, sign, sign.name);
  }
  for (const repeat of listOf(scene, 'repeat'))
    for (const member of membersOf(repeat, listOf(scene, 'module')).members)
      for (const { purpose, part, qty } of memberParts(repeat))
        add(
          purpose,
          part,
          repeat.colour ?? (purpose === 'lights' ? 'any' : 'pebble'),
          qty,
          member,
          repeat.name,
        );
  for (const run of listOf(scene, 'run'))
    for (const straight of wallStraights(run)) {
      const { from, to } = straight;
      const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
      const wall = run.colour ?? USUAL[run.use];
      const colours = { wall, front: run.archColour ?? wall, opening: run.letInColour };
      for (const { part, qty, of } of runPieces(run, straight))
        add('walls', part, colours[of], qty, middle, run.name);
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
