import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Papa from 'papaparse';
import { Harness, valleyOf } from './harness.ts';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.end());

interface PdfPage {
  w: number;
  d: number;
  texts: { text: string; x: number; y: number }[];
  lines: [number, number][][];
}

/** Fetches a sheet and reads it with a general reader of its format. */
async function pagesOf(path: string): Promise<PdfPage[]> {
  const client = await harness.as('suri');
  const id = await valleyOf(client);
  const response = await fetch(`${harness.url}/api/displays/${id}/sheets/${path}`, {
    headers: { cookie: client.cookie },
  });
  expect([response.status, response.headers.get('content-type')]).toEqual([200, 'application/pdf']);
  return readPdf(Buffer.from(await response.arrayBuffer()));
}

async function readPdf(bytes: Buffer): Promise<PdfPage[]> {
  const folder = mkdtempSync(join(tmpdir(), 'quarry-pdf-'));
  try {
    const file = join(folder, 'sheet.pdf');
    writeFileSync(file, bytes);
    return JSON.parse(
      execFileSync(process.execPath, [join(__dirname, 'readPdf.mjs'), file], { encoding: 'utf8' }),
    ) as PdfPage[];
  } finally {
    rmSync(folder, { recursive: true });
  }
}
const longest = (lines: PdfPage['lines']) =>
  lines.flatMap((points) =>
    points.slice(1).map(([x, y], i) => Math.hypot(x - points[i][0], y - points[i][1])),
  );

test('the Survey sheet is A4 and true to its scale: a wall of 4,200 mm at 1 : 25 is 168 mm on paper', async () => {
  const [page, ...rest] = await pagesOf('survey.pdf');
  expect(rest).toEqual([]);
  expect([page.w, page.d]).toEqual([expect.closeTo(297, 1), expect.closeTo(210, 1)]);
  const texts = page.texts.map(({ text }) => text);
  expect(texts).toEqual(
    expect.arrayContaining(['Skarn Edge', 'Survey of Club workshop', '4,200 mm', '1,920 mm']),
  );
  const scale = Number(/1 : (\d+) on A4/.exec(texts.join('\n'))?.[1]);
  expect(scale).toBe(25);
  const lengths = longest(page.lines);
  for (const mm of [4200, 1920, 1000])
    expect(Math.min(...lengths.map((length) => Math.abs(length - mm / scale)))).toBeLessThan(0.02);
  // Everything lies on the paper.
  for (const points of page.lines)
    for (const [x, y] of points) expect(x >= 0 && y >= 0 && x <= 297 && y <= 210).toBe(true);
});
test('inch users get Letter, feet and inches, of the place they ask for', async () => {
  const [page] = await pagesOf('survey.pdf?units=in&place=larkmoor');
  expect([page.w, page.d]).toEqual([expect.closeTo(279.4, 1), expect.closeTo(215.9, 1)]);
  const texts = page.texts.map(({ text }) => text).join('\n');
  expect(texts).toContain('Survey of Larkmoor drill hall');
  expect(texts).toMatch(/1 : (24|48|96) on Letter/);
  expect(texts).not.toMatch(/\d mm/);
});
test('the house rules fit one upright sheet, with the crew on it', async () => {
  const pages = await pagesOf('rules.pdf');
  expect(pages).toHaveLength(1);
  expect(pages[0].d).toBeGreaterThan(pages[0].w);
  const texts = pages[0].texts.map(({ text }) => text).join('\n');
  for (const words of ['House rules', 'Brenna Rook', '11b (105.6 mm)', 'old and new mixed'])
    expect(texts).toContain(words);
});
test('a place or a sheet that is not there is named; a wrong unit too', async () => {
  const client = await harness.as('suri');
  const id = await valleyOf(client);
  const get = (path: string) => client('GET', `/api/displays/${id}/sheets/${path}`);
  expect(await get('survey.svg?place=moon')).toMatchObject({
    status: 404,
    body: { message: 'This display has no place «moon».' },
  });
  expect((await get('poster.pdf')).status).toBe(404);
  expect((await get('survey.svg?units=ells')).status).toBe(422);
});

