/** Takes the pictures in docs/screenshots from the demo: `npx tsx e2e/screenshots.ts [folder]`. Needs a build. */
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import {
  goTo,
  openDisplay,
  openList,
  openTab,
  shareToken,
  pickFromOutline,
  press,
  signedInPage,
  startBrowser,
  startServer,
} from './stage.ts';

const folder = process.argv[2] ?? join(__dirname, '..', 'docs', 'screenshots');
const only = process.argv[3];
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function main() {
  const server = await startServer({ demo: true });
  const browser = await startBrowser();
  const shot = async (page: Page, name: string) => {
    if (only && !name.includes(only)) return;
    await pause(500);
    await page.screenshot({ path: join(folder, `${name}.png`) as `${string}.png` });
  };
  try {
    const page = await signedInPage(browser, server, 'Iva Thorsby');
    await openList(page);
    // Each display by its plan, drawn on the server.
    await page.waitForSelector('li img');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('li img')].every(
        (one) => one instanceof HTMLImageElement && one.naturalWidth > 0,
      ),
    );
    await shot(page, 'displays');
    await openDisplay(page, 'Skarn Edge');
    // Findings by counted masses take the place of those by estimates.
    await pause(4000);
    await shot(page, 'plan');
    await page.locator('button[data-findings]').click();
    await shot(page, 'findings');
    await page.locator('button[aria-label="Close the findings"]').click();
    await pickFromOutline(page, 'Plots', 'Assay office');
    await press(page, 'Open its fronts');
    await page.locator('::-p-aria([name="With the fronts beside it"])').click();
    await pause(800);
    await shot(page, 'plan-fronts');
    await press(page, 'Close');
    await goTo(page, 'survey');
    await openTab(page, 'Reach');
    await shot(page, 'survey');
    await goTo(page, 'bench');
    await openTab(page, 'Rings');
    await shot(page, 'bench');
    await goTo(page, 'transport');
    await page.waitForSelector('section[aria-label^="Load of"]');
    await pause(6000);
    await shot(page, 'transport');
    await goTo(page, 'sight');
    await openTab(page, 'Buildings and scenes');
    await page.locator('::-p-aria([name="Slate splitters"][role="button"])').click();
    await press(page, 'What would free it');
    await page.waitForSelector('::-p-xpath(//button[. = "Apply"])');
    await shot(page, 'sight');
    await openTab(page, 'Walk');
    await page.waitForSelector('canvas');
    await pause(2000);
    await shot(page, 'sight-walk');
    for (const at of ['brief', 'stockpile', 'progress']) {
      await goTo(page, at);
      if (at === 'stockpile') await page.waitForSelector('[data-needs] tbody th');
      if (at === 'progress') await page.waitForSelector('::-p-text(pieces short)');
      await shot(page, at);
    }
    await goTo(page, 'stockpile');
    await openTab(page, 'Layers');
    await page.waitForSelector('[aria-label="The step from above"]');
    for (let i = 0; i < 12; i++) await page.locator('button[aria-label="Step above"]').click();
    await pause(1500);
    await shot(page, 'stockpile-layers');
    const other = await signedInPage(browser, server, 'Brenna Rook');
    await openDisplay(other, 'Skarn Edge');
    await goTo(page, 'crew');
    await page.waitForSelector('::-p-text(pieces short)');
    await shot(page, 'crew');
    const visitor = await shareToken(page);
    await other.goto(`${server.url}/s/${visitor}`);
    await other.waitForSelector('figure img');
    await shot(other, 'share');
    await other.browserContext().close();
    await goTo(page, 'cut');
    await page.locator('::-p-xpath(//button[normalize-space()="Cut"])').click();
    await page.waitForSelector('::-p-text(Proven)');
    await page.waitForSelector('::-p-text(Quietest seams)');
    await pause(9000);
    await shot(page, 'cut');
    await openTab(page, 'Stability');
    await page.locator('::-p-xpath(//button[contains(., "Judge all")])').click();
    await page.waitForSelector('::-p-text(What mends A3)');
    await page.locator('table[aria-label^="Weakest joints"] button').click();
    await pause(800);
    await shot(page, 'cut-stability');
    await page.evaluate(() => localStorage.setItem('quarry-theme', 'night'));
    await page.reload();
    await goTo(page, 'plan');
    await pause(4000);
    await shot(page, 'plan-night');
    const phone = await signedInPage(browser, server, 'Brenna Rook', { width: 390, height: 844 });
    await openDisplay(phone, 'Skarn Edge');
    await goTo(phone, 'progress');
    await openTab(phone, 'Tonight');
    await phone.waitForSelector('::-p-text(Sit down and start)');
    await phone.waitForFunction(() => !document.body.innerText.toLowerCase().includes('counting parts'));
    await shot(phone, 'progress-phone');
  } finally {
    await browser.close();
    await server.remove();
  }
}
main().catch((error: unknown) => {
  console.error(error);
  process.exitCode = 1;
});
