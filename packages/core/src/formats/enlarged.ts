import { MM_PER_PLATE, MM_PER_STUD, PLATES_PER_BRICK } from '../grid/index.ts';
import { PAPERS, type Paper } from './planLayout.ts';

// A drawing enlarged to so many studs, such as the letters of a sign, and the pages on which it is printed at 1 : 1.

/** How it is built: lying on studs, or upright, its height in plates. */
export const BUILT_WAYS = ['lying', 'upright'] as const;
export type BuiltWay = (typeof BUILT_WAYS)[number];
/** The widest that a drawing is enlarged to, studs, and the most pages of one print. */
export const MAX_ENLARGED = 480;
export const MAX_ENLARGED_PAGES = 60;

/** A drawing at its size. */
export interface Enlarged {
  way: BuiltWay;
  /** Studs across. */
  studs: number;
  /** Rows that hold all of it: of studs where it lies, of plates where it stands. */
  rows: number;
  /** Size of the drawing itself, mm. */
  wMm: number;
  dMm: number;
}

/** Height of one row, mm. */
export const rowMm = (way: BuiltWay): number => (way === 'lying' ? MM_PER_STUD : MM_PER_PLATE);

/**
 * A drawing at so many studs of width, its sides as they are to each other.
 * @param picture its sides, in any unit, above 0
 * @param studs whole studs, 1 to `MAX_ENLARGED`
 */
export function enlargedTo(
  { width, height }: { width: number; height: number },
  way: BuiltWay,
  studs: number,
): Enlarged {
  const wMm = studs * MM_PER_STUD;
  const dMm = (wMm * height) / width;
  return { way, studs, rows: Math.max(1, Math.ceil(dMm / rowMm(way) - 1e-9)), wMm, dMm };
}

/** A page of it: the studs and rows it shows, from its north-west corner. */
export interface EnlargedPage {
  column: number;
  row: number;
  stud: number;
  studs: number;
  from: number;
  rows: number;
}

/** From the edge of the paper to what is printed, and room for the foot, mm. */
export const ENLARGED_MARGIN = { side: 16, top: 16, foot: 26 };

/**
 * The pages it takes on paper that stands upright, row by row; each holds whole studs, and whole bricks where it stands.
 * @returns how many there are each way, and each of them
 */
export function enlargedPages(
  { way, studs, rows }: Pick<Enlarged, 'way' | 'studs' | 'rows'>,
  paper: Paper,
): { columns: number; lines: number; pages: EnlargedPage[] } {
  // The papers are listed lying down.
  const { w: long, d: short } = PAPERS[paper];
  const across = Math.floor((short - 2 * ENLARGED_MARGIN.side) / MM_PER_STUD);
  const high = long - ENLARGED_MARGIN.top - ENLARGED_MARGIN.foot;
  const whole = way === 'lying' ? 1 : PLATES_PER_BRICK;
  const down = whole * Math.floor(high / (whole * rowMm(way)));
  const [columns, lines] = [Math.ceil(studs / across), Math.ceil(rows / down)];
  const pages = Array.from({ length: columns * lines }, (_, i): EnlargedPage => {
    const [column, row] = [i % columns, Math.trunc(i / columns)];
    return {
      ...{ column, row, stud: column * across, studs: Math.min(across, studs - column * across) },
      ...{ from: row * down, rows: Math.min(down, rows - row * down) },
    };
  });
  return { columns, lines, pages };
}
