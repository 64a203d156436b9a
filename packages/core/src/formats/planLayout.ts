// How a plan lies on a sheet of paper: which scales fit, and where its key stands.

export const PAPER_NAMES = ['a4', 'letter'] as const;
export type Paper = (typeof PAPER_NAMES)[number];
/** Papers lying down, mm: ISO 216; ANSI/ASME Y14.1 (8.5 × 11 in). */
export const PAPERS: Readonly<Record<Paper, { word: string; w: number; d: number }>> = {
  a4: { word: 'A4', w: 297, d: 210 },
  letter: { word: 'Letter', w: 279.4, d: 215.9 },
};

/** Scales a plan may be printed at, the largest first: 1 to so many. */
const SCALES = [1, 2, 4, 5, 8, 10, 12, 16, 20, 25, 40, 50, 100, 200] as const;

/** From the paper's edge to the frame, depth of the foot, and the key's depth below the plan or width beside it, mm. */
export const PLAN_SHEET = { margin: 10, foot: 18, keyDeep: 22, keyWide: 66 } as const;
/** Between the frame and the plan on all sides together, mm. */
const AIR = 4;

/**
 * Where the key of a plan stands at a scale: below it where there is room, else beside it.
 * @param size of the plan, mm
 * @returns null where the plan does not fit the paper at that scale
 */
export function keyPlace(
  size: { w: number; d: number },
  scale: number,
  paper: Paper,
): 'below' | 'beside' | null {
  const { margin, foot, keyDeep, keyWide } = PLAN_SHEET;
  const [w, d] = [PAPERS[paper].w - 2 * margin - 2 * AIR, PAPERS[paper].d - 2 * margin - foot - AIR];
  if (size.w / scale <= w && size.d / scale <= d - keyDeep) return 'below';
  if (size.w / scale <= w - keyWide && size.d / scale <= d) return 'beside';
  return null;
}

/** The scales at which a plan fits a paper, the largest first; none for a plan too large for all. */
export const planScales = (size: { w: number; d: number }, paper: Paper): number[] =>
  SCALES.filter((scale) => keyPlace(size, scale, paper) !== null);
