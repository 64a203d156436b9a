import { fill, goTo, openDisplay, openList, openTab, press, saved, sees, valueOf } from '../stage.ts';
import { useJourneys } from '../suite.ts';

const { journey } = useJourneys();

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
  await sees(page, 'lies past an arm’s ≈ 29 1/2 in');
  await press(page, 'Close the findings');
  await page.locator('::-p-xpath(//aside[@aria-label="Survey"]//button[contains(., "Table 1")])').click();
  expect(await page.$eval('aside[aria-label="Survey"] input', (input) => input.disabled)).toBe(true);
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
