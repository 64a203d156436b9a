import type { Rect } from '@quarry/core/grid';
import { listOf } from '@quarry/core/document';
import { MONO, visible, type Picture } from '../ink.ts';
import { LABEL_RANKS, type BoardLabel } from '../labels.ts';
import { rectToScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';

export const moduleBoard: BoardKind = {
  drawings: [{ rank: 120, draw: drawModules }],
  labels: (picture) => moduleLabels(picture),
  layer: 'modules',
  picked: 10,
  // By its flag alone.
  hit: (scene, id, { px, py, view }) => {
    const module = scene.module[id];
    if (!module) return false;
    const on = rectToScreen(view, module);
    return flagCorners(on).some(({ x, y }) => px >= x + 4 && px <= x + 36 && py >= y + 4 && py <= y + 20);
  },
  // A module's place is that of its bases: it changes on Cut.
  step: 0,
  snaps: true,
};

function drawModules(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
  const modules = listOf(picture.scene, 'module').flatMap((module) => {
    const on = visible(picture, module);
    return on ? [on] : [];
  });
  ctx.strokeStyle = palette.iron;
  ctx.lineWidth = 1.3;
  ctx.setLineDash([12, 4, 2, 4]);
  ctx.beginPath();
  for (const on of modules) ctx.rect(on.x, on.y, on.w, on.d);
  ctx.stroke();
  ctx.setLineDash([]);
}

/** The names of modules in flags: in their north-west corners, or in another where that is taken. */
const moduleLabels = (picture: Picture): BoardLabel[] =>
  listOf(picture.scene, 'module').flatMap((module) => {
    const on = visible(picture, module);
    if (!on || on.w < 30 || on.d < 22) return [];
    const { palette } = picture;
    const half = { w: FLAG.w / 2 + 5, d: FLAG.d / 2 + 5 };
    return [
      {
        rank: LABEL_RANKS.module,
        says: [[{ text: module.name, font: `500 10.5px ${MONO}`, ink: palette.onIron }]],
        spots: flagCorners(on).map(({ x, y }) => ({ x: x + half.w, y: y + half.d })),
        ground: { as: 'flag', paper: palette.iron },
      },
    ];
  });

/** Usual size of a flag, px. */
const FLAG = { w: 22, d: 14 };
/** Corners of a module that a flag may stand in, the best first: the west corners of its flag, px. */
const flagCorners = ({ x, y, d }: Rect<'px'>) => [
  { x, y },
  { x, y: y + d - FLAG.d - 10 },
];
