import { z } from 'zod';
import { ANY_COLOUR, FAMILIES, partOf } from '../../catalogue/index.ts';
import { polygonApothem } from '../../grid/index.ts';
import { STAND_REFS, halfStud, linePoints, name, plates, size, standFields } from '../fields.ts';
import { colourField, partField } from '../partLines.ts';
import { defineKind } from '../kind.ts';

export const RUN_USES = ['wall', 'fence', 'hedge', 'railing'] as const;
export const ARCH_SIDES = ['left', 'right'] as const;
/** Panels of a ring at most. */
const MAX_RING = 120;
/** The last panel of a line that something is let into. */
export const MAX_PANELS = 1000;

const runSchema = z.strictObject({
  name,
  use: z.enum(RUN_USES).default('wall'),
  points: linePoints,
  height: plates.min(1).default(9),
  thick: size.max(16).default(1),
  /** Length of the panels it is made in, studs: one over a seam comes off. 0: built in, it ends at each seam. */
  panel: halfStud.min(0).max(256).default(0),
  /** Of its pieces; null: what is usual for such a thing. */
  colour: colourField.nullable().default(null),
  /** Arches in a row at one face of a wall, in its outermost stud; what is behind them is plain. Null: none. */
  arches: partField.nullable().default(null),
  /** The face with the arches, as one walks along the line. */
  archSide: z.enum(ARCH_SIDES).default('left'),
  /** Of the row of arches with its piers; null: as the wall. */
  archColour: colourField.nullable().default(null),
  /** A fence stands on the wall. */
  topFence: z.boolean().default(false),
  /**
   * It is closed as a ring of so many panels about its first point, the middle of the first of them towards its second;
   * null: it follows its points.
   */
  ring: z.int().min(3).max(MAX_RING).nullable().default(null),
  /** Windows, doors and arches let into the middle of its panels, or of its straight pieces where it has none. */
  openings: z
    .array(
      z.strictObject({
        /** Which panel, from 1 at the beginning of the line. */
        at: z.int().min(1).max(MAX_PANELS),
        part: partField,
        /** Courses of bricks below it; under an arch those of its two piers. */
        sill: z.int().min(0).max(40).default(0),
        /** An arch stands in the outermost stud at the face alone, before what is behind; else one in each row of the wall. */
        niche: z.boolean().default(false),
      }),
    )
    .max(MAX_PANELS)
    .refine(
      (openings) => new Set(openings.map(({ at }) => at)).size === openings.length,
      'a panel has one opening',
    )
    .default([]),
  letInColour: colourField.default(ANY_COLOUR),
  ...standFields,
});
type Run = z.output<typeof runSchema>;

export const runKind = defineKind({
  schema: runSchema,
  group: 'runs',
  word: 'wall or fence',
  public: true,
  refs: STAND_REFS,
  outline: 12,
  relief: 'top',
  outlinePoints: (run) => (run.ring === null ? run.points : ringCorners(run)),
  beyond: ({ thick }) => Math.max(0.5, thick / 2),
});

type Point = { x: number; y: number };
type Lined = Pick<Run, 'points' | 'ring' | 'panel' | 'thick'>;

/** Panels of a ring where their length is not given: a brick of four studs. */
const RING_PANEL = 4;

/** A straight piece of a wall or fence on the plan, through the middle of its thickness. */
export interface WallStraight {
  from: Point;
  to: Point;
  /** Studs. */
  length: number;
  /** Panels of the line before it. */
  before: number;
}

/** Length of a side of a ring, studs. */
export const ringSide = ({ panel }: Pick<Run, 'panel'>): number => (panel > 0 ? panel : RING_PANEL);

/** From the middle of a ring to the inner and outer faces of its panels, studs; 0 inside where it is none. */
export function ringRadii(run: Pick<Run, 'ring' | 'panel' | 'thick'>): { inner: number; outer: number } {
  const inner = run.ring === null ? 0 : polygonApothem(run.ring, ringSide(run));
  return { inner, outer: inner + run.thick };
}

