import { gramsOfPart } from '../catalogue/index.ts';
import { centreOf, containsPoint } from '../grid/index.ts';
import type { Need, NeedPurpose } from '../materials/index.ts';
import { listedMass, shellOf } from '../terrain/index.ts';
import {
  WORKS,
  listOf,
  ornamented,
  isShellList,
  type Scene,
  type Section,
  type Work,
} from '../document/index.ts';
import type { EarnedValue } from './earned.ts';
import { hoursBySection, methodOf, piecesBySection, rateOf } from './rates.ts';
import { evenPace, workDone } from './steps.ts';

// How much work a section is: typed hours, or its counted pieces at its builder's rate.

/** The kind of work that lays pieces of a purpose. */
export const WORK_OF: Readonly<Record<NeedPurpose, Work>> = {
  core: 'ground',
  deck: 'ground',
  under: 'ground',
  cover: 'ground',
  slope: 'ground',
  ground: 'ground',
  track: 'ground',
  rim: 'ground',
  spares: 'other',
  accent: 'dressing',
  planting: 'dressing',
  figures: 'figures',
  lights: 'lights',
  walls: 'structures',
  building: 'structures',
  other: 'other',
};

/** Pieces by section id and kind of work. */
export type PieceCounts = Readonly<Record<string, Partial<Record<Work, number>>>>;

/** Planned work by section and kind; what belongs to no section is left out. */
export function pieceCounts(needs: readonly Need[]): PieceCounts {
  const counts: Record<string, Partial<Record<Work, number>>> = {};
  for (const { section, purpose, qty } of needs) {
    if (section === null) continue;
    const work = WORK_OF[purpose];
    const of = (counts[section] ??= {});
    of[work] = (of[work] ?? 0) + qty;
  }
  return counts;
}

export interface Effort {
  /** The whole of it; null: neither typed nor counted. */
  hours: number | null;
  how: 'typed' | 'counted' | null;
  /** Counted pieces; what is guessed of buildings is not among them. */
  pieces: number;
  byWork: { work: Work; pieces: number; perHour: number; learnt: boolean }[];
  /** Buildings that have no parts list: pieces of their plain shells, and the hours those take. */
  guessed: { plot: string; name: string; pieces: number; hours: number }[];
}

/**
 * The whole work of a section: the hours that were typed, else its pieces by kind over the rates of its owner, and those
 * of the plain shells of its buildings that have no parts list.
 */
export function effortOf(
  scene: Scene,
  section: Pick<Section, 'id' | 'hours' | 'owner'>,
  counts: PieceCounts,
): Effort {
  const counted = counts[section.id] ?? {};
  const byWork = WORKS.flatMap((work) => {
    const pieces = counted[work] ?? 0;
    if (pieces === 0) return [];
    const { perHour, learnt } = rateOf(scene, section.owner, work, methodOf(scene, section.id));
    return perHour > 0 ? [{ work, pieces, perHour, learnt }] : [];
  });
  const pieces = byWork.reduce((sum, one) => sum + one.pieces, 0);
  if (section.hours !== null) return { hours: section.hours, how: 'typed', pieces, byWork, guessed: [] };
  const { perHour } = rateOf(scene, section.owner, 'structures');
  const guessed =
    perHour > 0 ? unlisted(scene, section.id).map((one) => ({ ...one, hours: one.pieces / perHour })) : [];
  if (pieces === 0 && guessed.length === 0) return { hours: null, how: null, pieces, byWork, guessed };
  return {
    hours:
      byWork.reduce((sum, one) => sum + one.pieces / one.perHour, 0) +
      guessed.reduce((sum, one) => sum + one.hours, 0),
    how: 'counted',
    pieces,
    byWork,
    guessed,
  };
}

/** Grams of a usual piece of a building: a brick 1×4, of which plain walls are made. */
const SHELL_PIECE = gramsOfPart('brick-1x4');

/**
 * What of a section's buildings no list counts: the pieces of their plain shells with their ornament, as bricks 1×4 of the
 * same mass; of those whose list is their shell's the ornament alone.
 */
function unlisted(scene: Scene, section: string): { plot: string; name: string; pieces: number }[] {
  const at = scene.section[section];
  if (!at) return [];
  const listed = listedMass(scene);
  return listOf(scene, 'plot').flatMap((plot) => {
    const { x, y } = centreOf(plot);
    if (!containsPoint(at, x, y)) return [];
    if (listed.plots.has(plot.id)) {
      const shell = listOf(scene, 'partList').find(
        (list) => list.use === 'need' && list.plot === plot.id && isShellList(list, plot),
      );
      const pieces = shell ? shell.copies * shell.lines.reduce((sum, { qty }) => sum + qty, 0) : 0;
      const ornament = Math.ceil(pieces * (ornamented(plot) - 1));
      return ornament > 0 ? [{ plot: plot.id, name: `${plot.name}, ornament`, pieces: ornament }] : [];
    }
    return [{ plot: plot.id, name: plot.name, pieces: Math.ceil(shellOf(plot).grams / SHELL_PIECE) }];
  });
}

export interface Earned extends EarnedValue {
  sections: number;
  /** Sections whose work is known. */
  known: number;
}

/**
 * Earned value over the sections whose work is known, planned evenly from the first day to the show.
 * @param unit hours: effort, and what sessions took; pieces: counted ones, and what sessions placed
 * @param today ISO date
 */
export function earnedValue(
  scene: Scene,
  today: string,
  counts: PieceCounts,
  unit: 'hours' | 'pieces',
): Earned {
  const sections = listOf(scene, 'section');
  const spent = unit === 'hours' ? hoursBySection(scene) : piecesBySection(scene);
  const known = sections.flatMap((section) => {
    const { hours, pieces } = effortOf(scene, section, counts);
    const whole = unit === 'hours' ? hours : pieces > 0 ? pieces : null;
    return whole === null
      ? []
      : [{ whole, done: workDone(scene, section), spent: spent.get(section.id) ?? 0 }];
  });
  const budget = known.reduce((sum, { whole }) => sum + whole, 0);
  return {
    planned: budget * (evenPace(scene, today)?.gone ?? 0),
    earned: known.reduce((sum, { whole, done }) => sum + whole * done, 0),
    actual: known.reduce((sum, one) => sum + one.spent, 0),
    budget,
    sections: sections.length,
    known: known.length,
  };
}
