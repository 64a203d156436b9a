import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import {
  boardReady,
  choose,
  clickStuds,
  dragStuds,
  fill,
  goTo,
  openDisplay,
  openList,
  pickFromOutline,
  press,
  saved,
  sees,
  shows,
  take,
  valueOf,
} from './stage.ts';
import { useJourneys } from './suite.ts';

const { journey } = useJourneys();

const withShift = async (page: Page, act: () => Promise<void>) => {
  await page.keyboard.down('Shift');
  await act();
  await page.keyboard.up('Shift');
};
const counted = (page: Page, group: string) =>
  page.$eval(`::-p-xpath(//aside[@aria-label="Inspector"]//summary[contains(., "${group}")])`, (summary) =>
    Number(/\d+$/.exec(summary.textContent ?? '')?.[0]),
  );

journey(
  'a small valley from nothing: hill, water, stream, road, track, house, planting; judged as it grows',
  async (open) => {
    const page = await open('Tobin Orr');
    await openList(page);
    await page.focus('main input');
    await page.keyboard.type('Linden vale');
    await press(page, 'Table 192 × 96');
    await choose(page, 'Ground begins on', 'one brick up');
    await press(page, 'Begin');
    await page.waitForSelector('nav[aria-label="Pages"]');
    await goTo(page, 'plan');
    await take(page, 'h');
    await dragStuds(page, [8, 8], [72, 60]);
    await shows(page, 'Hill 1');
    await fill(page, 'Height', '10b');
    await choose(page, 'Slope', 'Convex');
    // What was typed is what it reaches.
    await page.waitForFunction(() => /Reaches\s*10b/.test(document.body.innerText));
    await sees(page, 'Slope north');
    await take(page, 'w');
    await dragStuds(page, [110, 20], [160, 56]);
    await shows(page, 'Water 1');
    await choose(page, 'Level', 'Ground');
    await fill(page, 'Above it', '-1b');
    // A road point by point, ended with Enter; it climbs the hill too steeply and is told so, then levelled.
    await take(page, 'y');
    await clickStuds(page, [4, 80], [90, 76], [120, 80], [186, 72]);
    await page.focus('[role="application"]');
    await page.keyboard.press('Enter');
    await shows(page, 'Way 1');
    await fill(page, 'Width', '10 studs');
    await take(page, 'y');
    await clickStuds(page, [40, 70], [40, 40]);
    await page.focus('[role="application"]');
    await page.keyboard.press('Enter');
    await shows(page, 'Way 2');
    await sees(page, '“Way 2” climbs at');
    // A ramp as short as this cannot keep 15 %: it would end in the air. At 80 % it does.
    await choose(page, 'Where steeper', 'Level to a ramp');
    await fill(page, 'Steepest', '80');
    await page.waitForFunction(() => !document.body.innerText.includes('“Way 2” climbs at'));
    // Track goes on piece by piece with the keys, and says how far it is from closing.
    await take(page, 't');
    await clickStuds(page, [100, 88]);
    await shows(page, 'Track 1');
    await page.focus('[role="application"]');
    await page.keyboard.press('.');
    await page.keyboard.press(',');
    await sees(page, '3 pieces');
    expect(await valueOf(page, 'Piece 3, radius')).toBe('40 studs');
    await take(page, 'b');
    await dragStuds(page, [84, 8], [100, 24]);
    await shows(page, 'Plot 1');
    await fill(page, 'Turned', '30');
    await sees(page, 'Touches, turned');
    await take(page, 'j');
    await dragStuds(page, [166, 8], [186, 30]);
    await shows(page, 'Planting 1');
    await sees(page, 'Plants');
    // The section cut is laid where one draws it.
    await take(page, 'd');
    await dragStuds(page, [10, 10], [150, 50]);
    await page.waitForSelector('figure[aria-label^="Section cut along"][aria-label*=" to "]');
    await saved(page);
    await page.reload();
    await boardReady(page);
    for (const [group, count] of [
      ['Hills', 1],
      ['Still water', 1],
      ['Ways', 2],
      ['Tracks', 1],
      ['Plots', 1],
      ['Plantings', 1],
    ] as const)
      expect([group, await counted(page, group)]).toEqual([group, count]);
  },
);

journey(
  'many at once: a box picks, lines up, copies along, keeps a piece and sets it out; one undo each',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Larch Lane');
    const plots = await counted(page, 'Plots');
    await take(page, 'b');
    await dragStuds(page, [20, 100], [28, 108]);
    await shows(page, `Plot ${plots + 1}`);
    await take(page, 'b');
    await dragStuds(page, [40, 103], [52, 111]);
    await shows(page, `Plot ${plots + 2}`);
    await page.focus('[role="application"]');
    await page.keyboard.press('Escape');
    await withShift(page, () => dragStuds(page, [17, 97], [56, 114]));
    await shows(page, '2 things');
    await press(page, 'North');
    await sees(page, '32 × 8 st');
    await page.focus('[role="application"]');
    await page.keyboard.press('ArrowRight');
    await sees(page, 'from 21, 100');
    await page.evaluate(() => {
      for (const details of document.querySelectorAll('aside[aria-label="Inspector"] details'))
        if (details.textContent?.startsWith('Copy and keep')) details.setAttribute('open', '');
    });
    await press(page, 'Keep as a piece');
    await fill(page, 'Copies', '2');
    await press(page, 'Copy along');
    await shows(page, '4 things');
    await press(page, 'Whole display');
    expect(await counted(page, 'Plots')).toBe(plots + 6);
    await press(page, 'Set out');
    await shows(page, '2 things');
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await page.waitForFunction(
      () => !document.querySelector('aside[aria-label="Inspector"] h2')?.textContent?.includes('things'),
    );
    expect(await counted(page, 'Plots')).toBe(plots + 2);
    await saved(page);
  },
);

