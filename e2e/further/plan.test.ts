import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  clickStuds,
  countInOutline,
  dragStuds,
  fill,
  openDisplay,
  pickFromOutline,
  press,
  saved,
  sees,
  shows,
  take,
  valueOf,
} from '../stage.ts';
import { useJourneys } from '../suite.ts';

const { journey } = useJourneys();

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
      const pads = await countInOutline(page, 'Pads');
      await bring('Pads from an exported plan …', outlines);
      await shows(page, `${pads} things`);
      await press(page, 'Whole display');
      expect(await countInOutline(page, 'Pads')).toBe(2 * pads);
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
    const trees = await countInOutline(iva, 'Trees');
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
      expect([await countInOutline(page, 'Trees'), await countInOutline(page, 'Hills')]).toEqual([
        trees + 1,
        4,
      ]);
      await pickFromOutline(page, 'Ways', 'Way 6');
      expect(await valueOf(page, 'Width')).toBe('3 studs');
    }
  },
);
