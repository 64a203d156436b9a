import { z } from 'zod';
import { KINDS } from './kinds/index.ts';
import type { KindSpec } from './kind.ts';
import { keysOf } from './unsafe.ts';

// The display document, version 1: small flat entities with ids, grouped by kind. Each kind is declared in one file of
// `kinds/`; the lists here derive from those.
//
// Horizontal positions and sizes of what is built are in studs, halves allowed (jumpers), x east and y south of
// the display's north-west corner. Furniture is in millimetres from the same corner. Heights are in plates above
// the display's datum (the table top), because a plate is the smallest step a builder can make.
// New fields get a default so that older files still open; anything else needs a step in `file.ts`.

export { KINDS } from './kinds/index.ts';
export { MAX_STUDS, idSchema } from './fields.ts';

export type Kind = keyof typeof KINDS;
export const KIND_NAMES: readonly Kind[] = keysOf(KINDS);
export const kindSchema = z.enum(KIND_NAMES);
/** The declaration of a kind, for what asks any of them alike. */
export const specOf = (kind: Kind): KindSpec => KINDS[kind];

/** The fields of an entity of a kind, without id and version. */
export type DataOf<K extends Kind> = z.output<(typeof KINDS)[K]['schema']>;
/** An entity as it stands in a scene: `v` counts its changes, from 1. */
export type Entity<K extends Kind> = DataOf<K> & {
  readonly id: string;
  readonly v: number;
  /** Of the type alone (see `Rect`). */
  readonly frame?: FrameOf<K>;
};
type FrameOf<K extends Kind> = K extends Kind
  ? (typeof KINDS)[K] extends { inRoom: true }
    ? 'mm'
    : 'studs'
  : never;

export type Display = Entity<'display'>;
export type Level = Entity<'level'>;
export type Table = Entity<'table'>;
export type Passage = Entity<'passage'>;
export type Place = Entity<'place'>;
export type Opening = Entity<'opening'>;
export type Pad = Entity<'pad'>;
export type Plot = Entity<'plot'>;
export type Section = Entity<'section'>;
export type BaseType = Entity<'baseType'>;
export type Module = Entity<'module'>;
export type Seam = Entity<'seam'>;
export type Hill = Entity<'hill'>;
export type Hollow = Entity<'hollow'>;
export type Deck = Entity<'deck'>;
export type Cavity = Entity<'cavity'>;
export type Water = Entity<'water'>;
export type Stream = Entity<'stream'>;
export type Way = Entity<'way'>;
export type Track = Entity<'track'>;
export type Repeat = Entity<'repeat'>;
export type Planting = Entity<'planting'>;
export type Terrain = Entity<'terrain'>;
export type PartType = Entity<'partType'>;
export type Recipe = Entity<'recipe'>;
export type PartList = Entity<'partList'>;
export type Lot = Entity<'lot'>;
export type Loan = Entity<'loan'>;
export type Order = Entity<'order'>;
export type Placeholder = Entity<'placeholder'>;
export type Substitute = Entity<'substitute'>;
export type Promised = Entity<'promise'>;
export type Thread = Entity<'thread'>;
export type Reply = Entity<'reply'>;
export type Report = Entity<'report'>;
export type Session = Entity<'session'>;
export type Task = Entity<'task'>;
export type Calendar = Entity<'calendar'>;
export type Photo = Entity<'photo'>;
export type Slot = Entity<'slot'>;
export type Crate = Entity<'crate'>;
export type Cargo = Entity<'cargo'>;
export type Handling = Entity<'handling'>;
export type Chore = Entity<'chore'>;
export type Circuit = Entity<'circuit'>;
export type Device = Entity<'device'>;

/** The id of the one display entity of each scene. */
export const DISPLAY_ID = 'display';

/** Fields of an entity that name another one, or a list of others: the scene never holds a dangling name. */
export const REFERENCES: readonly { kind: Kind; field: string; to: Kind }[] = KIND_NAMES.flatMap((kind) =>
  Object.entries(specOf(kind).refs ?? {}).map(([field, to]) => ({ kind, field, to: kindSchema.parse(to) })),
);

/** Largest number of entities of a kind in a scene; of stock as many as a long list of drawers. */
export const maxCount = (kind: Kind): number => specOf(kind).max ?? 5000;

type KindsWith<P extends keyof KindSpec> = {
  [K in Kind]: P extends keyof (typeof KINDS)[K] ? K : never;
}[Kind];
const hasSpec = <P extends keyof KindSpec>(kind: Kind, part: P): kind is KindsWith<P> => part in KINDS[kind];

/** Kinds that stand on the plan in studs, in the order of the outline. Tables stand in the room: see `venue`. */
export type PlanKind = KindsWith<'outline'>;
export const isPlanKind = (kind: Kind): kind is PlanKind => hasSpec(kind, 'outline');
export const PLAN_KINDS: readonly PlanKind[] = KIND_NAMES.filter(isPlanKind).sort(
  (a, b) => KINDS[a].outline - KINDS[b].outline,
);

/** Kinds that change a part of the relief first. */
export const kindsOfRelief = (part: NonNullable<KindSpec['relief']>): readonly Kind[] =>
  KIND_NAMES.filter((kind) => specOf(kind).relief === part);
