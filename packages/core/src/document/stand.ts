import { containsPoint } from '../grid/index.ts';
import { STAND_REFS } from './fields.ts';
import { placeIn } from './place.ts';
import { listOf, type Scene } from './scene.ts';
import type { Deck, Entity, Kind, Plot } from './schema.ts';

// What a thing says it stands on.

/** Fields of things that may name what they stand on. */
export type StandFields = Pick<Plot, 'onGround' | 'onDeck' | 'inCavity' | 'onPlot' | 'onRun'>;

/** Kinds that a thing may name to stand on: a deck, a cavity’s floor, the roof of a building, the top of a wall. */
export type BaseKind = (typeof STAND_REFS)[keyof typeof STAND_REFS];
export const BASE_KINDS: readonly BaseKind[] = Object.values(STAND_REFS);

/** What a thing says it stands on; null: the highest surface under it. */
export type Standing = { kind: 'ground' } | { kind: BaseKind; id: string };

export function standingOf({ onGround, onDeck, inCavity, onPlot, onRun }: StandFields): Standing | null {
  if (onGround) return { kind: 'ground' };
  if (onDeck !== null) return { kind: 'deck', id: onDeck };
  if (inCavity !== null) return { kind: 'cavity', id: inCavity };
  if (onPlot !== null) return { kind: 'plot', id: onPlot };
  return onRun === null ? null : { kind: 'run', id: onRun };
}

/** Whether a thing names a roof or a wall to stand on: nothing of it reaches down to the ground. */
export function isRaised(thing: StandFields): boolean {
  const on = standingOf(thing);
  return on?.kind === 'plot' || on?.kind === 'run';
}

/** A key for lists of what one can stand on; empty: the highest surface. */
export const standingKey = (on: Standing | null): string =>
  on === null ? '' : on.kind === 'ground' ? 'ground' : `${on.kind} ${on.id}`;

/** The fields that set a thing on something. @param on null: the highest surface under it */
export const standFieldsFor = (on: Standing | null): StandFields => ({
  onGround: on?.kind === 'ground',
  onDeck: on?.kind === 'deck' ? on.id : null,
  inCavity: on?.kind === 'cavity' ? on.id : null,
  onPlot: on?.kind === 'plot' ? on.id : null,
  onRun: on?.kind === 'run' ? on.id : null,
});

/** Kinds that may name what they stand on. */
export const STANDING_KINDS = ['plot', 'run', 'tree', 'figure', 'signboard', 'device'] as const;
export type StandingKind = (typeof STANDING_KINDS)[number];

export const isStandingKind = (kind: Kind): kind is StandingKind =>
  STANDING_KINDS.some((one) => one === kind);

/** Everything that names a thing to stand on it, directly or over others that do. */
export function whatStandsOn(
  scene: Scene,
  on: { kind: string; id: string },
): { kind: StandingKind; id: string; entity: Entity<StandingKind> }[] {
  const found: { kind: StandingKind; id: string; entity: Entity<StandingKind> }[] = [];
  const seen = new Set([`${on.kind} ${on.id}`]);
  const follow = (under: { kind: string; id: string }) => {
    for (const kind of STANDING_KINDS)
      for (const entity of listOf(scene, kind)) {
        const standing = standingOf(entity);
        if (!standing || standing.kind === 'ground') continue;
        if (standing.kind !== under.kind || standing.id !== under.id || seen.has(`${kind} ${entity.id}`))
          continue;
        seen.add(`${kind} ${entity.id}`);
        found.push({ kind, id: entity.id, entity });
        follow({ kind, id: entity.id });
      }
  };
  follow(on);
  return found;
}

/**
 * Everything that goes along when a thing is moved: what names it, and what stands on a deck because that is the
 * highest surface under its middle.
 */
export function carriedBy(
  scene: Scene,
  on: { kind: Kind; id: string },
): { kind: StandingKind; id: string }[] {
  const named = whatStandsOn(scene, on);
  const deck = on.kind === 'deck' ? scene.deck[on.id] : undefined;
  if (!deck) return named.map(({ kind, id }) => ({ kind, id }));
  const heightOf = ({ level, offset }: Deck) => (scene.level[level]?.height ?? 0) + offset;
  const decks = listOf(scene, 'deck');
  const isOnIt = (kind: StandingKind, id: string) => {
    const place = placeIn(scene, kind, id);
    if (!place) return false;
    const [x, y] = [place.x + place.w / 2, place.y + place.d / 2];
    const under = decks.filter((one) => containsPoint(one, x, y));
    return under.includes(deck) && under.every((one) => heightOf(one) <= heightOf(deck));
  };
  const found = STANDING_KINDS.flatMap((kind) =>
    listOf(scene, kind)
      .filter((thing) => standingOf(thing) === null && isOnIt(kind, thing.id))
      .map(({ id }) => ({ kind, id })),
  );
  const all = [...named, ...found, ...found.flatMap((one) => whatStandsOn(scene, one))];
  return [...new Map(all.map(({ kind, id }) => [`${kind} ${id}`, { kind, id }])).values()];
}
