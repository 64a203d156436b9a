import { boundsOf, type Rect } from '../grid/index.ts';
import { wantedAt } from './cast.ts';
import type { Change } from './change.ts';
import { STAND_REFS } from './fields.ts';
import { extentOf, hasSize, placedAt, placeIn } from './place.ts';
import { freeGroundId, customGroundOf, type CustomGround } from './customGrounds.ts';
import { CUSTOM_GROUNDS, type Ground } from './vocabulary.ts';
import { KINDS, REFERENCES, isPlanKind, kindSchema, type Entity, type Kind } from './schema.ts';
import { MAX_PAD_ORDER } from './kinds/pad.ts';
import { keyOf, labelOf, listOf, padsInOrder, type Scene } from './scene.ts';
import { STANDING_KINDS, carriedBy, standFieldsFor, standingOf } from './stand.ts';

// What one does with several things at once, each as changes of one batch.

export interface EntityRef {
  kind: Kind;
  id: string;
}

/** Picks that are there, with their entity and place. */
function standing(
  scene: Scene,
  picks: readonly EntityRef[],
): (EntityRef & { entity: Entity<Kind>; place: Rect })[] {
  return picks.flatMap(({ kind, id }) => {
    const entity: Entity<Kind> | undefined = scene[kind][id];
    const place = placeIn(scene, kind, id);
    return entity && place ? [{ kind, id, entity, place }] : [];
  });
}

/** The rectangle that holds all of some things, studs; null when none has a place. */
export function boundsOfAll(scene: Scene, picks: readonly EntityRef[]): Rect | null {
  const places = standing(scene, picks).map(({ place }) => place);
  return places.length > 0 ? boundsOf(places) : null;
}

const patched = (
  { kind, id, entity }: EntityRef & { entity: Entity<Kind> },
  set: Record<string, unknown>,
): Change[] => (Object.keys(set).length > 0 ? [{ op: 'patch', kind, id, v: entity.v, set }] : []);

/** Moves things by studs, with what stands on them. */
export function moveAll(scene: Scene, picks: readonly EntityRef[], dx: number, dy: number): Change[] {
  if (dx === 0 && dy === 0) return [];
  const all = [...picks, ...picks.flatMap((pick) => carriedBy(scene, pick))];
  const each = [...new Map(all.map((pick) => [keyOf(pick.kind, pick.id), pick])).values()];
  return standing(scene, each).flatMap((thing) =>
    patched(thing, {
      ...placedAt(thing.kind, thing.entity, { ...thing.place, x: thing.place.x + dx, y: thing.place.y + dy }),
    }),
  );
}

