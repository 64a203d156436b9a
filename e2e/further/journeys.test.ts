import { join } from 'node:path';
import { validateBytes } from 'gltf-validator';
import {
  choose,
  dragStuds,
  fill,
  goTo,
  openDisplay,
  openTab,
  pickFromOutline,
  press,
  saved,
  sees,
  undo,
  valueOf,
} from '../stage.ts';
import { useJourneys } from '../suite.ts';

const { journey } = useJourneys();

journey('from the plan to bases, stages and findings, and back by undo', async (open) => {
  const page = await open('Iva Thorsby');
  await openDisplay(page, 'Skarn Edge');
  await sees(page, '240 × 144 st');

  // A table moves by its figures, in any unit, and tells its fault.
  await pickFromOutline(page, 'Tables', 'Table 2');
  await fill(page, 'From west', '6 ft 5 1/2 in');
  expect(await valueOf(page, 'From west')).toBe('1,968.5 mm');
  await fill(page, 'Width, east', '0.2 furlongs');
  await sees(page, '“furlongs” is not a unit');
  await page.keyboard.press('Escape');
  await fill(page, 'Width, east', '990 mm');

  // A pad is moved with the arrows and dragged on the board.
  await press(page, 'Whole display');
  await pickFromOutline(page, 'Pads', 'Upper yard');
  await page.focus('[role="application"]');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.down('Shift');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.up('Shift');
  expect([await valueOf(page, 'From west'), await valueOf(page, 'From north')]).toEqual([
    '9 studs',
    '66 studs',
  ]);
  await dragStuds(page, [20, 74], [24, 70]);
  await page.waitForFunction(() =>
    [...document.querySelectorAll('input')].some((input) => input.value === '13 studs'),
  );
  await fill(page, 'Width, east', '40');
  await fill(page, 'Above it', '1b1p');
  expect(await valueOf(page, 'Above it')).toBe('1b1p');

  // The footprint grows past its tables, and the findings say by how much.
  await press(page, 'Whole display');
  await pickFromOutline(page, 'Footprint', 'Valley');
  await fill(page, 'Width, east', '256');
  await press(page, 'Whole display');
  await page.locator('button[data-findings]').click();
  await sees(page, 'The scene hangs 23.5 studs');
  await page
    .locator(
      '::-p-xpath(//aside[@aria-label="Findings"]//li[contains(., "Table 4")]//button[contains(., "Show on the plan")])',
    )
    .click();
  await page.waitForSelector('::-p-xpath(//aside[@aria-label="Inspector"]//h2[normalize-space()="Table 4"])');
  await press(page, 'Close the findings');
  await undo(page);
  await sees(page, '240 × 144 studs');

  // Cut: modules on real bases, what to buy and what it costs; taken, then counted on Stockpile.
  await goTo(page, 'cut');
  await press(page, 'Cut');
  await sees(page, 'Proven: no cutting costs less');
  await press(page, 'Use this cutting');
  await sees(page, 'Current:');
  await saved(page);
  await goTo(page, 'stockpile');
  await openTab(page, 'Bases');
  await sees(page, 'Bases short');
  await fill(page, 'Owned', '40');
  await sees(page, 'enough');

  // A section goes through its stages; undo takes back the last act only.
  await goTo(page, 'progress');
  await press(page, 'Section A on to dressed');
  await page.waitForSelector('::-p-aria([name="Section A on to lit"])');
  await press(page, 'Section A on to lit');
  await page.waitForSelector('::-p-aria([name="Section A on to peopled"])');
  await page.locator('button[aria-label^="Undo: moved section A to lit"]').click();
  await page.waitForSelector('::-p-aria([name="Section A on to lit"])');

  // Reloaded, everything is there.
  await saved(page);
  await page.reload();
  await page.waitForSelector('::-p-aria([name="Section A on to lit"])');
  await goTo(page, 'plan');
  await pickFromOutline(page, 'Pads', 'Upper yard');
  expect(await valueOf(page, 'Width, east')).toBe('40 studs');
});

