import { runsEast } from './vocabulary.ts';
import type { PlotFields as Plot } from './kinds/plotSchema.ts';
import { isBoxed, isRound } from './plotAreas.ts';

// What the fields of a building come to: its storeys, the form of its roof, its ornament, the list of its shell.

/**
 * Where each storey of a building begins, whole plates above its ground: those with a height of their own as high as that,
 * the others an even share of what is left.
 * @returns one a storey, the first 0; fewer than its storeys where there is no height left for more
 */
export function storeyLevels({
  height,
  storeys,
  storeyHeights,
}: Pick<Plot, 'height' | 'storeys' | 'storeyHeights'>): number[] {
  const high = Math.round(height);
  const own = Array.from({ length: Math.min(storeys, high) }, (_, i) => storeyHeights[i] ?? null);
  const left = own.reduce<number>((rest, one) => rest - (one ?? 0), high);
  const shares = own.filter((one) => one === null).length;
  const share = (n: number) => Math.round((Math.max(0, left) * n) / Math.max(1, shares));
  const levels: number[] = [];
  let [at, shared] = [0, 0];
  for (const one of own) {
    if (at >= high && levels.length > 0) break;
    levels.push(at);
    at += Math.max(1, one ?? share(shared + 1) - share(shared));
    if (one === null) shared++;
  }
  return levels;
}

/** Height of a building's walls, plates: to the eaves, or to a flat roof. */
export const wallTop = ({ height, eaves }: Pick<Plot, 'height' | 'eaves'>): number =>
  Math.round(eaves === null ? height : Math.min(eaves, height));

/** Width of a building along the side with its street door, and its depth behind that, studs. */
export const frontSize = ({ w, d, front }: Pick<Plot, 'w' | 'd' | 'front'>): { wide: number; deep: number } =>
  runsEast(front) ? { wide: w, deep: d } : { wide: d, deep: w };

export type RoofForm = Plot['roofForm'];

/**
 * The form that a roof over the eaves takes: over a round building rings of bricks. A roof that falls to the front alone
 * needs a box, and is one of two sides where corners are left out; one of rings falls to all sides of a box.
 */
export function roofFormOf(
  plot: Partial<Pick<Plot, 'shape' | 'notches' | 'recesses'>> & Pick<Plot, 'roofForm'>,
): RoofForm {
  if (isRound(plot)) return 'stepped';
  if (isBoxed(plot)) return plot.roofForm === 'stepped' ? 'hip' : plot.roofForm;
  return plot.roofForm === 'lean-to' ? 'gable' : plot.roofForm;
}

/** Whether a place on a floor is half a stud off along x or y: jumpers hold what stands there. */
export const isOnHalf = (place: { x: number; y: number } | null): boolean =>
  place !== null && !(Number.isInteger(place.x) && Number.isInteger(place.y));

/** The name of the list that a building's plain shell makes: by it the list is known again. */
export const shellName = ({ name: of }: Pick<Plot, 'name'>): string => `Shell of ${of}`.slice(0, 60);

/** Whether a list of a building's is the one that its plain shell made. */
export const isShellList = ({ name: of }: { name: string }, plot: Pick<Plot, 'name'>): boolean =>
  of === shellName(plot);

/** How many times the pieces of its plain shell a building takes with its ornament. */
export const ornamented = ({ ornament }: Pick<Plot, 'ornament'>): number => 1 + ornament / 100;
