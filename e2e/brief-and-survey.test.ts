import {
  choose,
  fill,
  goTo,
  openDisplay,
  openTab,
  pickFromOutline,
  press,
  saved,
  sees,
  valueOf,
} from './stage.ts';
import { useJourneys } from './suite.ts';

const { journey } = useJourneys();

journey('a weekend builder fills in a contest card and is warned', async (open) => {
  const page = await open('Iva Thorsby');
  await openDisplay(page, 'Heron at the weir', 'brief');
  // The demo's card: 12 bricks at most, six clear rounds asked for and four placed.
  await sees(page, 'The card, held against the scene');
  await fill(page, 'Placed of clear round 1×1', '6');
  await choose(page, 'Begin from', '16 × 16');
  expect(await valueOf(page, 'Height at most')).toBe('24b');
  const verdict = (line: string) =>
    page.waitForSelector(
      `::-p-xpath(//table[@aria-label="The card against the scene"]//tr[contains(., "${line}")])`,
    );
  await verdict('Height from the base');
  await page.waitForFunction(
    () =>
      !document
        .querySelector('table[aria-label="The card against the scene"]')
        ?.textContent?.includes('! no'),
  );
  // The hut is pushed three studs over the edge, from the ground up: the card allows two, from two bricks.
  await goTo(page, 'plan');
  await pickFromOutline(page, 'Plots', 'Eel trap hut');
  await fill(page, 'From west', '13');
  await goTo(page, 'brief');
  await sees(page, 'east 3');
  await page.locator('button[data-findings]').click();
  await sees(
    page,
    '«Eel trap hut» stands 3 studs out over the east side of the base; the card allows 2 studs.',
  );
  await press(page, 'Close the findings');
  await goTo(page, 'plan');
  await fill(page, 'From west', '12');
  await goTo(page, 'brief');
  await sees(page, 'east 2');
  await page.locator('button[data-findings]').click();
  // It stands on the bank, two bricks up: within the card now.
  await page.waitForFunction(() => !document.body.innerText.includes('out over the east side'));
});

journey('a lead finds that the module limit comes from the lift, not the door', async (open) => {
  const page = await open('Tobin Orr');
  await openDisplay(page, 'Skarn Edge', 'survey');
  await openTab(page, 'Larkmoor drill hall');
  await openTab(page, 'Way in');
  await sees(page, 'The tightest is the goods lift');
  await sees(page, '96 × 80 studs');
  await press(page, 'Make it the module limit');
  await sees(page, 'it passes');
  // The lift turns out smaller: what was agreed no longer passes, in the words of the lift.
  const lift =
    '::-p-xpath(//li[@aria-label="goods lift"]//label[normalize-space()="Inside, depth"]/following-sibling::input)';
  const depth = await page.waitForSelector(lift);
  await depth?.click({ count: 3 });
  await depth?.type('52 cm');
  await depth?.press('Enter');
  await sees(page, '△ The limit agreed, 96 × 80, does not pass the goods lift.');
  await press(page, 'Let it stand here');
  await page.locator('button[data-findings]').click();
  await sees(page, 'the goods lift lets 520 mm');
  await press(page, 'Close the findings');
  await press(page, 'Make it the module limit');
  await goTo(page, 'cut');
  await sees(page, 'does not pass the goods lift');
  await saved(page);
});

journey('the room by hand and by keyboard: snapping, reach, and the best move taken', async (open) => {
  const page = await open('Iva Thorsby');
  await openDisplay(page, 'Larch Lane', 'survey');
  await openTab(page, 'Reach');
  await sees(page, 'What would mend most');
  await page.locator('::-p-xpath(//ol/li[1]//button[normalize-space()="Do it"])').click();
  await sees(page, 'Everything can be reached by hand.');
  await page.locator('button[aria-label^="Undo"]').click();
  await sees(page, 'What would mend most');
  // A table moves with the arrows, and dragged to its neighbour it snaps to its edge.
  await page.$eval('[aria-label^="Right table "]', (table) => table instanceof SVGElement && table.focus());
  const west = await valueOf(page, 'From west');
  await page.keyboard.press('ArrowRight');
  await page.waitForFunction(
    (before) => [...document.querySelectorAll('input')].every((input) => input.value !== before),
    {},
    west,
  );
  expect([west, await valueOf(page, 'From west')]).toEqual(['2,010 mm', '2,020 mm']);
  const table = await page.$('[aria-label^="Right table "] rect');
  const box = await table?.boundingBox();
  if (!box) throw new Error('the table has no place on the screen');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 40, box.y + box.height / 2 + 3, { steps: 4 });
  await page.mouse.move(box.x + box.width / 2 + 1, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  await page.waitForFunction(() =>
    [...document.querySelectorAll('input')].some((input) => input.value === '2,010 mm'),
  );
  await saved(page);
});

journey('a builder in inches sees the room in inches, and may look but not move', async (open) => {
  const page = await open('Brenna Rook');
  await page.evaluate(() => localStorage.setItem('quarry-metric', 'in'));
  await page.reload();
  await openDisplay(page, 'Skarn Edge', 'survey');
  await openTab(page, 'Club workshop');
  await page.waitForFunction(() =>
    document.querySelector('[role="application"] svg')?.textContent?.includes('≈ 165 3/8 in'),
  );
  expect(await page.evaluate(() => /\d mm/.test(document.querySelector('main')?.textContent ?? ''))).toBe(
    false,
  );
  await page.locator('button[data-findings]').click();
  await sees(page, '≈ 36 in');
  await press(page, 'Close the findings');
  await page.locator('::-p-xpath(//aside[@aria-label="Survey"]//button[contains(., "Table 1")])').click();
  expect(await page.$eval('aside[aria-label="Survey"] input', (input) => input.disabled)).toBe(true);
});
