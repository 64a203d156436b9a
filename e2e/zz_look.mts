import { startServer, startBrowser, signedInPage, openDisplay, goTo, openTab, choose } from './stage.ts';
const server = await startServer({ demo: true });
const browser = await startBrowser();
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));
try {
  const page = await signedInPage(browser, server, 'Iva');
  await openDisplay(page, 'Skarn Edge', 'progress');
  await openTab(page, 'Photos');
  await page.locator('::-p-xpath(//a[contains(.,"The plan from here")])').click();
  await page.waitForSelector('canvas');
  await wait(4000);
  await page.screenshot({ path: '/tmp/s1.png' });
  await choose(page, 'Stand', 'opening o1').catch((e) => console.log(String(e)));
  await wait(2500);
  await page.screenshot({ path: '/tmp/s2.png' });
  await goTo(page, 'survey'); await openTab(page, 'Visitors'); await wait(600);
  await page.evaluate(() => document.querySelector('section[role=tabpanel], aside')?.scrollTo(0, 900));
  await page.screenshot({ path: '/tmp/s3.png' });
  const phone = await signedInPage(browser, server, 'Iva', { width: 390, height: 844 });
  await phone.evaluate(() => localStorage.setItem('theme', 'night'));
  await openDisplay(phone, 'Skarn Edge', 'sight');
  await openTab(phone, 'Who looks'); await phone.waitForSelector('table[aria-label="Who looks"]'); await wait(800);
  await phone.screenshot({ path: '/tmp/s4.png' });
} finally { await browser.close(); await server.remove(); }
