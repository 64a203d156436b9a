import type { Scene } from '@quarry/core/document';
import { cablesOf, type Cable } from '@quarry/core/power';
import type { Picture } from './ink.ts';
import { toScreen } from './viewport.ts';

/** Dashes that tell one circuit from the next, px. */
const DASHES: readonly (readonly number[])[] = [[], [7, 3], [2, 3], [9, 3, 2, 3]];
/** Cables that go the same way lie side by side, px. */
const ASIDE = 2.5;
/** Half a connector's side, px. */
const CONNECTOR = 3;

/** Draws each cable as it is routed, with its connectors. */
export function drawCables(ctx: CanvasRenderingContext2D, { scene, palette, view }: Picture): void {
  ctx.save();
  ctx.strokeStyle = palette.tarn;
  ctx.fillStyle = palette.sheet;
  ctx.lineWidth = 1.6;
  knownCables(scene).forEach(({ lines, connectors }, i) => {
    const aside = (i % DASHES.length) * ASIDE;
    ctx.setLineDash([...(DASHES[i % DASHES.length] ?? [])]);
    ctx.beginPath();
    for (const points of lines)
      points.forEach((point, at) => {
        const { x, y } = toScreen(view, point.x, point.y);
        if (at === 0) ctx.moveTo(x + aside, y + aside);
        else ctx.lineTo(x + aside, y + aside);
      });
    ctx.stroke();
    ctx.setLineDash([]);
    for (const point of connectors) {
      const { x, y } = toScreen(view, point.x, point.y);
      ctx.beginPath();
      ctx.rect(x + aside - CONNECTOR, y + aside - CONNECTOR, 2 * CONNECTOR, 2 * CONNECTOR);
      ctx.fill();
      ctx.stroke();
    }
  });
  ctx.restore();
}

let known: { scene: Scene; cables: Cable[] } | null = null;
/** The cables of a scene, routed again only where what they hang on has changed. */
function knownCables(scene: Scene): readonly Cable[] {
  const before = known?.scene;
  const isSame =
    before?.circuit === scene.circuit &&
    before.device === scene.device &&
    before.supply === scene.supply &&
    before.module === scene.module;
  if (!known || !isSame) known = { scene, cables: cablesOf(scene) };
  return known.cables;
}
