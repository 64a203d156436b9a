import { z } from 'zod';
import { name, plates, reference, size } from './fields.ts';

// What the brief lists: required pieces, dates, rooms with their true size, vehicles and furniture.

export const FURNITURE_USES = ['seat', 'table', 'counter', 'doorway'] as const;
export type FurnitureUse = (typeof FURNITURE_USES)[number];

/** A true length, m. */
const metres = z.number().min(0.01).max(10_000);

/** A piece that a rule card asks for, and how many of it stand already. */
export const requirementSchema = z.strictObject({
  name,
  count: z.int().min(1).max(1000).default(1),
  placed: z.int().min(0).max(1000).default(0),
});

export const milestoneSchema = z.strictObject({
  name,
  date: z.iso.date(),
  /** A day on which the display is shown. */
  show: z.boolean().default(false),
});

/** A room or yard the scene needs, with its true size inside, and the plot it is given. */
export const spaceSchema = z.strictObject({
  name,
  w: metres,
  d: metres,
  plot: reference.default(null),
  /** Thickness of its walls, studs; 0 for a yard. */
  wall: z.number().multipleOf(0.5).min(0).max(16).default(1),
});

export const vehicleSchema = z.strictObject({
  name,
  count: z.int().min(1).max(1000).default(1),
  /** Length and width as built, studs, and the true length, m. */
  length: size,
  width: size,
  trueLength: metres,
});

export const furnishingSchema = z.strictObject({
  name,
  use: z.enum(FURNITURE_USES),
  /** Height as built, plates: of the seat, the top, or the clear opening. */
  height: plates.min(1),
});
