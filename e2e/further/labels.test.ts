import type { Page } from 'puppeteer-core';
import { boardReady, openDisplay, restOnStud, signedInPage } from '../stage.ts';
import { useDemo } from '../suite.ts';

// What is written on the board is watched at the canvas itself: every text with the corners of its letters.

interface WrittenText {
  text: string;
  corners: { x: number; y: number }[];
}
declare global {
  interface Window {
    written?: () => WrittenText[];
  }
}

/** Records texts by canvas; a canvas that is cleared or sized begins again. Runs in the page. */
function watchTexts(): void {
  const texts = new Map<HTMLCanvasElement, WrittenText[]>();
  const proto = CanvasRenderingContext2D.prototype;
  const { fillText, clearRect } = proto;
  proto.clearRect = function (x, y, w, h) {
    if (w >= this.canvas.width) texts.set(this.canvas, []);
    clearRect.call(this, x, y, w, h);
  };
  proto.fillText = function (text, x, y, ...rest) {
    // Only canvases that are not in the page: rulers and overlays have their own.
    if (!this.canvas.isConnected && text.trim() !== '') {
      const size = this.measureText(text);
      const matrix = this.getTransform();
      const [left, right] = [x - size.actualBoundingBoxLeft, x + size.actualBoundingBoxRight];
      const [top, bottom] = [y - size.actualBoundingBoxAscent, y + size.actualBoundingBoxDescent];
      const corners = [
        [left, top],
        [right, top],
        [right, bottom],
        [left, bottom],
      ].map(([px, py]) => {
        const { x: cx, y: cy } = matrix.transformPoint({ x: px, y: py });
        return { x: cx, y: cy };
      });
      texts.set(this.canvas, [...(texts.get(this.canvas) ?? []), { text, corners }]);
    }
    fillText.call(this, text, x, y, ...rest);
  };
  window.written = () => [...texts].filter(([canvas]) => canvas.width > 400).flatMap(([, list]) => list);
}

/** Texts nearer than this are not told apart by the eye, px. */
const PLAY = 0.5;

/** Whether two convex shapes share more than their borders (separating axes). */
function overlap(a: WrittenText['corners'], b: WrittenText['corners']): boolean {
  for (const shape of [a, b])
    for (const [i, corner] of shape.entries()) {
      const next = shape[(i + 1) % shape.length];
      const long = Math.hypot(next.x - corner.x, next.y - corner.y) || 1;
      const [u, v] = [-(next.y - corner.y) / long, (next.x - corner.x) / long];
      const [from, to] = [a, b].map((one) => one.map(({ x, y }) => x * u + y * v));
      if (Math.max(...from) <= Math.min(...to) + PLAY || Math.max(...to) <= Math.min(...from) + PLAY)
        return false;
    }
  return true;
}

async function overlapping(page: Page): Promise<{ texts: number; pairs: string[] }> {
  // The board draws sharp when the view has come to rest.
  await page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 700)));
  const texts = (await page.evaluate(() => window.written?.())) ?? [];
  const pairs = texts.flatMap((one, i) =>
    texts
      .slice(i + 1)
      .filter((other) => overlap(one.corners, other.corners))
      .map((other) => `${one.text} | ${other.text}`),
  );
  return { texts: texts.length, pairs };
}