journey('a photograph lies below a front, scaled by two of its points, and is there again', async (open) => {
  const page = await open('Iva Thorsby');
  await openDisplay(page, 'Larch Lane');
  await pickFromOutline(page, 'Plots', 'Kiosk');
  await press(page, 'Open its fronts');
  // As wide as the side.
  const [photo] = await Promise.all([page.waitForFileChooser(), press(page, 'A photograph below …')]);
  await photo.accept([join(__dirname, '..', '..', 'docs', 'screenshots', 'plan.png')]);
  await sees(page, 'Photograph, wide');
  expect(await valueOf(page, 'Photograph, wide')).toBe('8 studs');
  await press(page, 'Scale by two points');
  const place = await (await page.waitForSelector('rect[data-points]'))?.boundingBox();
  if (!place) throw new Error('the drawing takes no points');
  await page.mouse.click(place.x + place.width / 2, place.y + place.height * 0.8);
  await page.mouse.click(place.x + place.width / 2, place.y + place.height * 0.6);
  const apart = Number.parseInt(await valueOf(page, 'They are apart by'), 10);
  await fill(page, 'They are apart by', `${2 * apart}b`);
  await page.waitForFunction(() => !document.body.innerText.includes('They are apart by'));
  const wide = Number.parseFloat(await valueOf(page, 'Photograph, wide'));
  expect(wide).toBeGreaterThan(10);
  await press(page, 'Close');
  await press(page, 'Open its fronts');
  await sees(page, 'Photograph, wide');
  await press(page, 'Take it away');
  await press(page, 'Close');
});

journey(
  'the Bench: a round room of 24 pieces in six bays with its floor, and a turned wall, come to the plan',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Larch Lane');
    await page.keyboard.press('g');
    await page.keyboard.press('n');
    await openTab(page, 'Rings');
    await fill(page, 'Pieces', '20');
    // The numbers are there again after a reload.
    await page.reload();
    await sees(page, '20 × 18.00°');
    await fill(page, 'Pieces', '24');
    // On the plan with a window in each bay and a door opposite one of them.
    await press(page, 'Put wall and floor on the plan');
    await saved(page);
    await goTo(page, 'plan');
    await pickFromOutline(page, 'Walls and fences', 'Ring of 24 × 4 studs');
    await sees(page, '15.19 st');
    await page.locator('::-p-xpath(//summary[contains(., "Spread over the panels")])').click();
    await sees(page, 'Every 4 panels.');
    await press(page, 'Let them in');
    await sees(page, '240°, opposite 5');
    await choose(page, 'Let into panel 13', 'Door');
    await fill(page, 'door 2×1×6 in panel 13, sill', '0');
    await saved(page);
    await press(page, 'Whole display');
    await pickFromOutline(page, 'Pads', 'Floor, ring of 24 × 4 studs');
    await press(page, 'Whole display');
    await goTo(page, 'bench');
    await openTab(page, 'Picture');
    const input = await page.waitForSelector('input[type="file"]');
    const [chooser] = await Promise.all([page.waitForFileChooser(), input?.click()]);
    await chooser.accept([join(__dirname, '..', '..', 'docs', 'screenshots', 'plan.png')]);
    // 1,280 × 800 pixels on 48 studs.
    await sees(page, '48 × 30 studs');
    await choose(page, 'Colours', 'Colours in stock');
    await sees(page, 'in stock');
    await choose(page, 'Colours', 'Greys');
    await fill(page, 'Width', '16');
    await sees(page, '16 × 10 studs');
    // Modules of 8 studs: four sheets, those at the south 2 studs deep.
    await fill(page, 'Modules of', '8');
    await choose(page, 'Sheet', 'Module B2, 8 × 2');
    await page.waitForSelector('::-p-aria([name="Module B2, 8 × 2 studs"])');
    await choose(page, 'Sheet', 'The whole picture');
    await press(page, 'Add to needs');
    await saved(page);
    await goTo(page, 'stockpile');
    await openTab(page, 'Lists');
    await sees(page, 'Picture plan');
    await goTo(page, 'bench');
    await openTab(page, 'Enlarged');
    const drawn = await page.waitForSelector('input[type="file"]');
    const [letters] = await Promise.all([page.waitForFileChooser(), drawn?.click()]);
    await letters.accept([join(__dirname, '..', '..', 'docs', 'screenshots', 'plan.png')]);
    // 384 × 240 mm: 75 plates upright, 22 studs and 26 bricks a page.
    await sees(page, '75 plates (25b)');
    const [printed] = await Promise.all([
      page.waitForResponse((response) => response.url().includes('enlarged.pdf')),
      press(page, 'Print 3 pages, 1 : 1'),
    ]);
    expect(printed.status()).toBe(200);
    await openTab(page, 'Turned walls');
    await page.locator('::-p-xpath(//table[@aria-label="Walls that meet studs"]//button[.="13"])').click();
    await sees(page, '22.62°');
    await press(page, 'Put on the plan as a wall');
    await saved(page);
    await goTo(page, 'plan');
    await pickFromOutline(page, 'Walls', 'Wall of 13 turned by 22.6°');
    await sees(page, '13.0 studs long');
    // A building step by step, and as sheets to build from.
    await goTo(page, 'stockpile');
    await openTab(page, 'Layers');
    await choose(page, 'Module or building', 'Kiosk');
    await sees(page, 'above the building’s ground');
    await sees(page, 'step 1 of');
    await press(page, 'Step above');
    await sees(page, 'step 2 of');
    await page.waitForSelector('section[aria-label^="walls,"]');
    const sheets = await page.$eval('a[href*="layers.pdf"]', (a) => a.getAttribute('href') ?? '');
    const answer = await page.evaluate(
      async (href) => (await fetch(href)).headers.get('content-type'),
      sheets,
    );
    expect(answer).toBe('application/pdf');
    // All that no list counts, in one act.
    await goTo(page, 'stockpile');
    await openTab(page, 'Lists');
    const all = '::-p-xpath(//button[starts-with(normalize-space(), "Add the plain shells of")])';
    await page.locator(all).click();
    for (const name of ['Clinic', 'Larch flats', 'Kiosk']) await sees(page, `Shell of ${name}`);
    await saved(page);
  },
);

