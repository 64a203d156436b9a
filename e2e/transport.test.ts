import { openDisplay, openTab, press, saved, sees } from './stage.ts';
import { useJourneys } from './suite.ts';

// On a demo of their own: the cutting is that of its file.
const { journey } = useJourneys();

journey(
  'the van: a module that does not come through is split by a tried fix, everything goes in, and is ticked',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'transport');
    await page.waitForSelector('section[aria-label="Load of hired van"]');
    const stopped = '::-p-xpath(//p[. = "Does not come through"]/following::ul[1]//button)';
    expect(await page.$eval(stopped, (button) => button.textContent)).toBe('module A3');
    await page.locator(stopped).click();
    await press(page, 'Find a fix');
    await page.waitForSelector('::-p-text(Split A3 on column 192; A3–C1 to be signed again)');
    await page.locator('::-p-xpath(//aside[@aria-label="Load"]//button[starts-with(., "Apply")])').click();
    await saved(page);
    await page.waitForFunction(() => !document.body.innerText.includes('Does not come through'));
    // One piece more than before, and every one of them in the van.
    await page.waitForFunction(() => {
      const [, inside, of] = /In a vehicle\s+(\d+) of (\d+)/.exec(document.body.innerText) ?? [];
      return inside !== undefined && inside === of;
    });
    const first = '::-p-xpath((//section[@aria-label="Loading order of hired van"]//input)[1])';
    await page.locator(first).click();
    await saved(page);
    await sees(page, '1 · 0');
    // Another member sees the tick.
    const other = await open('Tobin Orr');
    await openDisplay(other, 'Skarn Edge', 'transport');
    await sees(other, '1 · 0');
    await page.locator('button[aria-label^="Undo: "]').click();
    await sees(page, '0 · 0');
    await page.locator('button[aria-label^="Undo: "]').click();
    await saved(page);
    await sees(page, 'Does not come through');
  },
);

journey(
  'light and power: a circuit over its rating goes to another supply, its cable gets its connectors, a light is put on it',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'transport');
    await openTab(page, 'Light and power');
    await openTab(page, 'Supplies');
    const port = '::-p-xpath(//details[contains(., "USB port of the market")]/summary)';
    await page.locator(port).click();
    // 8 lanterns of 30 mA and 16 windows of 20 mA.
    await sees(page, '560 mA · 112 %');
    await press(page, 'Find a fix');
    await page.waitForSelector('::-p-text(Hang circuit “Market lamps” on “Adapter at the back”)');
    await page
      .locator('::-p-xpath(//aside[@aria-label="Light and power"]//button[starts-with(., "Apply")])')
      .click();
    await saved(page);
    await sees(page, '320 mA · 64 %');
    await openTab(page, 'Circuits');
    await page.waitForSelector('g[aria-label="Circuit 2, Shop windows"]');
    await page.$eval('g[aria-label="Circuit 2, Shop windows"]', (cable) => {
      if (cable instanceof SVGElement) cable.focus();
    });
    await page.keyboard.press('Enter');
    await press(page, 'Plan 2 connectors');
    await saved(page);
    await page.waitForFunction(() => !document.body.innerText.includes('missing at seams'));
    await press(page, 'Put lights on it by clicks on the drawing');
    const drawing = await page.waitForSelector('svg[aria-label="Light and power from above"]');
    const box = await drawing?.boundingBox();
    if (!box) throw new Error('no drawing');
    await page.mouse.click(box.x + box.width * 0.45, box.y + box.height * 0.35);
    await saved(page);
    await sees(page, '340 mA');
    for (let i = 0; i < 3; i++) {
      await page.locator('button[aria-label^="Undo: "]').click();
      await saved(page);
    }
    await openTab(page, 'Supplies');
    await sees(page, '560 mA of 500 mA');
  },
);

journey(
  'the code of a label opens the module on a phone, where it is ticked; all papers in one act',
  async (open) => {
    const page = await open('Brenna Rook');
    await openDisplay(page, 'Skarn Edge', 'transport');
    await page.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
    await page.goto(`${page.url().split('?')[0]}?sheet=load&thing=module-module-b1`);
    const box = '::-p-xpath(//section[@aria-label="module B1"]//input[@id = //label[. = "Put in"]/@for])';
    await page.waitForSelector(box);
    await page.locator(box).click();
    // Another member sees it in the list.
    const other = await open('Iva Thorsby');
    await openDisplay(other, 'Skarn Edge', 'transport');
    await sees(other, '1 · 0');
    await page.locator(box).click();
    await sees(other, '0 · 0');
    await openTab(other, 'Kit');
    const button = '::-p-xpath(//button[contains(., "Print everything for the show") and not(@disabled)])';
    await other.waitForSelector(button);
    const [answer] = await Promise.all([
      other.waitForResponse((response) => response.url().includes('/sheets/lists.pdf')),
      other.locator(button).click(),
    ]);
    expect([answer.status(), answer.headers()['content-type']]).toEqual([200, 'application/pdf']);
  },
);