/** The panels of a straight wall: from and to, studs along it; all of it where it has none. */
export function panelsAlong(
  { panel, ring }: Pick<Run, 'panel' | 'ring'>,
  length: number,
): { from: number; to: number }[] {
  if (panel === 0 || ring !== null) return [{ from: 0, to: length }];
  return Array.from({ length: Math.ceil(length / panel - TIE) }, (_, i) => ({
    from: i * panel,
    to: Math.min(length, (i + 1) * panel),
  }));
}
const TIE = 1e-9;

/**
 * The straight pieces of a wall or fence in the order of its line: between its points, those of no length left out; of a
 * ring its panels, clockwise. Their inner faces meet, so that they gape outside: bricks do not lie in one another.
 */
export function wallStraights(run: Lined): WallStraight[] {
  const { points, ring, thick } = run;
  let before = 0;
  if (ring === null)
    return points.slice(1).flatMap((to, i): WallStraight[] => {
      const from = points[i];
      const length = Math.hypot(to.x - from.x, to.y - from.y);
      if (length === 0) return [];
      const straight = { from, to, length, before };
      before += panelsAlong(run, length).length;
      return [straight];
    });
  const [middle, toward] = points;
  const length = ringSide(run);
  const out = ringRadii(run).inner + thick / 2;
  const first = Math.atan2(toward.y - middle.y, toward.x - middle.x);
  return Array.from({ length: ring }, (_, i) => {
    const angle = first + (2 * Math.PI * i) / ring;
    const [u, v] = [Math.cos(angle), Math.sin(angle)];
    const at = (along: number) => ({
      x: middle.x + out * u - along * v,
      y: middle.y + out * v + along * u,
    });
    return { from: at(-length / 2), to: at(length / 2), length, before: i };
  });
}

/** A panel of a wall or fence: on which straight piece it lies, and from and to, studs along that. */
export interface WallPanel {
  straight: WallStraight;
  from: number;
  to: number;
  length: number;
}

/** The panels of a wall or fence in the order of its line; of one built in its straight pieces. */
export const wallPanels = (run: Lined): WallPanel[] =>
  wallStraights(run).flatMap((straight) =>
    panelsAlong(run, straight.length).map(({ from, to }) => ({ straight, from, to, length: to - from })),
  );

/** The line of a wall or fence on the plan: of a ring from panel to panel, closed. */
export function wallLine(run: Lined): readonly Point[] {
  if (run.ring === null) return run.points;
  const ends = wallStraights(run).flatMap(({ from, to }) => [from, to]);
  return [...ends, ends[0]];
}

/** Corners of the square about a ring: whole studs from its middle, so that it is moved by whole steps. */
function ringCorners(run: Lined): Point[] {
  const [{ x, y }] = run.points;
  const far = Math.ceil(
    wallStraights(run).reduce((most, { from }) => Math.max(most, Math.hypot(from.x - x, from.y - y)), 0) -
      TIE,
  );
  return [
    { x: x - far, y: y - far },
    { x: x + far, y: y + far },
  ];
}

/** By how much two panels of a ring gape at their outer faces, studs. */
export const ringGape = ({ ring, thick }: Pick<Run, 'ring' | 'thick'>): number =>
  ring === null ? 0 : 2 * thick * Math.sin(Math.PI / ring);

/** Height of a wall or fence with what stands on it, plates. */
export const runHigh = ({ use, height, topFence }: Pick<Run, 'use' | 'height' | 'topFence'>): number =>
  height + (use === 'wall' && topFence ? FAMILIES.fence.height : 0);

/** The arch of a row of arches; null where a wall has none, or names another part. */
export function archOf({
  use,
  arches,
}: Pick<Run, 'use' | 'arches'>): { span: number; high: number; part: string } | null {
  const part = use === 'wall' && arches !== null ? partOf(arches) : null;
  return part?.family === 'arch' ? { span: Math.max(part.w, part.d), high: part.h, part: part.id } : null;
}
