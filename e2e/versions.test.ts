import { choose, fill, goTo, openDisplay, openTab, pickFromOutline, press, saved, sees } from './stage.ts';
import { useJourneys } from './suite.ts';

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
