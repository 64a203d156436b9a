import { MARKER_STATES, listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { SANS, halo, visible, wrap, type Picture } from '../ink.ts';
import type { BoardKind } from './kind.ts';

export const markerBoard: BoardKind = {
  drawings: [{ rank: 92, draw: drawMarkers }],
  layer: 'signs',
  picked: 40,
  boxed: true,
  snaps: true,
  tool: {
    draws: 'area',
    key: 'k',
    make: (_scene, rect, name) => ({ words: 'a marker', data: { name: name('To be decided'), ...rect } }),
  },
  fields: [
    field.text('name', 'To be decided'),
    ...field.area(0.5),
    field.choice('state', 'State', MARKER_STATES),
    field.long('notes', 'Notes'),
  ],
};

/** What is to be decided, with a question mark until it is. */
function drawMarkers(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene } = picture;
  ctx.textBaseline = 'middle';
  for (const marker of listOf(scene, 'marker')) {
    const on = visible(picture, marker);
    if (!on) continue;
    ctx.strokeStyle = palette.ochre;
    ctx.lineWidth = 1.4;
    ctx.setLineDash([4, 3]);
    ctx.strokeRect(on.x, on.y, on.w, on.d);
    ctx.setLineDash([]);
    ctx.font = `600 11px ${SANS}`;
    ctx.textAlign = 'center';
    const words = marker.state === 'open' ? `${marker.name} ?` : marker.name;
    const lines = on.w > 40 ? wrap(ctx, words, on.w - 6, Math.trunc(on.d / 13)) : ['?'];
    lines.forEach((line, i) =>
      halo(
        ctx,
        line,
        on.x + on.w / 2,
        on.y + on.d / 2 + (i - (lines.length - 1) / 2) * 13,
        palette.ochre,
        palette.sheet,
      ),
    );
  }
}
