import {
  boardReady,
  choose,
  fill,
  goTo,
  openDisplay,
  openTab,
  pickFromOutline,
  press,
  saved,
  sees,
} from '../stage.ts';
import { useJourneys } from '../suite.ts';

const { journey } = useJourneys();

journey(
  'a winter version: a tree grows in it alone, what to buy for all is counted, and the base is as it was',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'brief');
    await openTab(page, 'Versions');
    await page.locator('::-p-xpath(//button[. = "Add a version"])').click();
    await saved(page);
    await fill(page, 'Name', 'Deep winter');
    await saved(page);
    await page.waitForSelector('div[role="region"][aria-label="Version"]');
    await goTo(page, 'plan');
    await pickFromOutline(page, 'Trees', 'Rowan');
    await fill(page, 'Height', '12b');
    await saved(page);
    await sees(page, '1 difference from the base');
    // Another member sees the base, until they look at that version too.
    const other = await open('Tobin Orr');
    await openDisplay(other, 'Skarn Edge', 'plan');
    await pickFromOutline(other, 'Trees', 'Rowan');
    const height = async () => {
      const field = await other.waitForSelector('::-p-aria([name="Height"])');
      return field?.evaluate((input) => (input instanceof HTMLInputElement ? input.value : ''));
    };
    const before = await height();
    await choose(other, 'Version shown', 'Deep winter');
    for (let tries = 0; tries < 100 && (await height()) === before; tries++)
      await new Promise((resolve) => setTimeout(resolve, 100));
    expect(await height()).not.toBe(before);
    // The plan that is printed is that of the version.
    const plan = await page.evaluate(async () => {
      const { pathname } = location;
      const id = pathname.split('/')[2];
      const version = document.querySelector<HTMLSelectElement>('select[aria-label="Version shown"]')?.value;
      const answer = await fetch(`/api/displays/${id}/sheets/plan.pdf?units=mm&version=${version}`);
      const missing = await fetch(`/api/displays/${id}/sheets/plan.pdf?units=mm&version=none`);
      return [answer.status, answer.headers.get('content-disposition') ?? '', missing.status];
    });
    expect(plan).toEqual([200, expect.stringMatching(/deep-winter/i), 404]);
    await goTo(page, 'brief');
    await openTab(page, 'Versions');
    await page.locator('::-p-xpath(//button[. = "Count and judge all versions"])').click();
    const rows = await page.waitForSelector('table[aria-label="Versions"]', { timeout: 120_000 });
    const words = (await rows?.evaluate((table) => table.textContent)) ?? '';
    for (const name of ['Base', 'First snow', 'Market day', 'Deep winter']) expect(words).toContain(name);
    await sees(page, 'plate 2×3');
    await press(page, 'As in the base again: Rowan');
    await saved(page);
    await sees(page, '0 differences from the base');
    await press(page, 'Back to the base');
    await page.waitForFunction(() => !document.querySelector('div[role="region"][aria-label="Version"]'));
  },
);

journey(
  'a swap on a phone: what comes out and goes in, in order, ticked; then that version stands',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'brief');
    await openTab(page, 'Versions');
    await page.setViewport({ width: 390, height: 844 });
    await choose(page, 'Swap to', 'First snow');
    // Out: the keeper, cherry, larch and rowan, 1 min each; in: larch, rowan and the skaters, 5 min each.
    await page.waitForSelector(
      '::-p-xpath(//section[@aria-labelledby="swap"]//p[contains(., "min left of 19")])',
    );
    await page.waitForSelector(
      '::-p-xpath(//section[@aria-labelledby="swap"]//p[contains(., "a rebuild") and contains(., "Calm water")])',
    );
    await page.locator('input[aria-label="Take out The keeper fishes: done"]').click();
    await saved(page);
    await page.waitForSelector('::-p-xpath(//section[@aria-labelledby="swap"]//p[starts-with(., "18")])');
    await page.locator('::-p-xpath(//button[starts-with(., "It stands: First snow")])').click();
    await saved(page);
    await page.waitForSelector(
      '::-p-xpath(//section[@aria-labelledby="swap"]//button[starts-with(., "It stands: Base")])',
    );
  },
);

journey(
  'the base and a version lie side by side on the plan, the border between them is moved',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'cut');
    await choose(page, 'Version shown', 'First snow');
    await press(page, 'Compare with the base');
    await boardReady(page);
    const bar = '::-p-xpath(//div[@role="region"][@aria-label="Comparison"]';
    await page.waitForSelector(`${bar}[contains(., "8 things differ. The heights are the same.")])`);
    const border = await page.waitForSelector(
      '[role="slider"][aria-label^="Border between Base at the left and First snow"]',
    );
    expect(await border?.evaluate((element) => element.getAttribute('aria-valuenow'))).toBe('50');
    /** The picture of the board, made small: a brightness for each of 200 × 120 places. */
    const picture = () =>
      page.evaluate(async () => {
        // It is drawn sharp when the view has come to rest.
        await new Promise((resolve) => setTimeout(resolve, 600));
        const board = document.querySelector('[role="application"] canvas');
        const small = Object.assign(document.createElement('canvas'), { width: 200, height: 120 });
        const ctx = small.getContext('2d');
        if (!(board instanceof HTMLCanvasElement) || !ctx) return [];
        ctx.drawImage(board, 0, 0, small.width, small.height);
        const { data } = ctx.getImageData(0, 0, small.width, small.height);
        return Array.from(
          { length: data.length / 4 },
          (_, i) => data[4 * i] + data[4 * i + 1] + data[4 * i + 2],
        );
      });
    const differing = (one: number[], other: number[]) =>
      one.filter((value, i) => Math.abs(value - other[i]) > 24).length;
    await border?.focus();
    await page.keyboard.press('End');
    const allBase = await picture();
    await page.keyboard.press('Home');
    const allVersion = await picture();
    await press(page, 'Base');
    const base = await picture();
    await press(page, 'First snow');
    const version = await picture();
    expect(version).toHaveLength(24_000);
    // At either end of the board the border leaves one picture alone; only the border itself, 120 places high, is more.
    expect(differing(base, version)).toBeGreaterThan(20);
    expect(differing(allVersion, version)).toBeLessThan(differing(allVersion, base));
    expect(differing(allVersion, version)).toBeLessThanOrEqual(240);
    expect(differing(allBase, base)).toBeLessThan(differing(allBase, version));
    await press(page, 'End the comparison');
    await page.waitForFunction(() => !document.querySelector('[role="slider"]'));
    await press(page, 'Back to the base');
    // The same in the street elevation, drawn to one height, and in the walk.
    await press(page, 'Street elevation');
    await choose(page, 'Beside it', 'First snow');
    await page.waitForFunction(
      () => document.querySelectorAll('dialog figure svg[aria-label^="The display from the"]').length === 2,
    );
    const boxes = await page.$$eval('dialog figure svg', (drawings) =>
      drawings.map((drawing) => drawing.getAttribute('viewBox')),
    );
    expect(boxes[0]).toBe(boxes[1]);
    await press(page, 'Close');
    await goTo(page, 'sight');
    await openTab(page, 'Walk');
    await choose(page, 'Beside it', 'First snow');
    await page.waitForFunction(
      () =>
        document.querySelectorAll('[role="application"] [role="img"][aria-label^="The display from the"]')
          .length === 2,
    );
  },
);
