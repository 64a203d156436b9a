import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import Papa from 'papaparse';
import sharp from 'sharp';
import { present } from '@quarry/core/grid';
import { byExtent } from '../../../packages/core/test/runs.ts';
import { Harness, valleyOf } from './harness.ts';

/** What a sheet is made on, and its longer side, mm. */
const A4 = ['a4', 297] as const;
const BOTH = [A4, ['letter', 279.4]] as const;
const PAPERS = byExtent<readonly (readonly [string, number])[]>({
  check: [A4],
  test: [A4],
  all: BOTH,
  soak: BOTH,
});

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.end());

interface PdfPage {
  w: number;
  d: number;
  texts: { text: string; x: number; y: number; w: number; size: number }[];
  lines: [number, number][][];
  /** What the codes on it say to a phone. */
  codes: string[];
}
interface Pdf {
  info: { Title: string; Author: string; Language: string };
  pages: PdfPage[];
}

/** Fetches a sheet and reads it with a general reader of its format. */
const pagesOf = async (path: string) => (await pdfOf(path)).pages;

async function pdfOf(path: string, of?: string): Promise<Pdf & { name: string }> {
  const client = await harness.as('suri');
  const id = of ?? (await valleyOf(client));
  const response = await fetch(`${harness.url}/api/displays/${id}/sheets/${path}`, {
    headers: { cookie: client.cookie },
  });
  expect([response.status, response.headers.get('content-type')]).toEqual([200, 'application/pdf']);
  const name = response.headers.get('content-disposition') ?? '';
  return { ...(await reader.read(Buffer.from(await response.arrayBuffer()))), name };
}

/** Reads in a process of its own, one sheet after the other. */
class PdfReader {
  private readonly child = spawn(process.execPath, [join(__dirname, 'readPdf.mjs')], {
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  private readonly answers = createInterface({ input: this.child.stdout })[Symbol.asyncIterator]();
  private readonly folder = mkdtempSync(join(tmpdir(), 'quarry-pdf-'));

  async read(bytes: Buffer): Promise<Pdf> {
    const file = join(this.folder, 'sheet.pdf');
    writeFileSync(file, bytes);
    this.child.stdin.write(`${file}\n`);
    const { value, done } = await this.answers.next();
    if (done) throw new Error('the sheet could not be read');
    return JSON.parse(value) as Pdf;
  }

  end(): void {
    this.child.kill();
    rmSync(this.folder, { recursive: true });
  }
}
const reader = new PdfReader();
afterAll(() => reader.end());

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
    body: { message: 'This display has no place “moon”.' },
  });
  expect((await get('poster.pdf')).status).toBe(404);
  expect((await get('survey.svg?units=ells')).status).toBe(422);
});

