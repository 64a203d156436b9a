import { openDisplay, openTab, press, saved, sees } from '../stage.ts';
import { useJourneys } from '../suite.ts';

// On a demo of their own: the cutting is that of its file.
const { journey } = useJourneys();

journey(
  'the code of a label opens the module on a phone, where it is ticked; all papers in one act',
  async (open) => {
    const page = await open('Brenna Rook');
    await openDisplay(page, 'Skarn Edge', 'transport');
    await page.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
    await page.goto(`${page.url().split('?')[0]}?sheet=load&thing=module-module-b1`);
    const putIn = '::-p-xpath(//section[@aria-label="module B1"]//input[@id = //label[. = "Put in"]/@for])';
    await page.waitForSelector(putIn);
    await page.locator(putIn).click();
    // Another member sees it in the list.
    const other = await open('Iva Thorsby');
    await openDisplay(other, 'Skarn Edge', 'transport');
    await sees(other, '1 · 0');
    await page.locator(putIn).click();
    await sees(other, '0 · 0');
    // A light is put on a circuit where the drawing is clicked.
    await openTab(other, 'Light and power');
    await other.waitForSelector('g[aria-label="Circuit 2, Shop windows"]');
    await other.$eval('g[aria-label="Circuit 2, Shop windows"]', (cable) => {
      if (cable instanceof SVGElement) cable.focus();
    });
    await other.keyboard.press('Enter');
    await sees(other, '320 mA');
    await press(other, 'Put lights on it by clicks on the drawing');
    const drawing = await other.waitForSelector('svg[aria-label="Light and power from above"]');
    const box = await drawing?.boundingBox();
    if (!box) throw new Error('no drawing');
    await other.mouse.click(box.x + box.width * 0.45, box.y + box.height * 0.35);
    await saved(other);
    await sees(other, '340 mA');
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
