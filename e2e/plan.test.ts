import type { Page } from 'puppeteer-core';
import {
  beginOnTable,
  boardReady,
  choose,
  clickStuds,
  countInOutline,
  dragStuds,
  fill,
  openDisplay,
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
journey(
  'a small valley from nothing: hill, water, stream, road, track, house, planting; judged as it grows',
  async (open) => {
    const page = await open('Tobin Orr');
    await beginOnTable(page, 'Linden vale');
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
      expect([group, await countInOutline(page, group)]).toEqual([group, count]);
  },
);

journey(
  'many at once: a box picks, lines up, copies along, keeps a piece and sets it out; one undo each',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Larch Lane');
    const plots = await countInOutline(page, 'Plots');
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
    expect(await countInOutline(page, 'Plots')).toBe(plots + 6);
    await press(page, 'Set out');
    await shows(page, '2 things');
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await page.waitForFunction(
      () => !document.querySelector('aside[aria-label="Inspector"] h2')?.textContent?.includes('things'),
    );
    expect(await countInOutline(page, 'Plots')).toBe(plots + 2);
    await saved(page);
  },
);
