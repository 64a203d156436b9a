import { formatPlates } from '@quarry/core/grid';
import { listOf } from '@quarry/core/document';
import { findingMarks } from './findingMarks.ts';
import { MONO, SANS, type Picture } from './ink.ts';
import { BOARD_KINDS } from './kinds/index.ts';
import type { BoardKind } from './kinds/kind.ts';
import { LABEL_RANKS, textLabel, type BoardLabel } from './labels.ts';
import { spotHeights } from './spotHeights.ts';
import { toScreen } from './viewport.ts';

/** Room about the height of a contour, px: the same line is not numbered again beside it. */
const CONTOUR_AIR = 14;
/** Closer to a name than this a spot height is not written, px from its cross to the text. */
const BESIDE = 6;

/** All that is written on a board: of each kind, of the ground, of the section cut, and the marks of findings. */
export function collectLabels(picture: Picture): BoardLabel[] {
  return [
    ...findingLabels(picture),
    ...Object.values<BoardKind>(BOARD_KINDS).flatMap(({ labels, layer }) =>
      (labels?.(picture) ?? []).map((label) => (layer ? { layer, ...label } : label)),
    ),
    ...cutLabels(picture),
    ...spotLabels(picture),
    ...contourLabels(picture),
  ];
}

function findingLabels(picture: Picture): BoardLabel[] {
  const { palette } = picture;
  return findingMarks(picture).map(({ x, y, grave, findings }) => ({
    rank: LABEL_RANKS.finding,
    layer: 'findings',
    says: [
      [
        {
          text: findings.length === 1 ? '!' : String(Math.min(findings.length, 99)),
          font: `700 10px ${SANS}`,
          ink: palette.onIron,
        },
      ],
    ],
    spots: [{ x, y }],
    air: 0,
    ground: grave
      ? { as: 'ring', paper: palette.iron, ink: palette.sheet, radius: 7, width: 1.5 }
      : { as: 'triangle', paper: palette.ochre, rim: palette.sheet, radius: 8 },
  }));
}

/** The letters at both ends of the section cut. */
function cutLabels(picture: Picture): BoardLabel[] {
  const { cut, view, palette } = picture;
  if (!cut) return [];
  const from = toScreen(view, cut.a.x, cut.a.y);
  const to = toScreen(view, cut.b.x, cut.b.y);
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [u, v] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const end = (text: string, { x, y }: { x: number; y: number }, way: number) => {
    const spot = { x: x + way * 16 * u, y: y + way * 16 * v };
    const lift = 8 * Math.abs(u);
    return textLabel(
      picture,
      LABEL_RANKS.cut,
      text,
      [
        { x: spot.x, y: spot.y - lift },
        { x: spot.x, y: spot.y + lift },
        { x: spot.x + way * 12 * u, y: spot.y - lift },
      ],
      { font: `600 11px ${SANS}`, paper: palette.paper },
    );
  };
  return [end('S', from, -1), end('S′', to, 1)];
}

/** Heights of the highest ground of each section, beside its cross. */
function spotLabels(picture: Picture): BoardLabel[] {
  const { art, view, scene } = picture;
  if (!art) return [];
  return spotHeights(art.relief, listOf(scene, 'section')).map(({ x, y, height }) => {
    const on = toScreen(view, x, y);
    const text = formatPlates(height);
    const half = 3.2 * text.length;
    return {
      ...textLabel(
        picture,
        LABEL_RANKS.spot,
        text,
        [
          { x: on.x + BESIDE + half, y: on.y },
          { x: on.x - BESIDE - half, y: on.y },
          { x: on.x, y: on.y - 11 },
          { x: on.x, y: on.y + 11 },
        ],
        { font: `10px ${MONO}` },
      ),
      layer: 'contours',
    };
  });
}

/** Heights of contours in bricks, the longest lines first. */
function contourLabels(picture: Picture): BoardLabel[] {
  const { art, view, palette, width, height } = picture;
  if (!art) return [];
  return art.tiles
    .flatMap(({ labels }) => labels)
    .toSorted((a, b) => b.length - a.length)
    .flatMap(({ x, y, text }) => {
      const on = toScreen(view, x, y);
      if (on.x < 0 || on.y < 0 || on.x > width || on.y > height) return [];
      const label = textLabel(picture, LABEL_RANKS.contour, text, [on], {
        font: `500 11px ${MONO}`,
        ink: palette.contour,
      });
      return [{ ...label, layer: 'contours' as const, air: CONTOUR_AIR }];
    });
}
