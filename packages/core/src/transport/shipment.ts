import { MM_PER_PLATE, MM_PER_STUD, containsPoint } from '../grid/index.ts';
import {
  castCount,
  displayOf,
  idFor,
  listOf,
  postedBoards,
  type Entity,
  type Handling,
  type Kind,
  type Passage,
  type Scene,
} from '../document/index.ts';
import { moduleLift, type CarriedPiece, type ModuleLift } from '../cut/index.ts';
import type { BuildUp } from '../assembly/index.ts';
import { GRAMS_PER_STUD_PLATE } from '../terrain/index.ts';
import { stopperOf, wayOf } from '../venue/index.ts';
import type { PackItem, PackSpace } from './packItem.ts';
import { crated, type Content, type CrateSize } from './crates.ts';

// Everything that goes into a vehicle: what is carried by itself, bare or in a crate, and what is brought along.

/** One thing that is put into a vehicle. */
export interface LoadUnit {
  /** `module-…`, `building-…`, `crate-…-n`, `cargo-…-n` and the like; the same as long as the plan is. */
  key: string;
  name: string;
  /** What it opens on the plan; null: nothing. */
  ref: { kind: Kind; id: string } | null;
  /** As it travels, mm, without the air about it. */
  w: number;
  d: number;
  h: number;
  grams: number;
  /** Grams it bears on top. */
  bears: number;
  /** When it is needed at the place: 1 first. */
  order: number;
  lift: ModuleLift;
  /** It rolls on wheels of its own. */
  wheels: boolean;
  /** What is in it; empty: it travels bare. */
  holds: Content[];
  handling: Handling | null;
}

/** A vehicle of the access route that things are loaded in. */
export interface Carrier {
  id: string;
  name: string;
  space: PackSpace;
  trips: number;
  /** Person who drives; null: nobody yet. */
  driver: string | null;
}

/** What is to be loaded, and into what. */
export interface Shipment {
  units: LoadUnit[];
  /** The largest first. */
  carriers: Carrier[];
  /** Vehicles whose inside is not known: nothing can be loaded in them. */
  unknown: string[];
  /** What is in no crate though it cannot travel bare: trees, figures, flags. */
  uncrated: Content[];
  /** Air about each thing, mm. */
  gap: number;
}

/** When things are needed, by rank: modules follow one another from `modules` on. */
const RANKS = { first: 1, modules: 10, with: 1000, dressing: 2000, last: 3000 } as const;

/** A rank with all modules alike. */
export const withoutModuleTurn = (order: number): number =>
  order >= RANKS.modules && order < RANKS.with ? RANKS.modules : order;

/** A figure lies in padding of its own, mm, and its mass, g (from memory). */
const FIGURE = { side: 24, height: 48, grams: 4 } as const;
/** A vehicle of 4 × 8 studs in its padding, mm and g (guesses of ours). */
const VEHICLE = { long: 72, wide: 40, height: 48, grams: 40 } as const;
/** Mass of a tree for each plate of height and stud of its crown, g (a guess of ours). */
const TREE_GRAMS = 0.5;
const FLAG_GRAMS = 3;

/**
 * What is loaded: modules and what fits no crate bare; the rest, and trees, figures, flags and signboards by section, in the smallest
 * crates that hold them; things brought along.
 * @param carried everything that is carried by itself
 * @param order of building up: what is needed first
 */
