/** Reads a PDF with a general reader and prints its pages: size in mm, texts with their places, straight lines. */
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
    const points = [];
    let next = 0;
    for (const op of ops)
      if (op === OPS.moveTo || op === OPS.lineTo)
        points.push([args[next++] * MM, args[next++] * MM].map((value) => Number(value.toFixed(3))));
    lines.push(points);
  });
  pages.push({
    w: w * MM,
    d: h * MM,
    texts: items
      .filter(({ str }) => str.trim() !== '')
      .map(({ str, transform }) => ({ text: str, x: transform[4] * MM, y: (h - transform[5]) * MM })),
    lines,
  });
}
process.stdout.write(JSON.stringify(pages));
