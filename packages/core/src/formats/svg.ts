import type { Drawing } from './drawing.ts';

/** A text within a document of marks: SVG, HTML. */
export const escapeMarks = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
const number = (value: number) => String(Number(value.toFixed(2)) + 0);

/** Stroke width of a weight, mm of the drawing: a heavy wall reads at 1 : 20. */
const PEN = 4;

/**
 * A drawing as an SVG document in true millimetres: 1 unit is 1 mm, and so is its size. One group a layer.
 * @param pen stroke width of the finest line, mm of the drawing
 */
export function writeSvg({ title, bounds, items }: Drawing, pen = PEN): string {
  const margin = 20;
  const [x, y, w, d] = [bounds.x - margin, bounds.y - margin, bounds.w + 2 * margin, bounds.d + 2 * margin];
  const layers = [...new Set(items.map(({ layer }) => layer))];
  const groups = layers.map((layer) => {
    const body = items
      .filter((item) => item.layer === layer)
      .map((item) => {
        if (item.kind === 'line') {
          const points = item.points.map((point) => `${number(point.x)},${number(point.y)}`).join(' ');
          const dash = item.dashed ? ` stroke-dasharray="${number(pen * 6)} ${number(pen * 4)}"` : '';
          const name = item.name === undefined ? '' : ` data-name="${escapeMarks(item.name)}"`;
          const thing =
            item.thing === undefined ? '' : ` data-thing="${escapeMarks(JSON.stringify(item.thing))}"`;
          return `    <${item.closed ? 'polygon' : 'polyline'} points="${points}" stroke-width="${number(item.weight * pen)}"${dash}${name}${thing}/>`;
        }
        const { at, size, turn, text } = item;
        const place =
          turn === 0 ? '' : ` transform="rotate(${number(turn)} ${number(at.x)} ${number(at.y)})"`;
        return `    <text x="${number(at.x)}" y="${number(at.y)}" font-size="${number(size * 1.35)}"${place}>${escapeMarks(text)}</text>`;
      });
    return `  <g id="${layer}">\n${body.join('\n')}\n  </g>`;
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${number(w)}mm" height="${number(d)}mm" viewBox="${number(x)} ${number(y)} ${number(w)} ${number(d)}">`,
    `  <title>${escapeMarks(title)}</title>`,
    '  <style>polygon,polyline{fill:none;stroke:#22292e}text{fill:#22292e;font-family:sans-serif;text-anchor:middle;dominant-baseline:central}</style>',
    ...groups,
    '</svg>',
    '',
  ].join('\n');
}
