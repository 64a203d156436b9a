import type { Rect } from '@quarry/core/grid';
import {
  fixedGround,
  runsEast,
  KINDS,
  newPadOrder,
  listOf,
  padsInOrder,
  type Pad,
  type Side,
} from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { visible, type Picture } from '../ink.ts';
import { rectToScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';
import { defaultLevel } from './make.ts';
import { waterLabel } from './names.ts';

export const padBoard: BoardKind = {
  drawings: [{ rank: 20, layer: 'ground', draw: drawEdges }],
  labels: (picture) =>
    listOf(picture.scene, 'pad').flatMap((pad) =>
      fixedGround(picture.scene, pad.ground) === 'water' ? waterLabel(picture, 'pad', pad) : [],
    ),
  picked: 160,
  list: padsInOrder,
  boxed: true,
  snaps: true,
  tool: {
    draws: 'area',
    key: 'p',
    make: (scene, rect, name) => {
      const { id: level, before } = defaultLevel(scene);
      return {
        words: 'a pad',
        data: {
          name: name('Pad'),
          ...rect,
          level,
          ground: 'grass',
          order: newPadOrder(scene),
        },
        before,
      };
    },
  },
  fields: [
    field.text('name', 'Name'),
    ...field.area(0.5),
    ...field.level(),
    field.ground('ground', 'Ground'),
    field.shape(),
    field.studs(
      'reach',
      'Slopes reach',
      0,
      256,
      0.5,
      ({ shape, edges }) => shape === 'rect' && hasSlope(edges),
    ),
  ],
};

/** Whether a side leads on as a slope or terrace. */
const hasSlope = (edges: unknown): boolean =>
  Object.values(KINDS.pad.schema.shape.edges.safeParse(edges).data ?? {}).some(
    ({ kind }) => kind === 'slope' || kind === 'terrace',
  );

/** How the sides of pads end: hachures down a slope, steps of a terrace, teeth of a cliff, a heavy line for a wall. */
function drawEdges(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, view } = picture;
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1;
  for (const pad of listOf(picture.scene, 'pad')) {
    if (pad.shape !== 'rect' || !visible(picture, pad)) continue;
    for (const side of ['n', 'e', 's', 'w'] as const)
      drawEdge(ctx, rectToScreen(view, pad), pad, side, view.scale);
  }
}

function drawEdge(ctx: CanvasRenderingContext2D, on: Rect<'px'>, pad: Pad, side: Side, scale: number): void {
  const { kind } = pad.edges[side];
  if (kind === 'open') return;
  const along = runsEast(side);
  const length = along ? on.w : on.d;
  const fixed = side === 'n' ? on.y : side === 's' ? on.y + on.d : side === 'w' ? on.x : on.x + on.w;
  const outward = side === 'n' || side === 'w' ? -1 : 1;
  const start = along ? on.x : on.y;
  const stroke = (a: number, b: number, c: number, d: number) => {
    ctx.moveTo(along ? a : b, along ? b : a);
    ctx.lineTo(along ? c : d, along ? d : c);
  };
  ctx.beginPath();
  if (kind === 'wall') {
    stroke(start, fixed, start + length, fixed);
    ctx.lineWidth = 3;
  } else if (kind === 'cliff')
    for (let at = start; at < start + length - 4; at += 7) {
      stroke(at, fixed, at + 3.5, fixed + outward * 5);
      stroke(at + 3.5, fixed + outward * 5, at + 7, fixed);
    }
  else if (kind === 'slope')
    for (let i = 0, at = start + 3; at < start + length; i++, at += 6)
      stroke(at, fixed, at, fixed + outward * (i % 2 ? 4 : 8));
  else
    for (const step of [1, 2, 3]) {
      const off = fixed + outward * step * pad.edges[side].run * Math.max(scale, 1);
      stroke(start, off, start + length, off);
    }
  ctx.stroke();
  ctx.lineWidth = 1;
}
