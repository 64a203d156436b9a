import {
  MM,
  MM_PER_PLATE,
  MM_PER_STUD,
  boundsOf,
  centreOf,
  containsPoint,
  intersection,
  outerSize,
  type Rect,
} from '../grid/index.ts';
import {
  areaBounds,
  labelOf,
  listOf,
  plotBounds,
  type Kind,
  type Plot,
  type Scene,
} from '../document/index.ts';
import {
  RAIL_PLATES,
  baseOf,
  fixedHeight,
  isLoose,
  listedMass,
  loadsOf,
  looseDecks,
  ridesOn,
  standsOn,
  tippingAngle,
  offMiddle,
  weightOf,
  type ListedMass,
  type OverSeam,
  type Relief,
} from '../terrain/index.ts';
import { currentContents, tableInStuds } from '../venue/index.ts';
import {
  TABLE_HEIGHT,
  moduleLift,
  moduleLoads,
  tippingOf,
  type ModuleLift,
  type ModuleLoad,
} from './lifting.ts';

// Everything that is carried by itself: the one list that passages, lifts, tables, tipping and the order of assembly
// speak of.

/** What a piece is. */
export type CarriedKind = 'module' | 'building' | 'part' | 'deck' | 'track' | 'run' | 'repeat';

export interface CarriedPiece {
  /** `module-…`, `building-…`, `part-…-n`, `deck-…`, `track-…-n` and the like: its thing, and its number in that. */
  id: string;
  name: string;
  /** Its name with what it is or belongs to: “module A1”, “roof of Chandler”. */
  title: string;
  kind: CarriedKind;
  /** The thing it is, or is a part of. */
  ref: { kind: Kind; id: string };
  /** Index of the building's part, or of the piece of what is laid in pieces; null: it is whole. */
  part: number | null;
  /** Where it is on the plan, studs. */
  area: Rect;
  /** As carried, upright and level, mm. */
  w: number;
  d: number;
  h: number;
  grams: number;
  /** Its centre of mass from its own west, north and foot, mm. */
  centre: { x: number; y: number; z: number };
  /** What it stands on; empty: nothing that is known. */
  on: { kind: Kind; id: string; name: string }[];
  /** Ids of the pieces that come off before it is carried. */
  first: string[];
  lift: ModuleLift;
  /** Degrees it may lean before it tips. */
  tips: number;
  /** Its mass is that of counted ground, of a list, or a guess. */
  basis: 'counted' | 'listed' | 'guess';
}

/**
 * Everything that is carried by itself: modules with what is fixed to them, loose buildings, parts that lift off, and
 * decks that lift off, with the buildings pinned to them; pieces of track, panels of fences and members of repeats that
 * lie over seams. Trees and figures are taken off too and are not among them.
 * @param modules where they are weighed already
 */
export function carriedPieces(
  scene: Scene,
  relief: Relief,
  modules: readonly ModuleLoad[] = moduleLoads(scene, relief),
): CarriedPiece[] {
  const pieces = [
    ...modules.map((load) => modulePiece(scene, relief, load)),
    ...deckPieces(scene, relief),
    ...buildingPieces(scene, relief),
    ...loadsOf(scene, relief).overSeams.map((piece) => seamPiece(scene, piece)),
  ];
  const byId = new Map(pieces.map((piece) => [piece.id, piece]));
  const listed = listedMass(scene);
  for (const plot of listOf(scene, 'plot')) addRider(scene, relief, byId, plot, listed);
  for (const piece of pieces)
    for (const under of piece.on) {
      const below = pieces.find(
        ({ ref, part }) => ref.kind === under.kind && ref.id === under.id && part === null,
      );
      // What stands on the table of a module, or on a wall that stays, does not hold that back.
      if (below && below !== piece) below.first.push(piece.id);
    }
  // A module is free when all that stands on it is off, over how many others it may lie.
  for (const piece of pieces)
    if (piece.kind === 'part') {
      const host = byId.get(idOf('building', piece.ref.id));
      if (host) host.first.push(piece.id);
      else
        for (const { id } of modulesUnder(scene, ...areaBounds(scene.plot[piece.ref.id])))
          byId.get(idOf('module', id))?.first.push(piece.id);
    }
  for (const piece of pieces) piece.first = [...new Set(piece.first)];
  return pieces;
}

const idOf = (kind: CarriedKind, id: string, part: number | null = null): string =>
  part === null ? `${kind}-${id}` : `${kind}-${id}-${part + 1}`;

const refOf = (scene: Scene, kind: Kind, id: string) => ({ kind, id, name: labelOf(scene, kind, id) });