export function shipmentOf(scene: Scene, carried: readonly CarriedPiece[], order: BuildUp): Shipment {
  const handled = new Map(listOf(scene, 'handling').map((one) => [one.piece, one]));
  const handlingOf = (key: string) => handled.get(key) ?? null;
  const turn = turnsOf(order);
  const crates: CrateSize[] = listOf(scene, 'crate').map((crate) => ({ ...crate, left: crate.count }));
  const pieces = carried.map((piece): Content => {
    const handling = handlingOf(piece.id);
    return {
      ...{ key: piece.id, name: piece.title, ref: piece.ref, grams: piece.grams, count: 1 },
      ...(handling?.lying ? laidDown(piece) : { w: piece.w, d: piece.d, h: piece.h }),
      bears: 1000 * (handling?.bearsKg ?? 0),
      order: piece.kind === 'module' ? RANKS.modules + (turn.get(piece.ref.id) ?? 0) : RANKS.with,
    };
  });
  const goesBare = ({ key, ref }: Content) => {
    const packing = handlingOf(key)?.packing ?? 'auto';
    return packing === 'bare' || (packing === 'auto' && ref.kind === 'module');
  };
  const wanted = (key: string) => {
    const handling = handlingOf(key);
    return handling?.packing === 'crate' ? handling.crate : null;
  };
  const inCrates = crated(
    pieces.filter((piece) => !goesBare(piece)),
    crates,
    wanted,
    null,
  );
  const dressing = dressingBySection(scene).map(({ words, contents }) =>
    crated(contents, crates, wanted, words),
  );
  const full = [inCrates, ...dressing].flatMap((one) => one.crates);
  const units = [
    ...[...pieces.filter(goesBare), ...inCrates.left].map((content): LoadUnit => {
      const { key, name, ref, w, d, h, grams, bears, order: needed } = content;
      return {
        ...{ key, name, ref, w, d, h, grams, bears, order: needed, wheels: false, holds: [] },
        lift: carried.find(({ id }) => id === key)?.lift ?? liftOf(content),
        handling: handlingOf(key),
      };
    }),
    ...full.map(({ key, ...crate }): LoadUnit => ({
      ...crate,
      key,
      ref: null,
      lift: liftOf(crate),
      handling: handlingOf(key),
    })),
    ...listOf(scene, 'cargo').flatMap(({ id, name, count, w, d, h, kg, bearsKg, needed }) =>
      Array.from({ length: count }, (_, i): LoadUnit => {
        const key = `cargo-${id}-${i + 1}`;
        return {
          ...{ key, name: count === 1 ? name : `${name} ${i + 1}`, ref: { kind: 'cargo', id }, w, d, h },
          ...{ grams: 1000 * kg, bears: 1000 * bearsKg, order: RANKS[needed], wheels: false, holds: [] },
          ...{ lift: liftOf({ grams: 1000 * kg, w, d, h }), handling: handlingOf(key) },
        };
      }),
    ),
  ];
  return {
    units,
    ...carriersOf(scene),
    uncrated: dressing.flatMap(({ left }) => left),
    gap: displayOf(scene).loadGap,
  };
}

/** The id of what is known of how a piece travels. */
export const handlingId = (key: string): string => idFor('handling', key);

/** Lifted from the floor, by hands at half its height. */
const liftOf = ({ grams, w, d, h }: { grams: number; w: number; d: number; h: number }): ModuleLift =>
  moduleLift(grams / 1000, { w: w / MM_PER_STUD, d: d / MM_PER_STUD }, h / 2);

/** On its longer side, as flat as it goes. */
export function laidDown({ w, d, h }: { w: number; d: number; h: number }) {
  const [low, middle, high] = [w, d, h].sort((a, b) => a - b);
  return { w: high, d: middle, h: low };
}

/** How many modules must stand before each, one after the other. */
function turnsOf(order: BuildUp): ReadonlyMap<string, number> {
  const turns = new Map<string, number>();
  if (!order.ok) return turns;
  const idIn = (key: string) => (key.startsWith('module ') ? key.slice('module '.length) : null);
  for (const { key, after } of order.steps) {
    const id = idIn(key);
    if (id === null) continue;
    const before = after.flatMap((one) => turns.get(idIn(one) ?? '') ?? []);
    turns.set(id, Math.max(-1, ...before) + 1);
  }
  return turns;
}

/** Trees, figures, flags and signboards by the section they stand in. */
function dressingBySection(scene: Scene): { words: string; contents: Content[] }[] {
  const sections = [
    ...listOf(scene, 'section').map(({ id, name }) => ({ id, name })),
    { id: null, name: null },
  ];
  const sectionAt = (x: number, y: number) =>
    listOf(scene, 'section').find((section) => containsPoint(section, x, y))?.id ?? null;
  const all = [
    ...listOf(scene, 'tree').map((tree) => ({
      section: sectionAt(tree.x, tree.y),
      content: dressing('tree', tree, 1, {
        side: tree.crown * MM_PER_STUD,
        height: tree.height * MM_PER_PLATE,
        grams: TREE_GRAMS * tree.height * tree.crown,
      }),
    })),
    ...listOf(scene, 'flag').map((flag) => ({
      section: sectionAt(flag.x, flag.y),
      content: dressing('flag', flag, 1, {
        side: FIGURE.side,
        height: flag.height * MM_PER_PLATE,
        grams: FLAG_GRAMS,
      }),
    })),
    ...postedBoards(scene).map((sign) => ({
      section: sectionAt(sign.x, sign.y),
      content: boardContent(sign),
    })),
    ...listOf(scene, 'figure').map((figure) => ({
      section: sectionAt(figure.x, figure.y),
      content: castContent(scene, figure),
    })),
  ];
  return sections.flatMap(({ id, name }) => {
    const contents = all.filter(({ section }) => section === id).map(({ content }) => content);
    return contents.length === 0
      ? []
      : [{ words: `trees and figures, ${name === null ? 'no section' : `section ${name}`}`, contents }];
  });
}

/** A signboard as it stands, with its post. */
function boardContent(sign: Entity<'signboard'>): Content {
  const one = dressing('signboard', sign, 1, {
    side: MM_PER_STUD,
    height: (sign.height + sign.up) * MM_PER_PLATE,
    grams: GRAMS_PER_STUD_PLATE * (sign.w * sign.height + sign.up),
  });
  return { ...one, w: Math.max(one.w, sign.w * MM_PER_STUD) };
}

