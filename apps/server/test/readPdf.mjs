/**
 * Reads PDFs with a general reader. For each line on standard input, the name of a file, prints a line: what it says of
 * itself, and its pages with size in mm, texts and their places, straight lines, codes.
 */
import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import decodeQR from 'qr/decode.js';
import { OPS, getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

const MM = 25.4 / 72;
for await (const file of createInterface({ input: process.stdin }))
  process.stdout.write(`${JSON.stringify(await readPdf(file))}\n`);

async function readPdf(file) {
  const document = await getDocument({ data: new Uint8Array(readFileSync(file)), verbosity: 0 }).promise;
  const pages = [];
  for (let i = 1; i <= document.numPages; i++) {
    const page = await document.getPage(i);
    const [, , w, h] = page.view;
    const { items } = await page.getTextContent();
    const { fnArray, argsArray } = await page.getOperatorList();
    const lines = [];
    const rects = [];
    fnArray.forEach((fn, at) => {
      if (fn !== OPS.constructPath) return;
      const [ops, args] = argsArray[at];
      let next = 0;
      for (const op of ops) {
        if (op === OPS.rectangle) {
          rects.push([0, 1, 2, 3].map(() => args[next++] * MM));
          continue;
        }
        if (op !== OPS.moveTo && op !== OPS.lineTo) continue;
        const point = [args[next++] * MM, args[next++] * MM].map((value) => Number(value.toFixed(3)));
        if (op === OPS.moveTo) lines.push([point]);
        else lines.at(-1)?.push(point);
      }
    });
    pages.push({
      w: w * MM,
      d: h * MM,
      texts: items
        .filter(({ str }) => str.trim() !== '')
        .map(({ str, transform, width }) => ({
          text: str,
          x: transform[4] * MM,
          y: (h - transform[5]) * MM,
          w: width * MM,
          size: Math.hypot(transform[0], transform[1]) * MM,
        })),
      lines,
      codes: codesOf(rects),
    });
  }
  const { info } = await document.getMetadata();
  await document.destroy();
  return { info, pages };
}

/** What the codes of a page say: each is drawn in dark squares of one size, closer to each other than to another code. */
function codesOf(rects) {
  const codes = [];
  for (const [x, y, w, h] of rects) {
    if (Math.abs(w - h) > 1e-6 || w > 2) continue;
    const near = codes.find(([first]) => Math.abs(first.x - x) < 30 && Math.abs(first.y - y) < 30);
    if (near) near.push({ x, y, w });
    else codes.push([{ x, y, w }]);
  }
  return codes.map((cells) => {
    const [left, top] = [Math.min(...cells.map(({ x }) => x)), Math.min(...cells.map(({ y }) => y))];
    const [{ w }] = cells;
    const at = (value) => Math.round(value / w);
    const size = Math.max(...cells.map(({ x }) => at(x - left))) + 1;
    // Four pixels a square and a quiet border of four squares.
    const side = (size + 8) * 4;
    const data = new Uint8Array(4 * side * side).fill(255);
    for (const { x, y } of cells)
      for (let k = 0; k < 16; k++) {
        const [px, py] = [(at(x - left) + 4) * 4 + (k % 4), (at(y - top) + 4) * 4 + Math.trunc(k / 4)];
        data.fill(0, 4 * (py * side + px), 4 * (py * side + px) + 3);
      }
    return decodeQR({ width: side, height: side, data });
  });
}
