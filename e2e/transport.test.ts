import { fill, goTo, openDisplay, openTab, press, saved, sees, valueOf } from './stage.ts';
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
  'the day of the show: a task takes twenty minutes more and the rest is planned again',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'transport');
    await openTab(page, 'Day');
    const readyAt = async () => {
      const text = await page.waitForSelector('section[aria-labelledby="outcome"] p');
      const [hours, minutes] = ((await text?.evaluate((p) => p.textContent)) ?? '').split(':').map(Number);
      return 60 * hours + minutes;
    };
    const before = await readyAt();
    await page.locator('li[aria-label="Hall table 1"] button[aria-expanded]').click();
    const minutes = Number(await valueOf(page, 'Minutes'));
    await fill(page, 'Minutes', String(minutes + 20));
    await saved(page);
    // All modules wait for the tables: it is ready later, by no more than the slip.
    await page.waitForFunction(
      (old) => {
        const text = document.querySelector('section[aria-labelledby="outcome"] p')?.textContent ?? '';
        const [h, m] = text.split(':').map(Number);
        return 60 * h + m > old;
      },
      {},
      before,
    );
    expect(await readyAt()).toBeLessThanOrEqual(before + 20);
    // Visitors come too early then: what may be left out is told with what it wins.
    await fill(page, 'Visitors come', '08:30');
    await saved(page);
    await sees(page, 'Too late by');
    await sees(page, 'without Signs and guest book');
    for (let i = 0; i < 2; i++) {
      await page.locator('button[aria-label^="Undo: "]').click();
      await saved(page);
    }
    await openTab(page, 'Taking down');
    await page.waitForSelector('li[aria-label="Hall table 1"]');
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

journey('the code of a label opens the module on a phone, where it is ticked', async (open) => {
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
});

journey(
  'at the show: visitors are counted, what broke becomes a task, what is lent comes back; all papers in one act',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'transport');
    await openTab(page, 'At the show');
    const counted = () => page.$eval('output', (output) => Number(output.textContent?.replace(',', '')));
    await page.waitForSelector('output');
    const before = await counted();
    for (const by of ['+5', '+1', '+10']) await press(page, by);
    await saved(page);
    expect(await counted()).toBe(before + 16);
    await fill(page, 'What happened', 'the crane hook');
    await page.waitForSelector(
      '::-p-xpath(//section[@aria-labelledby="broke"]//li[contains(., "the crane hook")])',
    );
    await page.locator('::-p-xpath(//li[contains(., "the crane hook")]//button[. = "Add as task"])').click();
    await saved(page);
    await sees(page, 'a task of Progress');
    await page.locator('::-p-xpath(//section[@aria-labelledby="lent"]//input[1])').fill('Step ladder');
    await page.locator('::-p-xpath(//section[@aria-labelledby="lent"]//button[. = "Note it"])').click();
    await sees(page, '1 not back');
    await page.locator('input[aria-label="Step ladder is back"]').click();
    await page.waitForFunction(() => !document.body.innerText.includes('1 not back'));
    await goTo(page, 'progress');
    await openTab(page, 'Tasks');
    await sees(page, 'Mend the crane hook');
    // What broke is packed for the next time, and everything is printed in one act.
    await goTo(page, 'transport');
    await openTab(page, 'Kit');
    await sees(page, 'Spare parts for the crane hook');
    const button = '::-p-xpath(//button[contains(., "Print everything for the show") and not(@disabled)])';
    await page.waitForSelector(button, { timeout: 60_000 });
    const [answer] = await Promise.all([
      page.waitForResponse((response) => response.url().includes('/sheets/lists.pdf')),
      page.locator(button).click(),
    ]);
    expect([answer.status(), answer.headers()['content-type']]).toEqual([200, 'application/pdf']);
  },
);

journey(
  'another show is prepared: its evening before, who comes only on the day, and back again',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'transport');
    await openTab(page, 'At the show');
    await page.waitForSelector(
      '::-p-xpath(//li[@aria-label="Frostwick Winter Show"]//p[contains(., "2 nights")])',
    );
    await press(page, 'Prepare Frostwick Winter Show');
    await saved(page);
    await sees(page, 'prepared now');
    await openTab(page, 'Day');
    // Mads is not there on the evening before: he comes when the hall opens on the day.
    await page.waitForSelector('::-p-aria([name="Mads Elvery is there the evening before"])');
    const chart = 'svg[aria-label^="The day by person"]';
    await page.waitForSelector(chart);
    const words = await page.$eval(chart, (svg) => svg.textContent ?? '');
    expect(words).toContain('night');
    expect(words).toContain('18:00');
    // A limit of what one carries is kept, and the day is planned with it.
    await fill(page, 'Tobin Orr carries at most', '200');
    await sees(page, 'Tobin Orr carries at most: 200 is above the most, 100.');
    await fill(page, 'Tobin Orr carries at most', '6');
    await saved(page);
    await openTab(page, 'At the show');
    await press(page, 'Prepare Larkmoor Brick Show');
    await saved(page);
    await openTab(page, 'Day');
    await openTab(page, 'Packing at home');
    await sees(page, 'Begin no later than');
  },
);