journey(
  'files come in and go out: a height grid, a picture scaled by two points, outlines back as pads',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Larch Lane');
    const folder = mkdtempSync(join(tmpdir(), 'quarry-plan-'));
    const bring = async (word: string, file: string) => {
      await page.locator('summary[title="Bring in"]').click();
      const [chooser] = await Promise.all([page.waitForFileChooser(), press(page, word)]);
      await chooser.accept([file]);
    };
    try {
      const wrong = join(folder, 'wrong.asc');
      writeFileSync(wrong, 'ncols 2\nnrows 2\n1 2 3\n');
      await bring('Ground from a height file …', wrong);
      await sees(page, '“wrong.asc”: The height file has 3 values; its header names 4.');
      await page.keyboard.press('Escape');
      const hill = join(folder, 'knoll.asc');
      const head = 'ncols 8\nnrows 8\nxllcorner 80\nyllcorner -144\ncellsize 8\n';
      writeFileSync(hill, `${head}${'0 3 6 9 9 6 3 -9999\n'.repeat(8)}`);
      await bring('Ground from a height file …', hill);
      for (const words of ['8 × 8, 8 mm each', 'Over studs 10 to 18 east, 10 to 18 south', '8 cells'])
        await sees(page, words);
      await press(page, 'Lay as ground');
      await shows(page, 'Knoll');
      expect(
        await Promise.all(
          ['Highest', 'Width, east', 'From west', 'From north'].map((label) => valueOf(page, label)),
        ),
      ).toEqual(['3b', '8 studs', '10 studs', '10 studs']);
      await press(page, 'Whole display');
      const picture = join(folder, 'sketch.png');
      const png = await page.evaluate(() => {
        const canvas = document.createElement('canvas');
        canvas.width = 200;
        canvas.height = 100;
        return canvas.toDataURL('image/png');
      });
      writeFileSync(picture, Buffer.from(png.split(',')[1], 'base64'));
      await bring('A picture to draw after …', picture);
      await shows(page, 'Sketch');
      const width = Number((await valueOf(page, 'Width, east')).split(' ')[0]);
      await press(page, 'Measure (M)');
      await dragStuds(page, [10, 20], [30, 20]);
      await fill(page, 'They are apart', '10 studs');
      await page.waitForFunction(
        (half) => {
          const field = [...document.querySelectorAll('label')].find(
            (label) => label.textContent === 'Width, east',
          );
          const input = field && document.getElementById(field.htmlFor);
          return input instanceof HTMLInputElement && Math.abs(Number(input.value.split(' ')[0]) - half) < 1;
        },
        {},
        width / 2,
      );
      await saved(page);
      // The plan's own outlines come back as pads.
      const svg = await page.evaluate(async () => {
        const id = location.pathname.split('/')[2];
        return (await fetch(`/api/displays/${id}/sheets/plan.svg`)).text();
      });
      const outlines = join(folder, 'plan.svg');
      writeFileSync(outlines, svg);
      await press(page, 'Whole display');
      const pads = await counted(page, 'Pads');
      await bring('Pads from an exported plan …', outlines);
      await shows(page, `${pads} things`);
      await press(page, 'Whole display');
      expect(await counted(page, 'Pads')).toBe(2 * pads);
    } finally {
      rmSync(folder, { recursive: true });
    }
  },
);

journey(
  'two people draw in different sections at once; one without the network for a while; both see all of it',
  async (open) => {
    const [iva, brenna] = [await open('Iva Thorsby'), await open('Brenna Rook')];
    for (const page of [iva, brenna]) await openDisplay(page, 'Skarn Edge');
    const trees = await counted(iva, 'Trees');
    // What a page needs is there a moment after it has opened.
    await pickFromOutline(brenna, 'Plots', 'Baker');
    await press(brenna, 'Whole display');
    await brenna.setOfflineMode(true);
    await take(brenna, 'e');
    // Section B, Brenna's own; section D is not.
    await clickStuds(brenna, [30, 138]);
    await shows(brenna, `Tree ${trees + 1}`);
    await take(brenna, 'y');
    await clickStuds(brenna, [90, 136], [120, 136]);
    await brenna.focus('[role="application"]');
    await brenna.keyboard.press('Enter');
    await shows(brenna, 'Way 6');
    await fill(brenna, 'Width', '3 studs');
    await sees(brenna, 'waiting');
    await take(iva, 'h');
    await dragStuds(iva, [200, 76], [216, 84]);
    await shows(iva, 'Hill 4');
    await saved(iva);
    await brenna.setOfflineMode(false);
    await saved(brenna);
    for (const page of [iva, brenna]) {
      await press(page, 'Whole display');
      await page.waitForFunction(
        (wanted) => document.querySelector('aside[aria-label="Inspector"]')?.textContent?.includes(wanted),
        {},
        'Ways6',
      );
      expect([await counted(page, 'Trees'), await counted(page, 'Hills')]).toEqual([trees + 1, 4]);
      await pickFromOutline(page, 'Ways', 'Way 6');
      expect(await valueOf(page, 'Width')).toBe('3 studs');
    }
  },
);