journey('what is seen is kept for a reload; the plan stands beside a photo', async (open) => {
  const page = await open('Iva Thorsby');
  await openDisplay(page, 'Skarn Edge', 'sight');
  await page.waitForSelector('table[aria-label="Where an hour shows most"]');
  // A reload looks at nothing again: the answer is kept.
  await page.reload();
  await page.waitForSelector('table[aria-label="Seen by section"]');
  await goTo(page, 'progress');
  await openTab(page, 'Photos');
  await page.locator('::-p-xpath(//a[normalize-space()="The plan from here"])').click();
  await page.waitForSelector('img[alt^="The newest photo from here"]');
  await page.waitForSelector(
    'canvas[aria-label^="The display from photo"], [aria-label^="The display from photo"]',
  );
});

journey('a walk at a child’s height: nearer, along the side, a picture and a model out', async (open) => {
  const page = await open('Iva Thorsby');
  await openDisplay(page, 'Skarn Edge', 'sight');
  await openTab(page, 'Walk');
  await page.waitForSelector('canvas');
  await choose(page, 'Before the side', 'south');
  await choose(page, 'Eyes of', 'Child, 1,050 mm');
  await page.focus('[role="application"]');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  expect(await valueOf(page, 'Along it, from the west end')).toBe('1,160 mm');
  expect(await valueOf(page, 'Off the scene')).toBe('400 mm');
  await page.waitForSelector('[role="img"][aria-label*="400 mm off, by eyes 1,050 mm over the floor"]');
  // What the buttons save is kept here in place of a download.
  await page.evaluate(() => {
    const saved: Promise<string>[] = [];
    Object.assign(window, { saved });
    URL.createObjectURL = (blob) => {
      if (blob instanceof Blob)
        saved.push(
          new Promise((resolve) => {
            const reader = new FileReader();
            reader.onload = () => resolve(String(reader.result));
            reader.readAsDataURL(blob);
          }),
        );
      return '#';
    };
  });
  const savedBy = async (button: string, nth: number): Promise<Buffer> => {
    await press(page, button);
    const url = await page
      .waitForFunction((at) => Reflect.get(window, 'saved')[at] ?? false, {}, nth)
      .then((handle) => handle.jsonValue());
    return Buffer.from(String(url).split(',')[1], 'base64');
  };
  const picture = await savedBy('Save picture (PNG)', 0);
  expect(picture.subarray(1, 4).toString()).toBe('PNG');
  // A picture of one colour would be a few hundred bytes.
  expect(picture.length).toBeGreaterThan(8_000);
  // In a dark hall with the lamps lit the same view is far darker, and not black.
  const brightness = (png: Buffer) =>
    page.evaluate(
      async (url) => {
        const image = new Image();
        image.src = url;
        await image.decode();
        const canvas = document.createElement('canvas');
        [canvas.width, canvas.height] = [64, 64];
        const context = canvas.getContext('2d');
        context?.drawImage(image, 0, 0, 64, 64);
        const pixels = context?.getImageData(0, 0, 64, 64).data ?? new Uint8ClampedArray();
        return pixels.reduce((sum, value, i) => (i % 4 === 3 ? sum : sum + value), 0) / (3 * 64 * 64);
      },
      `data:image/png;base64,${png.toString('base64')}`,
    );
  await page.locator('::-p-xpath(//label[starts-with(., "Dark hall")])').click();
  const dark = await brightness(await savedBy('Save picture (PNG)', 1));
  expect(dark).toBeGreaterThan(3);
  expect(dark).toBeLessThan((await brightness(picture)) / 2);
  const model = await savedBy('Save model (glTF)', 2);
  const { issues, info } = await validateBytes(new Uint8Array(model));
  expect(issues.messages.filter(({ severity }) => severity === 0)).toEqual([]);
  expect(info.totalTriangleCount).toBeGreaterThan(10_000);
});
