import { readFileSync } from 'node:fs';
import type { AxeResults } from 'axe-core';
import type { Page } from 'puppeteer-core';
import { goTo, openDisplay, openTab, sees, signedInPage } from './stage.ts';
import { useDemo } from './suite.ts';

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');
const PAGES = ['brief', 'survey', 'plan', 'cut', 'stockpile', 'progress', 'crew'];

/** Sheets and panels within pages. */
const TABS: Partial<Record<string, string[]>> = {
  brief: ['Scale', 'Space', 'Dates'],
  crew: ['People', 'Advice', 'History', 'Since last report', 'Owners'],
  progress: ['Tonight', 'Sessions', 'Tasks', 'Outlook', 'Agenda', 'Photos', 'One day', 'Sections'],
  cut: ['By hand', 'Lifting', 'Seams', 'Order', 'Alternatives'],
  stockpile: [
    'Matrix',
    'Count',
    'Lists',
    'Orders',
    'Buy',
    'Placeholders',
    'Colours',
    'Methods',
    'Layers',
    'Bases',
    'Needs',
  ],
  survey: ['Larkmoor', 'Access route', 'Reach', 'Loads', 'Visitors', 'Room'],
};

/** What axe-core finds by WCAG 2.2 AA, one line each. */
async function axe(page: Page): Promise<string[]> {
  // Through the debugger, since the page's own policy runs no foreign script.
  const client = await page.createCDPSession();
  await client.send('Runtime.evaluate', { expression: AXE });
  const { result } = await client.send('Runtime.evaluate', {
    expression: `axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] })`,
    awaitPromise: true,
    returnByValue: true,
  });
  const { violations }: AxeResults = result.value;
  return violations.flatMap(({ id, nodes }) =>
    nodes.map(({ html, any }) => `${id}: ${html.slice(0, 160)} ${any[0]?.message ?? ''}`),
  );
}

const demo = useDemo();

describe.each(['day', 'night'])('axe finds nothing, %s:', (theme) => {
  let page: Page;
  beforeAll(async () => {
    page = await signedInPage(demo.browser(), demo.server(), 'Iva Thorsby');
    await page.evaluate((name) => localStorage.setItem('quarry-theme', name), theme);
    await page.reload();
    await page.waitForSelector('::-p-text(Skarn Edge)');
  });
  afterAll(() => page.browserContext().close());

  test('welcome and the displays', async () => {
    const context = await demo.browser().createBrowserContext();
    const first = await context.newPage();
    await first.evaluateOnNewDocument((name) => localStorage.setItem('quarry-theme', name), theme);
    await first.goto(demo.server().url);
    await first.waitForSelector('::-p-text(Iva Thorsby)');
    expect(await axe(first)).toEqual([]);
    await context.close();
    expect(await axe(page)).toEqual([]);
    await openDisplay(page, 'Skarn Edge');
  });
  test.each(PAGES)('%s and its sheets', async (at) => {
    await goTo(page, at);
    expect({ at, found: await axe(page) }).toEqual({ at, found: [] });
    for (const tab of TABS[at] ?? []) {
      await openTab(page, tab);
      expect({ tab, found: await axe(page) }).toEqual({ tab, found: [] });
    }
  });
  test('findings, and the pages outside a display', async () => {
    await page.locator('button[data-findings]').click();
    await page.waitForSelector('aside[aria-label="Findings"] li');
    expect(await axe(page)).toEqual([]);
    const token = await page.evaluate(async () => {
      const id = location.pathname.split('/')[2];
      return String((await (await fetch(`/api/displays/${id}/share`)).json()).token);
    });
    for (const [path, words] of [
      ['/account', 'Where you are signed in'],
      ['/letters', 'Mail is simulated'],
      ['/reset', 'A new password'],
      ['/join/none', 'opens nothing'],
      [`/s/${token}`, 'built'],
    ]) {
      await page.goto(demo.server().url + path);
      await sees(page, words);
      expect({ path, found: await axe(page) }).toEqual({ path, found: [] });
    }
  });
});

test('at phone width no page scrolls sideways', async () => {
  const page = await signedInPage(demo.browser(), demo.server(), 'Iva Thorsby', { width: 390, height: 844 });
  await openDisplay(page, 'Skarn Edge');
  for (const at of PAGES) {
    await goTo(page, at);
    for (const tab of at === 'progress' ? (TABS.progress ?? []) : []) {
      await openTab(page, tab);
      const wide = await page.evaluate(
        () =>
          document.querySelector('[role="tabpanel"]')?.scrollWidth ?? document.documentElement.scrollWidth,
      );
      expect({ tab, wide }).toEqual({ tab, wide: 390 });
    }
    expect({ at, wide: await page.evaluate(() => document.documentElement.scrollWidth) }).toEqual({
      at,
      wide: 390,
    });
  }
  await page.browserContext().close();
});
