import { mkdirSync } from 'node:fs';
import { startBrowser, startServer, signedInPage, openDisplay, goTo, openTab, press } from './stage.ts';
async function main() {
  mkdirSync('/tmp/look', { recursive: true });
  const server = await startServer({ demo: true });
  const browser = await startBrowser();
  const page = await signedInPage(browser, server, 'Iva Thorsby', { width: 1280, height: 800 });
  page.on('pageerror', (e) => console.log('ERR', String(e)));
  const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));
  await openDisplay(page, 'Skarn Edge');
  await goTo(page, 'sight');
  await openTab(page, 'Walk');
  await page.waitForSelector('canvas[data-engine], [role="img"] canvas');
  await wait(6000);
  for (const label of ['Turn it by hand instead', 'Shade the ground by who sees it'])
    await page.locator(`::-p-xpath(//label[contains(., "${label}")])`).click();
  await wait(4000);
  await page.screenshot({ path: '/tmp/look/shade.png' });
  await browser.close(); await server.remove();
}
void main();
