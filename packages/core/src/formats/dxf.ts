import DxfDrawing from 'dxf-writer';
import type { Drawing } from './drawing.ts';

/** A drawing as DXF in millimetres, one layer a kind of thing, y to the north as that format has it. */
export function writeDxf({ items }: Drawing): string {
  const dxf = new DxfDrawing();
  dxf.setUnits('Millimeters');
  for (const layer of new Set(items.map((item) => item.layer)))
    dxf.addLayer(layer, DxfDrawing.ACI.WHITE, 'CONTINUOUS');
  for (const item of items) {
    dxf.setActiveLayer(item.layer);
    if (item.kind === 'line')
      dxf.drawPolyline(
        item.points.map(({ x, y }) => [x, -y]),
        item.closed,
      );
    else dxf.drawText(item.at.x, -item.at.y, item.size, -item.turn, plain(item.text), 'center', 'middle');
  }
  return dxf.toDxfString();
}

/** The format's oldest readers know ASCII only; what is past it is written by its code. */
const plain = (text: string) =>
  text.replace(
    /[^\x20-\x7e]/g,
    (letter) => `\\U+${letter.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`,
  );
