import { z } from 'zod';

/** Everything a cutting stands on is a multiple of this many studs: the smallest base. */
export const CELL = 8;
/** The most cells the bounding box of a region may have: 1,280 × 1,024 studs. */
export const MAX_CELLS = 20_480;

const onLattice = z.int().min(-40_960).max(40_960).multipleOf(CELL, `must be a multiple of ${CELL} studs`);
const span = onLattice.min(CELL);
const rect = { x: onLattice, y: onLattice, w: span, d: span };
const money = z.number().min(0).max(1e6);
const count = z.int().min(0).max(1e6);

/** The cutting problem, as `quarry cut` reads it. All lengths in studs. */
export const cutProblemSchema = z.strictObject({
  region: z.array(z.strictObject(rect)).min(1).max(500),
  bases: z
    .array(z.strictObject({ w: span, d: span, price: money, stock: count, max: count.optional() }))
    .min(1)
    .max(40),
  module: z.strictObject({
    maxW: z.number().min(CELL).max(4096),
    maxD: z.number().min(CELL).max(4096),
    maxMassKg: z.number().positive().optional(),
  }),
  mass: z
    .strictObject({
      cell: z.number().positive().max(4096),
      kg: z.array(z.array(z.number().min(0).max(1e5))).min(1),
    })
    .optional(),
  keep: z
    .array(z.strictObject({ ...rect, name: z.string().max(200).optional() }))
    .max(5000)
    .optional(),
  seamCost: z
    .array(z.strictObject({ ...rect, cost: z.number().min(0).max(1e6) }))
    .max(5000)
    .optional(),
  /** What a seam along a line costs there, in place of `seamCost`; of several the last one counts. */
  lines: z
    .array(
      z.strictObject({
        x1: onLattice,
        y1: onLattice,
        x2: onLattice,
        y2: onLattice,
        cost: z.number().min(0).max(1e6),
      }),
    )
    .max(60_000)
    .optional(),
  pins: z
    .array(z.strictObject({ x1: onLattice, y1: onLattice, x2: onLattice, y2: onLattice }))
    .max(1000)
    .optional(),
  weights: z.strictObject({ module: money, seam: money }),
});
export type CutProblem = z.infer<typeof cutProblemSchema>;

export interface CutBase {
  x: number;
  y: number;
  w: number;
  d: number;
}

export interface CutModule extends CutBase {
  /** Row letter and column number: A1 is the north-west one. */
  id: string;
  massKg?: number;
  bases: CutBase[];
}

/** A cutting: exact cover of the region by modules and of each module by bases, with its cost and a proven bound. */
export interface Cutting {
  modules: CutModule[];
  bought: { w: number; d: number; count: number }[];
  cost: { bases: number; modules: number; seams: number; total: number };
  /** A proven lower bound on the total cost of any cutting of this problem. */
  bound: number;
  /** (total − bound) / total; 0 for a cutting that costs nothing. */
  gap: number;
  /** True when the gap is closed (to 1e-6): no better cutting exists. */
  proven: boolean;
  seconds: number;
}

/** Either a cutting or one sentence for each reason there is none. */
export type CutAnswer = { feasible: true; cutting: Cutting } | { feasible: false; reasons: string[] };