test('the plan on one sheet: the footprint of 1,920 mm is true to the scale asked for; too large a scale is refused', async () => {
  const [page, ...rest] = await pagesOf('plan.pdf?scale=10');
  expect(rest).toEqual([]);
  expect([page.w, page.d]).toEqual([expect.closeTo(297, 1), expect.closeTo(210, 1)]);
  expect(page.texts.map(({ text }) => text)).toEqual(
    expect.arrayContaining(['Skarn Edge', '1 : 10 on A4', '48 studs']),
  );
  expect(Math.min(...longest(page.lines).map((length) => Math.abs(length - 192)))).toBeLessThan(0.02);
  const client = await harness.as('suri');
  const refused = await fetch(
    `${harness.url}/api/displays/${await valleyOf(client)}/sheets/plan.pdf?scale=2`,
    {
      headers: { cookie: client.cookie },
    },
  );
  expect([refused.status, await refused.text()]).toEqual([422, expect.stringContaining('960 × 576 mm')]);
});
test('tiles of one module are 1 : 1: a stud is 8 mm, each page says which it is, pages meet stud for stud', async () => {
  const pages = await pagesOf('tiles.pdf?module=module-a1');
  // A1 is 48 × 48 studs; a page of A4 holds 23 × 33.
  expect(pages).toHaveLength(6);
  const [first] = pages;
  expect([first.w, first.d]).toEqual([expect.closeTo(210, 1), expect.closeTo(297, 1)]);
  const heads = pages.flatMap(({ texts }) =>
    texts.map(({ text }) => text).filter((text) => text.startsWith('studs')),
  );
  expect(
    heads.map((text) => /studs (\d+) to (\d+) east, (\d+) to (\d+)/.exec(text)?.slice(1).map(Number)),
  ).toEqual([
    [0, 23, 0, 33],
    [23, 46, 0, 33],
    [46, 48, 0, 33],
    [0, 23, 33, 48],
    [23, 46, 33, 48],
    [46, 48, 33, 48],
  ]);
  const across = first.lines
    .filter((line) => line.length === 2 && line[0][1] === line[1][1])
    .map(([a]) => a[1]);
  const rows = [...new Set(across.map((y) => y.toFixed(2)))].map(Number).sort((a, b) => a - b);
  expect(rows.some((y) => rows.some((other) => Math.abs(other - y - 8) < 0.01))).toBe(true);
  expect(Math.min(...longest(first.lines).map((length) => Math.abs(length - 33 * 8)))).toBeLessThan(0.01);
});
test('the plan’s outlines and heights as open files, for those who may see the display', async () => {
  const client = await harness.as('suri');
  const at = `${harness.url}/api/displays/${await valleyOf(client)}/sheets`;
  const body = async (file: string) =>
    (await fetch(`${at}/${file}`, { headers: { cookie: client.cookie } })).text();
  expect(await body('plan.svg')).toContain('data-name="Skarn meadow"');
  expect(await body('plan.dxf')).toContain('CONTOURS');
  expect((await body('heights.asc')).split('\n').slice(0, 2)).toEqual(['ncols 240', 'nrows 144']);
  expect((await fetch(`${at}/heights.asc`)).status).toBe(401);
});

