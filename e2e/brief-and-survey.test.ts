import {
  choose,
  fill,
  goTo,
  openDisplay,
  openList,
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
    '“Eel trap hut” stands 3 studs out over the east side of the base; the card allows 2 studs.',
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
  await openTab(page, 'Access route');
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

journey('a city keeper lists a room and finds how little of it its plot holds', async (open) => {
  const page = await open('Iva Thorsby');
  await openDisplay(page, 'Larch Lane', 'brief');
  await openTab(page, 'Space');
  await press(page, 'Add a room or yard');
  await page.waitForSelector('::-p-aria([name="True width of main room"])');
  await fill(page, 'True width of main room', '60 ft');
  expect(await valueOf(page, 'True width of main room')).toBe('18.288 m');
  await fill(page, 'True depth of main room', '12');
  await choose(page, 'Plot of main room', 'Tailor');
  // 18.288 m ÷ 30 ÷ 8 mm = 76.2 studs, 12 m = 50: 30 × 30 inside of 3,810.
  await sees(page, '△ 24 % of the floor it needs');
  await sees(page, 'needs 79 × 52, has 32 × 32');
  const row = (await page.$$('[aria-labelledby="budget"] [role="group"]'))[0];
  expect(await row?.evaluate((element) => element.getAttribute('aria-label'))).toBe('main room');
  await fill(page, 'True width of main room', '12000 m');
  await sees(page, 'is past the limit of 10000 m');
  await page.keyboard.press('Escape');
  await openTab(page, 'Scale');
  await press(page, 'Add a piece');
  await fill(page, 'Height of bench', '9');
  await sees(page, '△ reaches the chest');
  await fill(page, 'Height of bench', '1b');
  await page.waitForFunction(() => !document.body.innerText.includes('reaches the chest'));
  // A real thing, even for symmetry; the display's own scale decides.
  await fill(page, 'True width', '2.55');
  await choose(page, 'Symmetry', 'Even');
  await page.waitForFunction(() =>
    [...document.querySelectorAll('table[aria-label="Buildable sizes"] tbody tr')].every((line) => {
      const [, long, wide] = /(\d+) × (\d+) ×/.exec(line.textContent ?? '') ?? [];
      return Number(long) % 2 === 0 && Number(wide) % 2 === 0;
    }),
  );
  await saved(page);
});

journey(
  'a display without a room gets one, with a barrier too close to the wall; the prints follow',
  async (open) => {
    const page = await open('Mads Elvery');
    await openList(page);
    await page.focus('main input');
    await page.keyboard.type('A display with a name so long that it fills the bar and then some more of it');
    await page.keyboard.press('Enter');
    await page.waitForSelector('nav[aria-label="Pages"]');
    await goTo(page, 'survey');
    await sees(page, 'No room yet');
    await press(page, 'Describe the room');
    await page.waitForSelector('::-p-aria([name="Room, east to west"])');
    await fill(page, 'Room, east to west', '4 m');
    await fill(page, 'Room, north to south', '3200');
    await press(page, 'Barrier');
    await fill(page, 'One end, from north', '2600');
    await fill(page, 'Other end, from north', '2600');
    await sees(page, 'Behind “Barrier 1” 600 mm stay clear for the public; the aisle asked for is 915 mm.');
    await press(page, 'Whole place');
    await openTab(page, 'Visitors');
    await sees(page, '! 600 mm clear behind it');
    await fill(page, 'Aisle asked for', '0.5 m');
    await page.waitForFunction(() => !document.body.innerText.includes('! 600 mm'));
    // Bad input is named and nothing is lost.
    await openTab(page, 'Room');
    await fill(page, 'Room, east to west', '4 miles');
    await sees(page, '“miles” is not a unit');
    await page.keyboard.press('Escape');
    expect(await valueOf(page, 'Room, east to west')).toBe('4,000 mm');
    await saved(page);
    const links = await page.$$eval('a[href*="/sheets/"]', (all) => all.map((link) => link.href));
    expect(links).toHaveLength(3);
    for (const [i, type] of ['application/pdf', 'image/svg+xml', 'image/vnd.dxf'].entries()) {
      const answer = await page.evaluate(async (href) => {
        const response = await fetch(href);
        return {
          type: response.headers.get('content-type'),
          size: (await response.arrayBuffer()).byteLength,
        };
      }, links[i]);
      expect(answer.type).toContain(type);
      expect(answer.size).toBeGreaterThan(1000);
    }
    // The place goes again, with all that stands in it, and comes back by undo.
    await press(page, 'Remove the place');
    await sees(page, 'No room yet');
    await page.locator('button[aria-label^="Undo: removed Home"]').click();
    await page.waitForSelector('::-p-aria([name="Room, east to west"])');
    await page.waitForFunction(() => document.querySelector('[aria-label^="Barrier Barrier 1"]') !== null);
  },
);

journey(
  'two people in one room: a table moved by one is moved for the other; too late is told',
  async (open) => {
    const [iva, tobin] = [await open('Iva Thorsby'), await open('Tobin Orr')];
    for (const page of [iva, tobin]) {
      await openDisplay(page, 'Skarn Edge', 'survey');
      await openTab(page, 'Club workshop');
      await page.locator('::-p-xpath(//aside[@aria-label="Survey"]//button[contains(., "Table 4")])').click();
      await page.waitForSelector('::-p-aria([name="From west"])');
    }
    await fill(iva, 'From west', '2000');
    await tobin.waitForFunction(() =>
      [...document.querySelectorAll('input')].some((input) => input.value === '2,000 mm'),
    );
    await tobin.setOfflineMode(true);
    await fill(tobin, 'From west', '1900');
    await sees(tobin, '1 change waiting');
    await fill(iva, 'From west', '2050');
    await saved(iva);
    await tobin.setOfflineMode(false);
    await sees(tobin, 'Somebody changed this first');
    await press(tobin, 'Keep theirs');
    await tobin.waitForFunction(() =>
      [...document.querySelectorAll('input')].some((input) => input.value === '2,050 mm'),
    );
    await saved(tobin);
  },
);
