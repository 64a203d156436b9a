import type { z } from 'zod';

/** A text field of an entity that another one names; null when that is gone. */
export type FieldOf = (kind: string, id: string | null, field: string) => string | null;

/** A line of a drawing with the words at its middle. */
export interface PlanMark {
  points: readonly { x: number; y: number }[];
  words: string;
  /** What it is the outline of; left out: it is a dimension. */
  outlines?: 'deck' | 'cavity';
}

/** What the core knows of a kind: one declaration, from which lists and decisions derive. */
export interface KindSpec<S extends z.ZodObject = z.ZodObject> {
  /** Fields of an entity without id and version. New ones get a default, so that older files still open. */
  schema: S;
  /** Key of its group in a display file. */
  group: string;
  word: string;
  /** How a person calls one of them, such as “section B, Mill street”; left out: by its name. */
  label?(thing: z.output<S>, fieldOf: FieldOf): string;
  /** Fields that name another entity, or list others, with the kind they name: a scene never holds a dangling name. */
  refs?: Readonly<Record<string, string>>;
  /** Rank in the outline of what stands on the plan, in studs; left out: it does not. */
  outline?: number;
  /** Its lengths are millimetres of a room. */
  inRoom?: true;
  /** Part of the relief that it changes first. */
  relief?: 'land' | 'way' | 'top';
  /** A public page may show it, without the texts of its crew. */
  public?: true;
  /**
   * Points that bound its extent, studs, where they are not those of its area, its line or its spot.
   */
  outlinePoints?(thing: z.output<S>): readonly { x: number; y: number }[];
  /** How far it goes beyond its extent on each side, studs: banks, slopes, half a line's width. */
  beyond?(thing: z.output<S>): number;
  /** Points that bound all it stands over, studs, where that is not its extent widened by `beyond`. */
  influencePoints?(thing: z.output<S>): readonly { x: number; y: number }[];
  /** What stands for it in drawings and prints, studs: for kinds that `formats` does not draw as ground or things. */
  marks?(thing: z.output<S>): readonly PlanMark[];
  /** Stands on the plan and is yet no builder's work: how the plan is divided, pictures and heights brought in. */
  plannersOnly?: true;
  /** Fields that make it a builder's own: one of them names the person, or their section; empty: every builder's. */
  ownBy?: readonly string[];
  /** The only ids that its entities may have. */
  ids?: readonly string[];
  /** How many a scene may hold, where it is not the usual number. */
  max?: number;
}

type Functions = 'label' | 'outlinePoints' | 'beyond' | 'influencePoints' | 'marks';

/**
 * Declares a kind; its functions take the schema's fields.
 * @returns the declaration with the type of each part; its functions are methods, so that a list of kinds can call them
 * @example
 * export const noteKind = defineKind({
 *   schema: z.strictObject({ name, x: position, y: position }),
 *   group: 'notes',
 *   word: 'note',
 *   outline: 20,
 * });
 */
export const defineKind = <S extends z.ZodObject, const P extends Omit<KindSpec<S>, 'schema'>>(
  spec: { schema: S } & P,
): { schema: S } & Omit<P, Functions | 'schema'> & Pick<KindSpec<S>, Functions & keyof P> => spec;