describe('seam sheets', () => {
  test('the strip is true to 1 : 1: stud lines of B3–C1 lie 8 mm apart, over two pages that overlap', async () => {
    const pages = await pagesOf('strip.pdf?seam=seam-b3-c1');
    // 48 studs of 8 mm and 4 mm of margin at both ends; a page takes 269 mm, 16 of them twice.
    expect(pages).toHaveLength(2);
    // Stud lines on the first page: short ones up and down through the middle of the paper.
    const ticks = pages[0].lines
      .filter(
        (points) =>
          points.length === 2 && points[0][0] === points[1][0] && Math.abs(points[0][1] - points[1][1]) < 4,
      )
      .map(([[x]]) => x)
      .sort((a, b) => a - b);
    expect(ticks.length).toBeGreaterThan(20);
    for (const [i, x] of ticks.slice(1).entries()) {
      const step = x - ticks[i];
      expect(Math.abs(step / 8 - Math.round(step / 8))).toBeLessThan(0.01);
    }
  });
  test('the seam sheet says what crosses, where connectors go and what is to be mended', async () => {
    const [page] = await pagesOf('seam.pdf?seam=seam-b1-b2');
    const words = page.texts.map(({ text }) => text).join('\n');
    for (const part of [
      'Seam B1–B2',
      'signed by one side',
      'Brenna Rook',
      'Mill street',
      'Connectors',
      'raise by 1p',
    ])
      expect(words).toContain(part);
  });
  test('CSV, JSON and the neighbour’s edge agree, each read by a general reader', async () => {
    const client = await harness.as('suri');
    const id = await valleyOf(client);
    const get = async (path: string) => {
      const response = await fetch(`${harness.url}/api/displays/${id}/sheets/${path}`, {
        headers: { cookie: client.cookie },
      });
      expect(response.status).toBe(200);
      return response.text();
    };
    const csv = Papa.parse<Record<string, string>>(await get('seam.csv?seam=seam-b3-c1'), {
      header: true,
      skipEmptyLines: true,
    });
    expect(csv.errors).toEqual([]);
    const json = JSON.parse(await get('seam.json?seam=seam-b3-c1'));
    expect(json).toMatchObject({ seam: 'B3–C1', state: 'open', line: { length: 48 } });
    expect(csv.data.map((row) => Number(row['C1 plates']))).toEqual(
      json.studs.map(({ b }: { b: { height: number } }) => b.height),
    );
    const asc = (await get('edge.asc?seam=seam-b3-c1&side=b')).split('\n');
    expect(asc.slice(0, 2)).toEqual(['ncols 8', 'nrows 48']);
    expect(asc.slice(6, 54).map((row) => Number(row.split(' ')[0]))).toEqual(
      csv.data.map((row) => Number(row['C1 plates'])),
    );
    expect(
      (
        await fetch(`${harness.url}/api/displays/${id}/sheets/seam.csv?seam=seam-a1-z9`, {
          headers: { cookie: client.cookie },
        })
      ).status,
    ).toBe(404);
  });
  test('build sheets: a page for each step, whose lists add up to what the shell counts', async () => {
    const pages = await pagesOf('layers.pdf?module=module-a1');
    const words = pages.map(({ texts }) => texts.map(({ text }) => text).join('\n'));
    expect(pages.length).toBeGreaterThan(10);
    expect(words[0]).toContain('Module A1, layer 1 of ');
    expect(words[0]).toContain('brick 2×4 in any colour');
    expect(words.join('\n')).toContain('plate 16×16 in any colour');
  });
  test('a pick list goes drawer by drawer; what is no list is refused, and nobody from outside gets one', async () => {
    const client = await harness.as('brenna');
    const id = await valleyOf(client);
    const ask = (body: unknown, cookie = client.cookie) =>
      fetch(`${harness.url}/api/displays/${id}/sheets/pick.pdf`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    const line = {
      place: 'drawer 3',
      person: 'Brenna Rook',
      part: 'brick 2×4',
      colour: 'Slate',
      section: 'B',
      qty: 12,
    };
    const made = await ask({ lines: [line, { ...line, place: 'drawer 7', qty: 5 }] });
    expect([made.status, made.headers.get('content-type')]).toEqual([200, 'application/pdf']);
    const words = (await readPdf(Buffer.from(await made.arrayBuffer()))).flatMap(({ texts }) =>
      texts.map(({ text }) => text),
    );
    for (const part of [
      'drawer 3, Brenna Rook',
      'drawer 7, Brenna Rook',
      'brick 2×4 in Slate',
      '17 pieces in all. Printed',
    ])
      expect(words.join('\n')).toContain(part);
    expect((await ask({ lines: [] })).status).toBe(422);
    expect((await ask({ lines: [{ ...line, qty: -1 }] })).status).toBe(422);
    expect((await ask({ lines: [line] }, '')).status).toBe(401);
  });
  test('the order of building up is a list to tick off', async () => {
    const pages = await pagesOf('order.pdf');
    const words = pages.flatMap(({ texts }) => texts.map(({ text }) => text)).join('\n');
    for (const part of [
      'Order of building up',
      'Set down A2',
      'Pin B2 to B3',
      'local rules and qualified people decide',
    ])
      expect(words).toContain(part);
  });
});