function modulePiece(scene: Scene, relief: Relief, load: ModuleLoad): CarriedPiece {
  const module = scene.module[load.id];
  const play = (MM_PER_STUD * module.w - outerSize(module.w) / MM) / 2;
  return {
    ...{ id: idOf('module', load.id), name: load.name, kind: 'module', part: null, area: module },
    title: labelOf(scene, 'module', load.id),
    ref: { kind: 'module', id: load.id },
    w: outerSize(module.w) / MM,
    d: outerSize(module.d) / MM,
    h: load.tall,
    grams: 1000 * load.bulk.kg,
    centre: {
      x: (load.bulk.x - module.x) * MM_PER_STUD - play,
      y: (load.bulk.y - module.y) * MM_PER_STUD - play,
      z: load.bulk.z,
    },
    on: load.tables.map(({ table }) => refOf(scene, 'table', table.id)),
    first: [],
    ...{ lift: load.lift, tips: load.tips },
    basis: relief.counted ? 'counted' : 'guess',
  };
}

/** Modules under some areas. */
const modulesUnder = (scene: Scene, ...areas: readonly Rect[]) =>
  listOf(scene, 'module')
    .filter((module) => areas.some((area) => intersection(module, area)))
    .map(({ id }) => refOf(scene, 'module', id));

/** Where a thing is lifted from, mm above the floor: its foot over the table under its middle. */
function liftedFrom(scene: Scene, { x, y }: { x: number; y: number }, foot: number): number {
  const table = currentContents(scene, 'table').find((one) => containsPoint(tableInStuds(scene, one), x, y));
  return (table?.height ?? TABLE_HEIGHT) + Math.max(0, foot) * MM_PER_PLATE;
}

function deckPieces(scene: Scene, relief: Relief): CarriedPiece[] {
  return looseDecks(scene, relief).map((deck): CarriedPiece => {
    const { area } = deck;
    const z = (deck.z - deck.low) * MM_PER_PLATE;
    const kg = deck.grams / 1000;
    return {
      ...{
        id: idOf('deck', deck.id),
        name: deck.name,
        title: deck.name,
        kind: 'deck',
        part: null,
        ref: { kind: 'deck', id: deck.id },
        area,
      },
      w: outerSize(area.w) / MM,
      d: outerSize(area.d) / MM,
      h: (deck.high - deck.low) * MM_PER_PLATE,
      grams: deck.grams,
      centre: { x: (deck.x - area.x) * MM_PER_STUD, y: (deck.y - area.y) * MM_PER_STUD, z },
      on: modulesUnder(scene, area),
      first: [],
      lift: moduleLift(kg, area, liftedFrom(scene, deck, deck.low)),
      tips: tippingOf(area, { kg, x: deck.x, y: deck.y, z }),
      basis: 'guess',
    };
  });
}

function buildingPieces(scene: Scene, relief: Relief): CarriedPiece[] {
  return loadsOf(scene, relief).pieces.flatMap((loose): CarriedPiece[] => {
    const plot = scene.plot[loose.plot];
    if (!plot) return [];
    const foot = standsOn(scene, relief, plot) ?? 0;
    // Parts are listed from the top down: under this one lie all that come after it, and the building.
    const below =
      loose.part === null
        ? 0
        : plot.height - plot.parts.slice(0, loose.part + 1).reduce((sum, { height }) => sum + height, 0);
    const base = baseOf(relief, plot);
    const under =
      loose.part !== null
        ? [refOf(scene, 'plot', plot.id)]
        : base.kind === 'ground' ||
            base.kind === 'cavity' ||
            base.kind === 'run' ||
            (base.kind === 'deck' && !scene.deck[base.id]?.loose)
          ? modulesUnder(scene, ...areaBounds(plot))
          : [refOf(scene, base.kind, base.id)];
    const middle = centreOf(plot);
    const next = loose.part === null || loose.part === 0 ? [] : [idOf('part', plot.id, loose.part - 1)];
    return [
      {
        id: idOf(loose.part === null ? 'building' : 'part', plot.id, loose.part),
        name: loose.name,
        title: loose.part === null ? loose.name : `${loose.name} of ${plot.name}`,
        kind: loose.part === null ? 'building' : 'part',
        ref: { kind: 'plot', id: plot.id },
        part: loose.part,
        area: plotBounds(plot),
        ...{ w: loose.w, d: loose.d, h: loose.h, grams: loose.grams },
        centre: loose.centre,
        on: under,
        first: next,
        lift: moduleLift(loose.grams / 1000, plot, liftedFrom(scene, middle, foot + below)),
        tips: loose.tips,
        basis: loose.listed ? 'listed' : 'guess',
      },
    ];
  });
}

