/** Reads a PDF with a general reader and prints what it says of itself, and its pages: size in mm, texts with their places, straight lines. */
import { readFileSync } from 'node:fs';
import { OPS, getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

const MM = 25.4 / 72;
const document = await getDocument({ data: new Uint8Array(readFileSync(process.argv[2])), verbosity: 0 })
  .promise;
const pages = [];
for (let i = 1; i <= document.numPages; i++) {
  const page = await document.getPage(i);
  const [, , w, h] = page.view;
  const { items } = await page.getTextContent();
  const { fnArray, argsArray } = await page.getOperatorList();
  const lines = [];
  fnArray.forEach((fn, at) => {
    if (fn !== OPS.constructPath) return;
    const [ops, args] = argsArray[at];
    let next = 0;
    for (const op of ops) {
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
  });
}
const { info } = await document.getMetadata();
process.stdout.write(JSON.stringify({ info, pages }));
