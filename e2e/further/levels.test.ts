import type { Page } from 'puppeteer-core';
import {
  beginOnTable,
  choose,
  clickStuds,
  dragStuds,
  fill,
  goTo,
  openDisplay,
  openTab,
  pickFromOutline,
  press,
  saved,
  sees,
  shows,
  take,
  undo,
  valueOf,
} from '../stage.ts';
import { useJourneys } from '../suite.ts';

const { journey } = useJourneys();

/** Picks something from the outline, whatever is picked now. */
const toOutline = async (page: Page, group: string, name: string) => {
  await page.focus('[role="application"]');
  await page.keyboard.press('Escape');
  await pickFromOutline(page, group, name);
};
/** Waits until the page says so of a finding, or no longer. */
const hasFinding = (page: Page, words: string, is: boolean) =>
  page.waitForFunction((text, wanted) => document.body.innerText.includes(text) === wanted, {}, words, is);

journey(
  'a quay on pillars over water with a shed on it and a hut under it, a bridge, and a cellar under a house',
  async (open) => {
    const page = await open('Tobin Orr');
    await beginOnTable(page, 'Quay cove');
    await take(page, 'w');
    await dragStuds(page, [100, 30], [160, 80]);
    await shows(page, 'Water 1');
    await take(page, '2');
    await dragStuds(page, [110, 40], [134, 52]);
    await shows(page, 'Deck 1');
    await fill(page, 'Above it', '5b');
    // Its top: a brick of ground and five; under it a brick less of water and its own two plates.
    await sees(page, 'Top at');
    await sees(page, 'Farthest from a support');
    expect(await valueOf(page, 'Thick')).toBe('2p');
    // On two ends it hangs too far: the finding says so, and the fix that it offers mends it.
    await choose(page, 'Supports', 'Its two ends');
    await hasFinding(page, '“Deck 1” has a stud', true);
    await press(page, 'Find a fix');
    await press(page, 'Apply');
    await hasFinding(page, '“Deck 1” has a stud', false);
    // What is drawn while the deck is shown stands on it.
    await page.select('select[aria-label="Level shown"]', await levelValue(page, 'Deck 1'));
    await take(page, 'b');
    await dragStuds(page, [112, 42], [118, 46]);
    await shows(page, 'Plot 1');
    await sees(page, 'Stands on');
    expect(await valueOf(page, 'Stands on')).toMatch(/^deck /);
    // One under it, on the ground, is taller than the room.
    await page.select('select[aria-label="Level shown"]', 'ground');
    await take(page, 'b');
    await dragStuds(page, [122, 42], [128, 46]);
    await shows(page, 'Plot 2');
    await fill(page, 'Height', '6b');
    await hasFinding(page, '“Plot 2” is 6b tall', true);
    await fill(page, 'Height', '4b');
    await hasFinding(page, '“Plot 2” is 6b tall', false);
    await page.select('select[aria-label="Level shown"]', '');
    // The deck moves with the shed on it, and one undo takes both back.
    await toOutline(page, 'Decks', 'Deck 1');
    await page.focus('[role="application"]');
    await page.keyboard.press('ArrowRight');
    await saved(page);
    await toOutline(page, 'Plots', 'Plot 1');
    expect(await valueOf(page, 'From west')).toBe('113 studs');
    await page.focus('[role="application"]');
    await undo(page);
    await toOutline(page, 'Decks', 'Deck 1');
    expect(await valueOf(page, 'From west')).toBe('110 studs');
    await toOutline(page, 'Plots', 'Plot 1');
    expect(await valueOf(page, 'From west')).toBe('112 studs');
    // A road over the water fills it, until it bridges.
    await take(page, 'y');
    await clickStuds(page, [90, 66], [170, 66]);
    await page.focus('[role="application"]');
    await page.keyboard.press('Enter');
    await shows(page, 'Way 1');
    await fill(page, 'Width', '6 studs');
    await fill(page, 'Above ground', '2b');
    await hasFinding(page, 'of “Water 1”: there is no water under it', true);
    await page.locator('::-p-aria([name="Bridges where it is over the ground"])').click();
    await hasFinding(page, 'of “Water 1”: there is no water under it', false);
    // A stair leads down from the quay to the shore; a hut on it leaves no way down.
    await take(page, 'y');
    await clickStuds(page, [122, 42], [122, 26]);
    await page.focus('[role="application"]');
    await page.keyboard.press('Enter');
    await shows(page, 'Way 2');
    await choose(page, 'It is a', 'Path');
    await fill(page, 'Width', '4 studs');
    await choose(page, 'Where steeper', 'Build steps');
    for (const [point, height] of [
      ['Point 1', '6b'],
      ['Point 2', '1b'],
    ]) {
      await press(page, `${point}, height: hold one`);
      await fill(page, `${point}, height`, height);
    }
    await page.locator('::-p-aria([name="Bridges where it is over the ground"])').click();
    await take(page, 'b');
    await dragStuds(page, [120, 32], [124, 36]);
    await shows(page, 'Plot 3');
    await hasFinding(page, '“Plot 3” stands on “Way 2”, the only way down from “Deck 1”', true);
    await page.keyboard.press('Delete');
    await hasFinding(page, 'the only way down', false);
    // A cellar in ground too low for it is open to the sky, or takes nothing away: that is told.
    await take(page, '3');
    await dragStuds(page, [20, 20], [30, 28]);
    await shows(page, 'Cellar 1');
    await sees(page, 'Floor, ceiling at');
    await saved(page);
  },
);