export const ALIGNMENTS = ['west', 'middle', 'east', 'north', 'centre', 'south'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

/** Brings things to one line of the rectangle that holds them: a side of it, or its middle (on half studs). */
export function alignAll(scene: Scene, picks: readonly EntityRef[], to: Alignment): Change[] {
  const things = standing(scene, picks);
  if (things.length < 2) return [];
  const all = boundsOf(things.map(({ place }) => place));
  const half = (value: number) => Math.round(value * 2) / 2;
  return things.flatMap((thing) => {
    const { x, y, w, d } = thing.place;
    const at = {
      west: { x: all.x, y },
      middle: { x: half(all.x + (all.w - w) / 2), y },
      east: { x: all.x + all.w - w, y },
      north: { x, y: all.y },
      centre: { x, y: half(all.y + (all.d - d) / 2) },
      south: { x, y: all.y + all.d - d },
    }[to];
    return at.x === x && at.y === y
      ? []
      : patched(thing, { ...placedAt(thing.kind, thing.entity, { w, d, ...at }) });
  });
}

/** Makes the gaps between things equal, the outermost staying where they are; gaps are rounded to half studs. */
export function distributeAll(scene: Scene, picks: readonly EntityRef[], along: 'x' | 'y'): Change[] {
  const size = along === 'x' ? 'w' : 'd';
  const things = standing(scene, picks).sort((a, b) => a.place[along] - b.place[along]);
  if (things.length < 3) return [];
  const last = things[things.length - 1];
  const room = last.place[along] - things[0].place[along] - things[0].place[size];
  const taken = things.slice(1, -1).reduce((sum, { place }) => sum + place[size], 0);
  const gap = (room - taken) / (things.length - 1);
  let at = things[0].place[along] + things[0].place[size];
  return things.slice(1, -1).flatMap((thing) => {
    at += gap;
    const to = { ...thing.place, [along]: Math.round(at * 2) / 2 };
    at += thing.place[size];
    return to[along] === thing.place[along]
      ? []
      : patched(thing, { ...placedAt(thing.kind, thing.entity, to) });
  });
}

/** Numbers left between a new pad and the last, for what is to be laid between them later. */
const PAD_STEP = 10;

/** The number of a new pad, which is laid over all others. @param nth of several new ones, from 0 */
export const newPadOrder = (scene: Pick<Scene, 'pad'>, nth = 0): number =>
  Math.min(MAX_PAD_ORDER, Math.max(0, ...listOf(scene, 'pad').map(({ order }) => order)) + PAD_STEP + nth);

/**
 * Changes by which a pad is laid before all others, or over them. Where there is no number left at that end, all are
 * numbered again.
 */
export function padLaid(scene: Pick<Scene, 'pad'>, id: string, to: 'first' | 'last'): Change[] {
  const pads = padsInOrder(scene);
  const pad = scene.pad[id];
  const others = pads.filter((one) => one.id !== id);
  const beside = to === 'first' ? others[0] : others.at(-1);
  if (!pad || !beside) return [];
  const order = beside.order + (to === 'first' ? -1 : 1);
  if (order >= 0 && order <= MAX_PAD_ORDER) return orderChange(pad, order);
  const all = to === 'first' ? [pad, ...others] : [...others, pad];
  return all.flatMap((one, i) => orderChange(one, i));
}

const orderChange = ({ id, v, order: before }: Entity<'pad'>, order: number): Change[] =>
  before === order ? [] : [{ op: 'patch', kind: 'pad', id, v, set: { order } }];

/** Kinds that may be doubled and kept as a piece: what is drawn, not what is cut or agreed. */
export const isCopied = (kind: Kind): boolean =>
  isPlanKind(kind) && !['footprint', 'module', 'section'].includes(kind);

/** Copies of things, moved by studs. @returns the changes and what they add */
export function copyAll(
  scene: Scene,
  picks: readonly EntityRef[],
  by: { dx: number; dy: number },
  freshId: (kind: Kind) => string,
): { changes: Change[]; picks: EntityRef[] } {
  const things = standing(scene, picks)
    .filter(({ kind }) => isCopied(kind))
    .map((thing) => ({ ...thing, fresh: freshId(thing.kind) }));
  const named = new Map(things.map(({ kind, id, fresh }) => [keyOf(kind, id), fresh]));
  const copies = things.map(({ kind, entity, place, fresh }) => {
    const { id: _id, v: _v, ...data } = entity;
    const moved = placedAt(kind, entity, { ...place, x: place.x + by.dx, y: place.y + by.dy });
    // What stands on something that is copied with it stands on the copy.
    const stands = renamedBases(data, (under, id) => named.get(keyOf(under, id)) ?? id);
    return { kind, id: fresh, data: { ...data, ...moved, ...stands, ...openSpots(scene, kind, entity) } };
  });
  return {
    changes: copies.map(({ kind, id, data }) => ({ op: 'add', kind, id, data })),
    picks: copies.map(({ kind, id }) => ({ kind, id })),
  };
}

/** So many copies of things, each one step further; one stud between them where no step is given. */
export function copyAlong(
  scene: Scene,
  picks: readonly EntityRef[],
  { count, dx, dy }: { count: number; dx: number; dy: number },
  freshId: (kind: Kind) => string,
): { changes: Change[]; picks: EntityRef[] } {
  const copies = Array.from({ length: count }, (_, i) =>
    copyAll(scene, picks, { dx: dx * (i + 1), dy: dy * (i + 1) }, freshId),
  );
  return { changes: copies.flatMap(({ changes }) => changes), picks: copies.flatMap((copy) => copy.picks) };
}

/**
 * What hangs on things that go hangs on nothing from then on: lights on a circuit, circuits on a supply, the crew of a
 * vehicle, notes of the show about a photo or a task. Things in a ground that goes have the ground it is like; its
 * recipes go with it.
 */
export function unhung(scene: Scene, gone: readonly EntityRef[]): Change[] {
  const keys = new Set(gone.map(({ kind, id }) => keyOf(kind, id)));
  const isGone = (kind: Kind, id: string | null) => id !== null && keys.has(keyOf(kind, id));
  const patches = [
    ...listOf(scene, 'device').map(({ id, v, circuit }) => ({
      ...{ kind: 'device' as const, id, v },
      set: isGone('circuit', circuit) ? { circuit: null } : {},
    })),
    ...listOf(scene, 'circuit').map(({ id, v, supply }) => ({
      ...{ kind: 'circuit' as const, id, v },
      set: isGone('supply', supply) ? { supply: null } : {},
    })),
    ...listOf(scene, 'character').map(({ id, v, crewOf, photo }) => ({
      ...{ kind: 'character' as const, id, v },
      set: {
        ...(isGone('character', crewOf) ? { crewOf: null } : {}),
        ...(isGone('photo', photo) ? { photo: null } : {}),
      },
    })),
    ...listOf(scene, 'incident').map(({ id, v, photo, task, by }) => ({
      ...{ kind: 'incident' as const, id, v },
      set: {
        ...(isGone('photo', photo) ? { photo: null } : {}),
        ...(isGone('task', task) ? { task: null } : {}),
        ...(isGone('person', by) ? { by: null } : {}),
      },
    })),
  ];
  return [
    ...(gone.some(({ kind }) => kind === 'customGround')
      ? regrounded(scene, (ground) => isGone('customGround', ground))
      : []),
    ...patches
      .filter(({ kind, id, set }) => Object.keys(set).length > 0 && !keys.has(keyOf(kind, id)))
      .map((patch): Change => ({ op: 'patch', ...patch })),
  ];
}

const GROUND_FIELDS = REFERENCES.filter(({ to }) => to === 'customGround');
/** Names of the fields that hold a ground, whatever the kind. */
const GROUND_KEYS = [...new Set(GROUND_FIELDS.map(({ field }) => field))];

/** The things whose ground goes, in the ground that it is like. */
function regrounded(scene: Scene, isGone: (ground: string) => boolean): Change[] {
  return [...new Set(GROUND_FIELDS.map(({ kind }) => kind))].flatMap((kind) =>
    listOf(scene, kind).flatMap((thing): Change[] => {
      const fields: Readonly<Record<string, unknown>> = { ...thing };
      const set = Object.fromEntries(
        GROUND_FIELDS.flatMap(({ kind: of, field }) => {
          const ground = fields[field];
          if (of !== kind || typeof ground !== 'string' || !isGone(ground)) return [];
          return [[field, customGroundOf(scene, ground)?.like ?? 'soil']];
        }),
      );
      const { id, v } = thing;
      if (Object.keys(set).length === 0) return [];
      return kind === 'recipe' ? [{ op: 'remove', kind, id, v }] : [{ op: 'patch', kind, id, v, set }];
    }),
  );
}

/** The custom grounds that things have, described. */
function groundsIn(scene: Scene, things: readonly { entity: Entity<Kind> }[]): Omit<CustomGround, 'v'>[] {
  const named = new Set(
    things.flatMap(({ entity }) => {
      const fields: Readonly<Record<string, unknown>> = { ...entity };
      return GROUND_KEYS.map((field) => fields[field]);
    }),
  );
  return CUSTOM_GROUNDS.flatMap((id) => {
    const own = named.has(id) ? customGroundOf(scene, id) : null;
    if (!own) return [];
    const { v: _v, ...rest } = own;
    return [rest];
  });
}

/**
 * Finds the grounds of a piece in a display: the one of the same name, else a further one.
 * @returns the id in the display for each id of the piece, and what adds those that are missing
 */
function groundsFor(
  scene: Scene,
  grounds: Entity<'piece'>['grounds'],
): { ok: true; names: ReadonlyMap<string, Ground>; changes: Change[] } | { ok: false; error: string } {
  const names = new Map<string, Ground>();
  const changes: Change[] = [];
  let known: Pick<Scene, 'customGround'> = scene;
  for (const { id: old, ...data } of grounds) {
    const same = CUSTOM_GROUNDS.find(
      (id) => customGroundOf(known, id)?.name.toLowerCase() === data.name.toLowerCase(),
    );
    if (same) {
      names.set(old, same);
      continue;
    }
    const id = freeGroundId(known);
    if (id === null)
      return {
        ok: false,
        error: `The display has ${CUSTOM_GROUNDS.length} custom grounds, the most it can have; “${data.name}” finds no room.`,
      };
    known = { customGround: { ...known.customGround, [id]: { ...data, id, v: 0 } } };
    names.set(old, id);
    changes.push({ op: 'add', kind: 'customGround', id, data });
  }
  return { ok: true, names, changes };
}

/** The grounds of a thing by other ids; one that is described nowhere becomes soil, which a custom ground is like by default. */
function renamedGrounds(
  scene: Scene,
  data: Readonly<Record<string, unknown>>,
  names: ReadonlyMap<string, Ground>,
): Record<string, unknown> {
  return Object.fromEntries(
    GROUND_KEYS.flatMap((field) => {
      const ground = data[field];
      if (typeof ground !== 'string' || !CUSTOM_GROUNDS.some((id) => id === ground)) return [];
      return [[field, names.get(ground) ?? (customGroundOf(scene, ground) ? ground : 'soil')]];
    }),
  );
}

/** Removes things. What named one of them to stand on stands on the highest surface from then on. */
export function removeAll(scene: Scene, picks: readonly EntityRef[]): Change[] {
  const gone = new Set(picks.map(({ kind, id }) => keyOf(kind, id)));
  const freed = STANDING_KINDS.flatMap((kind) =>
    listOf(scene, kind).flatMap((thing): Change[] => {
      const on = standingOf(thing);
      return on && on.kind !== 'ground' && gone.has(keyOf(on.kind, on.id)) && !gone.has(keyOf(kind, thing.id))
        ? [{ op: 'patch', kind, id: thing.id, v: thing.v, set: { ...standFieldsFor(null) } }]
        : [];
    }),
  );
  return [
    ...freed,
    ...unhung(scene, picks),
    ...standing(scene, picks).map(({ kind, id, entity }): Change => ({
      op: 'remove',
      kind,
      id,
      v: entity.v,
    })),
  ];
}

/** The data of a piece made of things as they stand. Null when none of them can be kept. */
export function pieceOf(
  scene: Scene,
  picks: readonly EntityRef[],
  name: string,
): Record<string, unknown> | null {
  const things = standing(scene, picks).filter(({ kind }) => isCopied(kind));
  if (things.length === 0) return null;
  const all = boundsOf(things.map(({ place }) => place));
  return {
    name,
    w: Math.max(0.5, Math.ceil(all.w * 2) / 2),
    d: Math.max(0.5, Math.ceil(all.d * 2) / 2),
    grounds: groundsIn(scene, things),
    things: things.map(({ kind, entity, place }) => {
      const { id: _id, v: _v, ...data } = entity;
      return {
        kind,
        data: {
          ...data,
          ...placedAt(kind, entity, { ...place, x: place.x - all.x, y: place.y - all.y }),
          // A piece knows no ids: set out, it stands on the highest surface.
          ...renamedBases(data, () => null),
          ...(kind === 'device' ? { circuit: null } : {}),
          ...openSpots(scene, kind, entity),
        },
      };
    }),
  };
}

/**
 * Sets out a piece with its north-west corner at a place. Levels that are gone are replaced by the given one.
 * @returns the changes and what they add; or a sentence that names the entity that no longer fits
 */
export function setOut(
  scene: Scene,
  pieceId: string,
  at: { x: number; y: number },
  level: string | null,
  freshId: (kind: Kind) => string,
): { ok: true; changes: Change[]; picks: EntityRef[] } | { ok: false; error: string } {
  const piece = scene.piece[pieceId];
  if (!piece) return { ok: false, error: 'The piece is not there any more.' };
  const grounds = groundsFor(scene, piece.grounds);
  if (!grounds.ok) return grounds;
  const changes: Change[] = [];
  const picks: EntityRef[] = [];
  for (const { kind: word, data } of piece.things) {
    const kind = kindSchema.safeParse(word);
    const place = kind.success ? extentOf(kind.data, data) : null;
    if (!kind.success || !place || !isCopied(kind.data))
      return {
        ok: false,
        error: `${labelOf(scene, 'piece', pieceId)} holds a “${word}”, which cannot be set out.`,
      };
    const gone = typeof data.level === 'string' && !scene.level[data.level];
    if (gone && level === null)
      return {
        ok: false,
        error: `The level of a ${KINDS[kind.data].word} in “${piece.name}” is gone; add one first.`,
      };
    const id = freshId(kind.data);
    picks.push({ kind: kind.data, id });
    changes.push({
      ...{ op: 'add', kind: kind.data, id },
      data: {
        ...data,
        ...placedAt(kind.data, data, { ...place, x: place.x + at.x, y: place.y + at.y }),
        ...(gone ? { level } : {}),
        ...renamedBases(data, (under, id) => (Object.hasOwn(scene[under], id) ? id : null)),
        ...renamedGrounds(scene, data, grounds.names),
      },
    });
  }
  return { ok: true, changes: [...grounds.changes, ...changes], picks };
}

/** The spots of a small scene for a copy of it, which asks for the same roles: nobody is in two places. */
function openSpots(scene: Scene, kind: Kind, { id }: Entity<Kind>): Partial<Entity<'figure'>> {
  const figure = kind === 'figure' ? scene.figure[id] : undefined;
  if (!figure || figure.spots.length === 0) return {};
  return {
    spots: figure.spots.map((spot) => {
      const { form, role } = wantedAt(scene, spot);
      return { ...spot, form, role, character: null, isFixed: false };
    }),
  };
}

/** The fields that name what a thing stands on, each with another name in its place; null: the highest surface. */
function renamedBases(
  data: Readonly<Record<string, unknown>>,
  rename: (kind: Kind, id: string) => string | null,
): Record<string, string | null> {
  return Object.fromEntries(
    Object.entries(STAND_REFS).flatMap(([field, kind]) => {
      const id = data[field];
      return typeof id === 'string' ? [[field, rename(kind, id)]] : [];
    }),
  );
}

/** Whether a thing can be pulled to another size. */
export const canResize = (scene: Scene, { kind, id }: EntityRef): boolean => {
  const entity: Entity<Kind> | undefined = scene[kind][id];
  return entity !== undefined && hasSize(entity);
};