test('the plan on one sheet: the footprint of 1,920 mm is true to the scale asked for; too large a scale is refused', async () => {
  const [page, ...rest] = await pagesOf('plan.pdf?scale=10');
  expect(rest).toEqual([]);
  expect([page.w, page.d]).toEqual([expect.closeTo(297, 1), expect.closeTo(210, 1)]);
  expect(page.texts.map(({ text }) => text)).toEqual(
    expect.arrayContaining(['Skarn Edge', '1 : 10 on A4', '48 studs, 38.4 cm']),
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
test('tiles of each module, one after the other: as many pages as those of each by itself', async () => {
  const { pages, name } = await pdfOf('tiles.pdf?of=modules');
  expect(name).toContain('skarn-edge-tiles-all-modules.pdf');
  // A page of A4 holds 23 × 33 studs: 48×48 takes 6, 96×48 10, 96×96 15, 48×96 9 pages; A1, A2, A3, B1 to B3, C1.
  expect(pages).toHaveLength(6 + 10 + 15 + 3 * 9 + 10);
  expect(pages[6].texts.map(({ text }) => text).join()).toContain('module A2: row 1 of 2, column 1 of 5');
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
test('the plan sheet has a key, north and contour heights, and no name lies on another', async () => {
  const [page] = await pagesOf('plan.pdf');
  const words = page.texts.map(({ text }) => text);
  for (const part of [
    'Module',
    'Section',
    'Table',
    'Building',
    'Water',
    'N',
    '15b',
    'A1',
    'F',
    'Signal cabin',
  ])
    expect(words).toContain(part);
  // Texts within the plan, by the boxes of their letters (capitals are 0.7 of the size).
  const boxes = page.texts.map(({ x, y, w, size }) => ({ x0: x, x1: x + w, y0: y - 0.7 * size, y1: y }));
  boxes.forEach((a, i) =>
    boxes.slice(i + 1).forEach((b, k) => {
      const on = a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1;
      expect([on, page.texts[i].text, page.texts[i + 1 + k].text]).toEqual([
        false,
        expect.anything(),
        expect.anything(),
      ]);
    }),
  );
});
test('names in Greek, Cyrillic and Chinese are printed; what no font has is told; a long word is broken', async () => {
  const client = await harness.as('suri');
  const long = 'Brückenbaustellenzufahrtsschrankenwärterhäuschen'.repeat(2).slice(0, 80);
  const file = await client('GET', `/api/displays/${await valleyOf(client)}/file`);
  const text = JSON.stringify(file.body)
    .replaceAll('Mill street', 'Улица Мельница Οδός 磨坊街 さくら ሀ')
    .replaceAll('Brenna Rook', long);
  const made = await client('POST', '/api/displays/import', text);
  expect(made.status).toBe(201);
  const { pages } = await pdfOf('rules.pdf', String(made.body.id));
  const words = pages.flatMap(({ texts }) => texts.map(({ text }) => text)).join('');
  for (const part of ['Улица', 'Οδός', '磨坊街', 'さくら', 'U+1200', long.slice(0, 24)])
    expect(words).toContain(part);
  for (const { texts, w } of pages)
    for (const { x, w: wide } of texts) expect(x >= 0 && x + wide <= w).toBe(true);
});
test('every sheet is made on A4, and on Letter where all is tried, and its file is named after what it shows', async () => {
  const files = {
    'survey.pdf': 'survey-club-workshop',
    'rules.pdf': 'house-rules',
    'plan.pdf': 'plan',
    'tiles.pdf?module=module-c1': 'tiles-c1',
    'order.pdf': 'order-of-building-up',
    'seam.pdf?seam=seam-b3-c1': 'seam-b3-c1',
    'strip.pdf?seam=seam-b3-c1': 'strip-b3-c1',
  };
  for (const [file, name] of Object.entries(files))
    for (const [paper, long] of PAPERS) {
      const made = await pdfOf(`${file}${file.includes('?') ? '&' : '?'}paper=${paper}`);
      expect(made.name).toBe(`inline; filename="skarn-edge-${name}.pdf"`);
      const [page] = made.pages;
      expect(Math.max(page.w, page.d)).toBeCloseTo(long, 1);
      for (const { x, y, w } of page.texts) expect(x >= 0 && x + w <= page.w && y <= page.d).toBe(true);
    }
});
test('lists are printed as the page worked them out, over as many pages as they take; what is too long is refused', async () => {
  const client = await harness.as('suri');
  const at = `${harness.url}/api/displays/${await valleyOf(client)}/sheets/lists.pdf?paper=letter`;
  const ask = (body: unknown, cookie = client.cookie) =>
    fetch(at, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json', origin: harness.url },
      body: JSON.stringify(body),
    });
  const list = (rows: string[][]) => ({
    title: 'Papers',
    sections: [
      {
        ...{ head: 'Kit', note: 'Counted.', tick: true, rows },
        columns: [
          { head: 'how many', share: 10, align: 'right' },
          { head: 'what', share: 60 },
        ],
      },
    ],
  });
  const long = 'a word that goes on '.repeat(12).trim();
  const rows = [['3', long], ...Array.from({ length: 80 }, (_, i) => [String(i), `thing ${i}`])];
  const made = await ask(list(rows));
  expect(made.status).toBe(200);
  const { pages } = await reader.read(Buffer.from(await made.arrayBuffer()));
  expect(pages.length).toBe(2);
  const words = pages.map(({ texts }) => texts.map(({ text }) => text).join('\n'));
  expect(words[1]).toContain('Kit, continued');
  for (let i = 0; i < 80; i++) expect(words.join('\n')).toContain(`thing ${i}`);
  for (const { texts, w, d } of pages)
    for (const { x, y, w: wide } of texts) expect(x >= 0 && x + wide <= w && y <= d).toBe(true);
  expect((await ask(list(Array.from({ length: 2001 }, () => ['1', 'x'])))).status).toBe(422);
  expect((await ask({ title: 'Papers', sections: [] })).status).toBe(422);
  expect((await ask(list(rows), '')).status).toBe(401);
});
test('labels of what is carried: which way round, how heavy, for whom, with a code that a phone reads', async () => {
  const base = harness.url;
  for (const [paper, long] of PAPERS) {
    const made = await pdfOf(`labels.pdf?paper=${paper}&base=${encodeURIComponent(base)}`);
    expect(made.name).toBe('inline; filename="skarn-edge-labels.pdf"');
    expect(made.pages[0].d).toBeCloseTo(long, 1);
    const words = made.pages.flatMap(({ texts }) => texts.map(({ text }) => text)).join('\n');
    for (const part of [
      'module A3',
      '17.9 kg, 2 people',
      'Front: east',
      'Front: east, south',
      'On Hall table',
      'Holds',
    ])
      expect(words).toContain(part);
    const client = await harness.as('suri');
    const display = await valleyOf(client);
    const addresses = made.pages.flatMap(({ codes }) => codes);
    expect(addresses.length).toBeGreaterThan(12);
    expect(addresses).toContain(`${base}/d/${display}/transport?sheet=load&thing=module-module-a3`);
  }
});
test('a code leads to where this program runs, and to no other', async () => {
  const client = await harness.as('suri');
  const at = `${harness.url}/api/displays/${await valleyOf(client)}/sheets/labels.pdf`;
  const ask = async (query: string) =>
    (await fetch(`${at}${query}`, { headers: { cookie: client.cookie } })).status;
  expect(await ask('?base=https://elsewhere.example')).toBe(400);
  expect(await ask('?base=javascript:alert(1)')).toBe(422);
  expect(await ask('')).toBe(400);
});
test('a sheet that cannot be made tells so on a page where a person opens it, in JSON where a program does', async () => {
  const client = await harness.as('suri');
  const url = `${harness.url}/api/displays/${await valleyOf(client)}/sheets/plan.pdf?scale=2`;
  const page = await fetch(url, { headers: { cookie: client.cookie, accept: 'text/html,*/*;q=0.8' } });
  expect([page.status, page.headers.get('content-type')]).toEqual([422, 'text/html; charset=utf-8']);
  expect(await page.text()).toContain('960 × 576 mm and does not fit A4; 1 : 8 does');
  const answer = await fetch(url, { headers: { cookie: client.cookie } });
  expect(await answer.json()).toMatchObject({ code: 'invalid' });
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
  test('build sheets drop nothing: the lists of all steps add up to the summary, and the summary to the counted pieces', async () => {
    const { pages, info, name } = await pdfOf('layers.pdf?module=module-a1');
    expect(name).toBe('inline; filename="skarn-edge-build-sheets-a1.pdf"');
    expect(info).toMatchObject({
      Author: 'Suri Vale',
      Language: 'en',
      Title: 'Build sheets of module A1, Skarn Edge',
    });
    const wordsOf = ({ texts }: PdfPage) => texts.map(({ text }) => text);
    const listed = (some: readonly PdfPage[]) => {
      const sums = new Map<string, number>();
      for (const { texts } of some)
        for (const { text, x, y } of texts) {
          if (!/ in /.test(text) || !/^[a-z]/.test(text)) continue;
          // Its number stands to the left of it, on its line.
          const qty = texts.find(
            (other) =>
              Math.abs(other.y - y) < 0.1 && other.x < x && x - other.x < 14 && /^[\d,]+$/.test(other.text),
          );
          sums.set(text, (sums.get(text) ?? 0) + Number(qty?.text.replace(',', '')));
        }
      return sums;
    };
    const isSummary = (page: PdfPage) => wordsOf(page).some((text) => /, summary/.test(text));
    const [summary, steps] = [pages.filter(isSummary), pages.filter((page) => !isSummary(page))];
    expect(Object.fromEntries(listed(steps))).toEqual(Object.fromEntries(listed(summary)));
    const total = [...listed(summary).values()].reduce((sum, qty) => sum + qty, 0);
    expect(wordsOf(pages[0]).join('\n')).toContain(`${total.toLocaleString('en')} pieces`);
    expect(listed(summary).get('plate 16×16 in any colour')).toBeGreaterThan(0);
    pages.forEach((page, i) => expect(wordsOf(page)).toContain(`page ${i + 1} of ${pages.length}`));
    expect(wordsOf(steps[0])).toEqual(
      expect.arrayContaining(['Module A1, step 1 of 34', '0', '8', '48', 'A']),
    );
    expect(wordsOf(steps[steps.length - 1])).toContain('scattered on the finished ground');
  });
  test('build sheets of a building hold each of its pieces once, and of none that is not there', async () => {
    const { pages, name } = await pdfOf('layers.pdf?plot=assay');
    expect(name).toBe('inline; filename="skarn-edge-build-sheets-assay-office.pdf"');
    const words = pages.map(({ texts }) => texts.map(({ text }) => text));
    const summary = present(words[0], 'the summary');
    // Four bays of 8 on each of two storeys: a door, and windows in the others.
    const doors = summary.indexOf('door 4×1×6 in Fern');
    expect(summary.slice(doors - 2, doors)).toContain('1');
    expect(summary).toContain('window 2×1×3 in Fern');
    // Two storeys of 21 plates: a floor, six courses, two plates each; 3 plates to the eaves; five courses of slopes and
    // the ridge: 45 + 5 × 3 + 1 plates.
    expect(words[1]).toEqual(expect.arrayContaining(['Assay office, step 1 of 27']));
    expect(summary.join(' ')).toContain('20b1p with its roof');
    expect(words[1]?.join(' ')).toContain('above its ground');
    const client = await harness.as('iva');
    const id = await valleyOf(client);
    const none = `${harness.url}/api/displays/${id}/sheets/layers.pdf?plot=nowhere`;
    expect((await fetch(none, { headers: { cookie: client.cookie } })).status).toBe(404);
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
    const words = (await reader.read(Buffer.from(await made.arrayBuffer()))).pages.flatMap(({ texts }) =>
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
test('a drawing is enlarged to studs: 1 : 1 over its pages, with the lines of plates; what is no picture is refused', async () => {
  const client = await harness.as('suri');
  const at = `${harness.url}/api/displays/${await valleyOf(client)}/sheets/enlarged.pdf?paper=a4`;
  const ask = (body: object) =>
    fetch(at, {
      method: 'POST',
      headers: { cookie: client.cookie, 'content-type': 'application/json', origin: harness.url },
      body: JSON.stringify({ title: 'Bakery', way: 'upright', studs: 48, picture, ...body }),
    });
  const drawn = await sharp({ create: { width: 300, height: 100, channels: 3, background: '#a8442a' } })
    .png()
    .toBuffer();
  const picture = `data:image/png;base64,${drawn.toString('base64')}`;
  const made = await ask({});
  expect(made.headers.get('content-disposition')).toBe('inline; filename="skarn-edge-bakery-enlarged.pdf"');
  const { pages } = await reader.read(Buffer.from(await made.arrayBuffer()));
  // 384 × 128 mm: 22 studs a page, 40 plates in one row of pages.
  expect(pages.map(({ w, d }) => [Math.round(w), Math.round(d)])).toEqual([
    [210, 297],
    [210, 297],
    [210, 297],
  ]);
  const [page] = pages;
  const [across, down] = [0, 1].map((way) =>
    page.lines
      .filter(([a, b]) => Math.abs(a[1 - way] - b[1 - way]) > 100 && a[way] === b[way])
      .map(([a]) => a[way])
      .toSorted((p, q) => p - q),
  );
  const gaps = (all: number[]) => [
    ...new Set(all.slice(1).map((to, i) => Math.round(10 * (to - all[i])) / 10)),
  ];
  expect([across.length, gaps(across)]).toEqual([21, [8]]);
  // The upper side of the frame is one of them.
  expect([down.length, gaps(down)]).toEqual([40, [3.2]]);
  const words = pages.map(({ texts }) => texts.map(({ text }) => text).join('\n'));
  expect(words[2]).toContain('Bakery: row 1 of 1, column 3 of 3');
  expect(words[2]).toContain('studs 44 to 48, 0b to 13b1p down');
  for (const [body, words] of [
    [{ picture: 'data:image/png;base64,AAAA' }, 'no whole PNG or JPEG'],
    [{ picture: picture.slice(0, 120) }, 'no whole PNG or JPEG'],
    [{ picture: 'data:image/svg+xml;base64,AAAA' }, 'the picture is a PNG or a JPEG'],
    [{ studs: 481 }, '480'],
    [{ studs: 480 }, 'the most is 60'],
  ] as const) {
    const refusal = await ask(body);
    expect(refusal.status).toBeGreaterThanOrEqual(400);
    expect(refusal.status).toBeLessThan(500);
    expect(await refusal.text()).toContain(words);
  }
});
