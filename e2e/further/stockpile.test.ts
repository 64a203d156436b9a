import { choose, openStockpile, openTab, press, pressInPanel, saved, sees } from '../stage.ts';
import { useJourneys } from '../suite.ts';

const { journey } = useJourneys();

journey(
  'two at the table: each counts their own drawers on a phone, by ones, tens and grams, and both see it',
  async (signIn) => {
    const phone = { width: 390, height: 844 };
    const brenna = await signIn('Brenna Rook', phone);
    await openStockpile(brenna, 'Count');
    const iva = await signIn('Iva Thorsby');
    await openStockpile(iva, 'Count');
    await choose(iva, 'Whose', 'Brenna Rook');
    const entry = '::-p-xpath(//ul[@aria-label="Drawers"]//button)';
    await brenna.locator(entry).click();
    const word = await brenna.$eval(
      'section[aria-label^="Count "] h2',
      (head) => head.textContent?.trim() ?? '',
    );
    const count = () =>
      brenna.$eval('section[aria-label^="Count "] input[aria-label="Count"]', (input) =>
        Number((input as HTMLInputElement).value),
      );
    const before = await count();
    await press(brenna, '10 more');
    await press(brenna, '1 more');
    await saved(brenna);
    expect(await count()).toBe(before + 11);
    await iva.locator(entry).click();
    await iva.waitForFunction(
      (qty) =>
        document.querySelector<HTMLInputElement>('section[aria-label^="Count "] input[aria-label="Count"]')
          ?.value === String(qty),
      {},
      before + 11,
    );
    expect(await iva.$eval('section[aria-label^="Count "] h2', (head) => head.textContent?.trim())).toBe(
      word,
    );
    const scale = await brenna.waitForSelector('::-p-aria([name="Grams on the scale"])');
    await scale?.type('50');
    await scale?.press('Enter');
    await saved(brenna);
    expect(await count()).not.toBe(before + 11);
    // Another's drawer is not hers to count.
    await choose(brenna, 'Whose', 'Tobin Orr');
    await brenna.locator(entry).click();
    await sees(brenna, 'this stock is not yours');
  },
);

journey(
  'what is short is bought in the simulated market, by price, parcels and time, and drafted as orders',
  async (signIn) => {
    const page = await signIn('Iva Thorsby');
    await openStockpile(page, 'Buy');
    await sees(page, 'Simulated: this market');
    await choose(page, 'Section', 'F');
    await pressInPanel(page, 'Cheapest');
    await sees(page, 'nothing: proven');
    await pressInPanel(page, 'Fewest parcels');
    await page.waitForFunction(
      () =>
        [...document.querySelectorAll('button[aria-pressed]')].every(
          (button) => !button.textContent?.includes('looking'),
        ),
      {},
    );
    const totals = await page.$$eval('button[aria-pressed]', (buttons) =>
      buttons.flatMap(
        (button) =>
          /([\d.]+) cr · (\d+) parcels?/
            .exec(button.textContent ?? '')
            ?.slice(1)
            .map(Number) ?? [],
      ),
    );
    const [cheapest, parcels, dearer, fewer] = totals;
    expect(dearer).toBeGreaterThanOrEqual(cheapest - 0.01);
    expect(fewer).toBeLessThanOrEqual(parcels);
    await press(page, `Draft ${fewer} ${fewer === 1 ? 'order' : 'orders'}`);
    await saved(page);
    // What stands on a draft is not bought again.
    await page.waitForFunction(() => !/Draft \d+ order/.test(document.body.innerText));
    await openTab(page, 'Orders');
    expect(
      await page.$$eval(
        'ul[aria-label="Orders"] li',
        (rows) => rows.filter((row) => row.textContent?.includes('From ')).length,
      ),
    ).toBe(fewer);
  },
);
