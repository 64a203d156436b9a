import type { EvaluatedFinding } from '@quarry/core/findings';
import type { Picture } from './ink.ts';
import { toScreen } from './viewport.ts';

/** Findings closer than this are one mark, px. */
const CROWD = 26;
/** How far about its middle a mark is pressed, px. */
const PRESSED = 11;

/** One mark for all open findings of a place, px. */
export interface FindingMark {
  x: number;
  y: number;
  /** One of them is an error. */
  grave: boolean;
  /** The errors first. */
  findings: readonly EvaluatedFinding[];
}

/** The marks of findings on a board; notes have none. Each stands at its gravest finding. */
export function findingMarks({
  findings,
  view,
  width,
  height,
}: Pick<Picture, 'findings' | 'view' | 'width' | 'height'>): FindingMark[] {
  const open = findings
    .filter(({ place, accepted, severity }) => place && !accepted && severity !== 'note')
    .toSorted((a, b) => Number(b.severity === 'error') - Number(a.severity === 'error'));
  const marks: (FindingMark & { findings: EvaluatedFinding[] })[] = [];
  /** Marks by the squares of a raster, so that each finding looks at nine squares only. */
  const raster = new Map<string, (typeof marks)[number][]>();
  for (const finding of open) {
    if (!finding.place) continue;
    const { x, y } = toScreen(view, finding.place.x, finding.place.y);
    if (x < -CROWD || y < -CROWD || x > width + CROWD || y > height + CROWD) continue;
    const [column, row] = [Math.floor(x / CROWD), Math.floor(y / CROWD)];
    const near = [-1, 0, 1]
      .flatMap((dx) => [-1, 0, 1].flatMap((dy) => raster.get(`${column + dx} ${row + dy}`) ?? []))
      .find((mark) => Math.hypot(mark.x - x, mark.y - y) < CROWD);
    if (near) near.findings.push(finding);
    else {
      const mark = { x, y, grave: finding.severity === 'error', findings: [finding] };
      marks.push(mark);
      const key = `${column} ${row}`;
      raster.set(key, [...(raster.get(key) ?? []), mark]);
    }
  }
  return marks;
}

/** The mark under a point of the board, px; null where there is none. */
export const findingMarkAt = (
  picture: Pick<Picture, 'findings' | 'view' | 'width' | 'height'>,
  px: number,
  py: number,
): FindingMark | null =>
  findingMarks(picture).find(({ x, y }) => Math.hypot(x - px, y - py) <= PRESSED) ?? null;