/** A piece of track, a panel or a member of a repeat that lies over a seam: as it lies along the line of its ends. */
function seamPiece(scene: Scene, piece: OverSeam): CarriedPiece {
  const { ref, index, line, across, low, high, grams } = piece;
  const [from, to] = [line[0], line[line.length - 1]];
  const angle = Math.atan2(to.y - from.y, to.x - from.x);
  const corners = stripCorners(line, across / 2);
  const area = boundsOf(corners);
  const box = boundsOf(corners.map(({ x, y }) => turned(x, y, -angle)));
  // Track that climbs lies flat when it is carried.
  const climbs = ref.kind === 'track' ? (high - low - RAIL_PLATES) * MM_PER_PLATE : 0;
  const w = Math.hypot(outerSize(box.w) / MM, climbs);
  const [d, h] = [outerSize(box.d) / MM, (high - low) * MM_PER_PLATE - climbs];
  return {
    id: idOf(ref.kind, ref.id, index),
    name: `${labelOf(scene, ref.kind, ref.id)} ${index + 1}`,
    title: `${wordOfPiece(scene, ref)} ${index + 1} of ${labelOf(scene, ref.kind, ref.id)}`,
    ...{ kind: ref.kind, ref, part: index, area, w, d, h, grams },
    centre: { x: w / 2, y: d / 2, z: h / 2 },
    on: piece.modules.map((id) => refOf(scene, 'module', id)),
    first: [],
    lift: moduleLift(grams / 1000, box, liftedFrom(scene, centreOf(area), low)),
    tips: tippingAngle(Math.min(w, d) / 2, h / 2),
    basis: 'guess',
  };
}

/**
 * Points of both sides of a strip along a line, of no size: exact where the line's points lie evenly on an arc, whose
 * tangents halve the angle between two chords.
 * @param half its width, studs
 */
function stripCorners(line: OverSeam['line'], half: number): Rect[] {
  const angles = line.slice(1).map(({ x, y }, i) => Math.atan2(y - line[i].y, x - line[i].x));
  const bends = angles
    .slice(1)
    .map((angle, i) => Math.atan2(Math.sin(angle - angles[i]), Math.cos(angle - angles[i])));
  return line.flatMap(({ x, y }, i) => {
    const tangent =
      i < angles.length
        ? angles[i] - (bends[i - 1] ?? bends[i] ?? 0) / 2
        : angles[i - 1] + (bends[i - 2] ?? 0) / 2;
    const [u, v] = [-Math.sin(tangent) * half, Math.cos(tangent) * half];
    return [
      { x: x + u, y: y + v, w: 0, d: 0 },
      { x: x - u, y: y - v, w: 0, d: 0 },
    ];
  });
}

const turned = (x: number, y: number, angle: number): Rect => ({
  x: x * Math.cos(angle) - y * Math.sin(angle),
  y: x * Math.sin(angle) + y * Math.cos(angle),
  w: 0,
  d: 0,
});

/** What one of the pieces is that a thing is laid in. */
function wordOfPiece(scene: Scene, { kind, id }: OverSeam['ref']): string {
  if (kind === 'track') return 'piece';
  const use = kind === 'repeat' ? scene.repeat[id].use : 'panel';
  return use === 'other' ? 'piece' : use;
}

/** Adds a building that is pinned to something that lifts off to that piece: its mass, its height, the centre of both. */
function addRider(
  scene: Scene,
  relief: Relief,
  pieces: ReadonlyMap<string, CarriedPiece>,
  plot: Plot,
  listed: ListedMass,
): void {
  const host = ridesOn(scene, relief, plot);
  const height = fixedHeight(plot);
  if (!host || height === 0 || isLoose(plot)) return;
  const under = host.kind === 'plot' ? scene.plot[host.id] : undefined;
  // On a building with parts it stands on the uppermost.
  const piece = pieces.get(
    host.kind === 'deck'
      ? idOf('deck', host.id)
      : under && under.parts.length > 0
        ? idOf('part', host.id, 0)
        : idOf('building', host.id),
  );
  if (!piece) return;
  const weight = weightOf(plot, listed, height);
  const { grams, z } = weight;
  const off = offMiddle(plot, weight);
  const own = piece.area;
  const middle = centreOf(plot);
  const at = {
    x: (middle.x + off.x - own.x) * MM_PER_STUD,
    y: (middle.y + off.y - own.y) * MM_PER_STUD,
    z: piece.h + z * MM_PER_PLATE,
  };
  const sum = piece.grams + grams;
  const mean = (a: number, b: number) => (a * piece.grams + b * grams) / sum;
  const { x, y, z: up } = piece.centre;
  piece.centre = { x: mean(x, at.x), y: mean(y, at.y), z: mean(up, at.z) };
  piece.grams = sum;
  piece.h += height * MM_PER_PLATE;
  const { centre, w, d } = piece;
  const half = Math.max(0, Math.min(centre.x, w - centre.x, centre.y, d - centre.y));
  piece.tips = tippingAngle(half, centre.z);
  piece.lift = moduleLift(sum / 1000, own, piece.lift.one.task.vertical * 10);
}
