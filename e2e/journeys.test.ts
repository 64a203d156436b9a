import {
  boardReady,
  choose,
  fill,
  openDisplay,
  openList,
  pickFromOutline,
  press,
  saved,
  sees,
  signedInPage,
  startServer,
  valueOf,
} from './stage.ts';
import { useJourneys } from './suite.ts';

const { demo, journey } = useJourneys();

journey('a vignette of one’s own, by keyboard alone', async (open) => {
  const page = await open('Tobin Orr');
  await openList(page);
  await choose(page, 'Ground begins on', 'one brick up');
  await page.focus('main input');
  await page.keyboard.type('Moth lantern');
  await page.keyboard.press('Enter');
  await page.waitForSelector('nav[aria-label="Pages"]');
  await page.keyboard.press('g');
  await page.keyboard.press('p');
  await boardReady(page);
  await page.keyboard.press('p');
  await page.waitForSelector(
    '::-p-xpath(//button[@aria-pressed="true" and starts-with(normalize-space(), "Pad")])',
  );
  await page.focus('[role="application"]');
  await page.keyboard.press('Enter');
  await page.waitForSelector('::-p-xpath(//h2[normalize-space()="Pad 2"])');
  await page.keyboard.press('g');
  await page.keyboard.press('c');
  await page.waitForFunction(() => location.pathname.endsWith('/cut'));
  await press(page, 'Cut');
  await sees(page, 'Proven');
  await sees(page, '1 × 16×16');
  await press(page, 'Use this cutting');
  await page.keyboard.down('Control');
  await page.keyboard.press('k');
  await page.keyboard.up('Control');
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('go brief');
  await page.keyboard.press('Enter');
  await sees(page, '16 × 16 studs allowed');
  await fill(page, 'Height at most', '2');
  await page.waitForSelector('button[data-findings^="1 "]');
});

journey(
  'a server that goes away: work goes on, survives a reload and lands when it is back',
  async (open) => {
    const own = await startServer({ demo: true });
    try {
      await open('Iva Thorsby');
      const page = await signedInPage(demo.browser(), own, 'Iva Thorsby');
      await openDisplay(page, 'Larch Lane');
      await pickFromOutline(page, 'Plots', 'Kiosk');
      await own.stop('SIGKILL');
      await fill(page, 'From west', '150');
      await sees(page, '1 change waiting');
      const port = Number(new URL(own.url).port);
      const again = await startServer({ demo: true, folder: own.folder, port });
      await saved(page);
      await page.reload();
      await boardReady(page);
      await pickFromOutline(page, 'Plots', 'Kiosk');
      expect(await valueOf(page, 'From west')).toBe('150 studs');
      await page.browserContext().close();
      await again.stop();
    } finally {
      await own.remove();
    }
  },
);

journey(
  'two write the same field at once: the later one sees both and picks; without a clash there is nothing to ask',
  async (open) => {
    const [iva, tobin] = [await open('Iva Thorsby'), await open('Tobin Orr')];
    await openDisplay(iva, 'Skarn Edge');
    await openDisplay(tobin, 'Skarn Edge');
    for (const page of [iva, tobin]) await pickFromOutline(page, 'Plots', 'Smithy');
    // Tobin's line is held while he changes the height and the width, and Iva the height.
    await tobin.setOfflineMode(true);
    await fill(tobin, 'Height', '9b');
    await fill(tobin, 'Width, east', '15');
    await sees(tobin, '2 changes waiting');
    await fill(iva, 'Height', '8b');
    await saved(iva);
    await tobin.setOfflineMode(false);
    await sees(tobin, 'Somebody changed this first');
    await sees(tobin, 'they left it');
    await tobin.locator('::-p-aria([name="Height: yours, 9b"])').click();
    await press(tobin, 'Take it as picked');
    await saved(tobin);
    for (const page of [iva, tobin])
      await page.waitForFunction(() => {
        const values = [...document.querySelectorAll('input')].map(({ value }) => value);
        return values.includes('9b') && values.includes('15 studs');
      });
  },
);