journey('two people at once on two levels: each sees what the other sets down', async (open) => {
  const [above, below] = [await open('Iva Thorsby'), await open('Brenna Rook')];
  for (const page of [above, below]) await openDisplay(page, 'Skarn Edge');
  await below.select('select[aria-label="Level shown"]', await levelValue(below, 'Assay cellar'));
  await take(below, 'e');
  await clickStuds(below, [76, 90]);
  await below.waitForSelector('::-p-xpath(//aside[@aria-label="Inspector"]//h2[starts-with(., "Tree")])');
  const name = await valueOf(below, 'Name');
  await take(above, 'e');
  await clickStuds(above, [76, 90]);
  await above.waitForSelector('::-p-xpath(//aside[@aria-label="Inspector"]//h2[starts-with(., "Tree")])');
  await Promise.all([saved(above), saved(below)]);
  await toOutline(above, 'Trees', name);
  expect(await valueOf(above, 'Stands on')).toBe('cavity assay-cellar');
  await above.waitForFunction(
    () => (document.querySelector('[aria-label="Saving"]')?.textContent ?? '') === 'Saved',
  );
});

/** The value of a level in the level picker. */
const levelValue = (page: Page, begin: string) =>
  page.$$eval(
    'select[aria-label="Level shown"] option',
    (options, start) =>
      options.find((one): one is HTMLOptionElement => one.textContent?.startsWith(start) ?? false)?.value ??
      'none',
    begin,
  );

journey(
  'whether modules stand: the weakest joints are shown where they are, and a reload keeps it',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'cut');
    await openTab(page, 'Stability');
    const verdicts = () =>
      page.$$eval('table[aria-label="How they stand"] tbody tr', (rows) =>
        Object.fromEntries(
          rows.map(({ cells }) => [
            cells[0]?.textContent ?? '',
            /stands|apart/.exec(cells[3]?.textContent ?? '')?.[0],
          ]),
        ),
      );
    await press(page, 'Judge all');
    await sees(page, 'Judged as it is planned now');
    const standing = { A1: 'stands', A2: 'stands', B1: 'stands', B2: 'stands', B3: 'stands', C1: 'stands' };
    expect(await verdicts()).toEqual({ ...standing, A3: 'apart' });
    await page.locator('table[aria-label^="Weakest joints"] button').click();
    // The piece itself, red among its neighbours; what was judged is there again on the way back.
    await page.locator('table[aria-label^="Weakest joints"] a').click();
    await sees(page, 'Marked red: the piece at stud');
    await goTo(page, 'cut');
    await openTab(page, 'Stability');
    await sees(page, 'A3: weakest joints');
    await sees(page, 'Make the bridge of “Beck bridge” 3 plates thick');
    await page.reload();
    await page.waitForSelector('table[aria-label="How they stand"]');
    expect(await verdicts()).toEqual({ ...standing, A3: 'apart' });
  },
);