/** A cast in padding: figures and animals as square as they go, and vehicles side by side before them. */
function castContent(scene: Scene, figure: Entity<'figure'>): Content {
  const { figure: figures, animal, vehicle } = castCount(scene, figure);
  const small = dressing('figure', figure, figures + animal, FIGURE);
  return {
    ...small,
    count: small.count + vehicle,
    grams: small.grams + vehicle * VEHICLE.grams,
    w: vehicle > 0 ? Math.max(small.w, VEHICLE.long) : small.w,
    d: small.d + vehicle * VEHICLE.wide,
    h: vehicle > 0 ? Math.max(small.h, VEHICLE.height) : small.h,
  };
}

/** Things of one kind that stand side by side as square as they go. */
function dressing(
  kind: Kind,
  { id, name }: { id: string; name: string },
  count: number,
  { side, height, grams }: { side: number; height: number; grams: number },
): Content {
  const across = Math.max(1, Math.ceil(Math.sqrt(count)));
  return {
    ...{ key: `${kind}-${id}`, name, ref: { kind, id }, grams: count * grams, count },
    ...{ w: across * side, d: Math.ceil(count / across) * side, h: height, bears: 0, order: RANKS.dressing },
  };
}

/** The vehicles of the access route, the largest first. */
function carriersOf(scene: Scene): Pick<Shipment, 'carriers' | 'unknown'> {
  const vehicles = wayOf(scene).filter(({ kind }) => kind === 'vehicle');
  const unknown: string[] = [];
  const carriers = vehicles.flatMap((vehicle): Carrier[] => {
    const { id, name, width, height, insideW, insideD, insideH, maxKg, trips, driver } = vehicle;
    if (insideW === null || insideD === null || insideH === null) {
      unknown.push(name);
      return [];
    }
    const door = Math.min(width, insideW);
    const { archFrom: from, archW, archD, archH } = vehicle;
    return [
      {
        ...{ id, name, trips, driver },
        space: {
          ...{ w: insideW, d: insideD, h: Math.min(insideH, height) },
          maxMass: maxKg === null ? null : 1000 * maxKg,
          door: { x: (insideW - door) / 2, w: door },
          ...(archW > 0 && archD > 0 && archH > 0 ? { arches: { from, w: archW, d: archD, h: archH } } : {}),
        },
      },
    ];
  });
  const volume = ({ space }: Carrier) => space.w * space.d * space.h;
  return { carriers: carriers.sort((a, b) => volume(b) - volume(a) || (a.id < b.id ? -1 : 1)), unknown };
}

/** How many things are in a vehicle and at the place, and which are missing there once the first has arrived. */
export function loadProgress(units: readonly LoadUnit[]): {
  loaded: number;
  arrived: number;
  missing: LoadUnit[];
} {
  const hasArrived = ({ handling }: LoadUnit) => handling !== null && handling.arrived !== null;
  const arrived = units.filter(hasArrived).length;
  return {
    loaded: units.filter((unit) => hasArrived(unit) || (unit.handling?.loaded ?? null) !== null).length,
    arrived,
    missing: arrived === 0 ? [] : units.filter((unit) => !hasArrived(unit)),
  };
}

/** Things that a passage of the access route stops, each with the first that does; what is brought along may be tilted. */
export function stoppedUnits(
  scene: Pick<Scene, 'display' | 'passage'>,
  units: readonly LoadUnit[],
): { unit: LoadUnit; passage: Passage }[] {
  const way = wayOf(scene);
  return units.flatMap((unit) => {
    const { w, d, h, ref } = unit;
    const ways = ref?.kind === 'cargo' ? [h, w, d] : [h];
    const stops = ways.map((height) => {
      const [short, long] = ridOf([w, d, h], height).sort((a, b) => a - b);
      return stopperOf(way, { short, long, height });
    });
    const [passage] = stops;
    return passage && stops.every((one) => one !== null) ? [{ unit, passage }] : [];
  });
}

/** Sizes without one of them. */
function ridOf(sizes: readonly number[], one: number): number[] {
  return sizes.toSpliced(sizes.indexOf(one), 1);
}

/** A unit as the packing sees it, with the air about it. */
export const packItemOf = ({ key, w, d, h, grams, bears, order }: LoadUnit, gap: number): PackItem => ({
  ...{ id: key, w: w + gap, d: d + gap, h, mass: grams, canTurn: true, bears, order },
});

/** Each trip of each vehicle: all go once, then those that go again. */
export function tripsOf(carriers: readonly Carrier[]): { carrier: Carrier; trip: number }[] {
  const most = Math.max(0, ...carriers.map(({ trips }) => trips));
  return Array.from({ length: most }, (_, i) =>
    carriers.filter(({ trips }) => i < trips).map((carrier) => ({ carrier, trip: i + 1 })),
  ).flat();
}