/** A city of 480×320 studs with houses, ways, hills, tables, modules, sections and notes close together. */
function crowded(): object {
  const grid = (columns: number, rows: number) =>
    Array.from({ length: columns * rows }, (_, i) => ({ i, x: i % columns, y: Math.trunc(i / columns) }));
  return {
    ...{ format: 'open-quarry-display', version: 1 },
    display: { name: 'Crowded', kind: 'city' },
    levels: [{ id: 'street', name: 'Street', height: 18 }],
    footprint: [{ id: 'all', name: 'All', x: 0, y: 0, w: 480, d: 320 }],
    tables: grid(4, 3).map(({ i, x, y }) => ({
      ...{ id: `t${i}`, name: `Hall table ${i + 1}`, x: x * 960, y: y * 860, w: 950, d: 850 },
    })),
    pads: [
      { id: 'ground', name: 'Ground', x: 0, y: 0, w: 480, d: 320, level: 'street', ground: 'grass' },
      ...grid(8, 5).map(({ i, x, y }) => ({
        ...{ id: `w${i}`, name: `Pond of ${i}`, x: x * 60 + 30, y: y * 64 + 40, w: 24, d: 16 },
        ...{ level: 'street', ground: 'water', order: i + 1 },
      })),
    ],
    hills: grid(10, 6).map(({ i, x, y }) => ({
      ...{ id: `h${i}`, name: `Little hill ${i}`, x: x * 48, y: y * 52, w: 40, d: 30 },
      ...{ level: 'street', height: 30 + (i % 5) * 6, shape: 'oval' },
    })),
    ways: grid(1, 12).map(({ i, y }) => ({
      ...{ id: `y${i}`, name: `Long lane ${i}`, width: 8 },
      points: [
        { x: 0, y: y * 26 + 20 },
        { x: 240, y: y * 26 + 28 },
        { x: 480, y: y * 26 + 18 },
      ],
    })),
    plots: grid(30, 20).map(({ i, x, y }) => ({
      ...{ id: `p${i}`, name: `Tall house ${i}`, x: x * 16, y: y * 16, w: 12, d: 10, height: 20 + (i % 7) },
      ...(i % 5 === 0 ? { turn: 30 } : {}),
    })),
    figures: grid(20, 12).map(({ i, x, y }) => ({
      ...{ id: `g${i}`, name: `Scene ${i}`, x: x * 24 + 5, y: y * 26 + 5, cast: (i % 12) + 1 },
    })),
    notes: grid(10, 8).map(({ i, x, y }) => ({
      ...{ id: `n${i}`, name: `Bring the spare pump ${i}`, x: x * 48 + 11, y: y * 40 + 9 },
    })),
    people: [],
    sections: grid(10, 4).map(({ i, x, y }) => ({
      ...{ id: `s${i}`, letter: String.fromCharCode(65 + (i % 26)), name: `Part ${i}`, owner: null },
      ...{ x: x * 48, y: y * 80, w: 48, d: 80 },
    })),
    modules: grid(10, 10).map(({ i, x, y }) => ({
      ...{ id: `m${i}`, name: `${String.fromCharCode(65 + y)}${x + 1}`, bases: [] },
      ...{ x: x * 48, y: y * 32, w: 48, d: 32 },
    })),
  };
}

const demo = useDemo();

describe('what is written on the plan', () => {
  let page: Page;
  beforeAll(async () => {
    page = await signedInPage(demo.browser(), demo.server(), 'Iva Thorsby');
    await page.evaluateOnNewDocument(watchTexts);
  });
  afterAll(() => page.browserContext().close());

  /** From the whole display to a close look. */
  const ZOOMS = [0, 4, 8];
  const expectNone = async (least: number) => {
    for (const steps of ZOOMS) {
      await page.focus('[role="application"]');
      await page.keyboard.press('0');
      for (let i = 0; i < steps; i++) await page.keyboard.press('+');
      const { texts, pairs } = await overlapping(page);
      expect({ steps, pairs }).toEqual({ steps, pairs: [] });
      if (steps === 0) expect(texts).toBeGreaterThan(least);
    }
  };

  test('nothing lies on anything else on the demo, at three zooms', async () => {
    await openDisplay(page, 'Skarn Edge');
    await page.waitForSelector('button[data-findings]:not([data-findings="0 0 0"])');
    await expectNone(40);
  });
  test('where the pointer rests, the full name of what is there', async () => {
    await page.reload();
    await boardReady(page);
    await restOnStud(page, [58, 84]);
    await page.waitForSelector('[role="application"][title$=": Baker"]');
    await restOnStud(page, [180, 96]);
    await page.waitForSelector('[role="application"][title$=": The Tarn"]');
  });
  test('nor on a display ten times as full', async () => {
    const id = await page.evaluate(async (text) => {
      const response = await fetch('/api/displays/import', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: text,
      });
      return String((await response.json()).id);
    }, JSON.stringify(crowded()));
    expect(id).not.toBe('undefined');
    await page.goto(`${demo.server().url}/d/${id}/plan`);
    await boardReady(page);
    await page.waitForSelector('button[data-findings]:not([data-findings="0 0 0"])');
    await expectNone(100);
  });
});
