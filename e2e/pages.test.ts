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

/** WCAG 2.2 AA, and good practice. */
const EVERYTHING = {
  type: 'tag',
  values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
};
/** The rules of those that hang on colours: the others find the same by night as by day. */
const COLOURS = { type: 'rule', values: ['color-contrast', 'link-in-text-block'] };

/** What axe-core finds by some of its rules, one line each. */
async function axe(page: Page, rules: typeof COLOURS): Promise<string[]> {
  // Through the debugger, since the page's own policy runs no foreign script.
  const client = await page.createCDPSession();
  await client.send('Runtime.evaluate', { expression: `if (!window.axe) { ${AXE} }` });
  const { result } = await client.send('Runtime.evaluate', {
    expression: `axe.run(document, { runOnly: ${JSON.stringify(rules)} })`,
    awaitPromise: true,
    returnByValue: true,
  });
  await client.detach();
  const { violations }: AxeResults = result.value;
  return violations.flatMap(({ id, nodes }) =>
    nodes.map(({ html, any }) => `${id}: ${html.slice(0, 160)} ${any[0]?.message ?? ''}`),
  );
}

/** Expects that axe finds nothing on what is shown, nor in its colours by night. */
async function expectAccessible(page: Page, where: string): Promise<void> {
  expect({ where, found: await axe(page, EVERYTHING) }).toEqual({ where, found: [] });
  const [night, day] = ['Night shift', 'Day sheet'].map((name) => `button[aria-label="${name}"]`);
  const inFrame = (await page.$(night)) !== null;
  // Pages outside a display have no switch: their theme is an attribute alone.
  const turn = (to: 'night' | 'day') =>
    inFrame
      ? page.locator(to === 'night' ? night : day).click()
      : page.evaluate((theme) => void (document.documentElement.dataset.theme = theme), to);
  await turn('night');
  await page.waitForSelector('html[data-theme="night"]');
  expect({ where, byNight: await axe(page, COLOURS) }).toEqual({ where, byNight: [] });
  await turn('day');
  await page.waitForSelector('html[data-theme="day"]');
}

const demo = useDemo();

describe('axe finds nothing by day and night:', () => {
  let page: Page;
  beforeAll(async () => {
    page = await signedInPage(demo.browser(), demo.server(), 'Iva Thorsby');
  });
  afterAll(() => page.browserContext().close());

  test('welcome and the displays', async () => {
    const context = await demo.browser().createBrowserContext();
    const first = await context.newPage();
    await first.goto(demo.server().url);
    await first.waitForSelector('::-p-text(Iva Thorsby)');
    await expectAccessible(first, 'welcome');
    await context.close();
    await expectAccessible(page, 'displays');
    await openDisplay(page, 'Skarn Edge');
  });
  test.each(PAGES)('%s and its sheets', async (at) => {
    await goTo(page, at);
    await expectAccessible(page, at);
    for (const tab of TABS[at] ?? []) {
      await openTab(page, tab);
      await expectAccessible(page, `${at}, ${tab}`);
    }
  });
  test('findings, and the pages outside a display', async () => {
    await page.locator('button[data-findings]').click();
    await page.waitForSelector('aside[aria-label="Findings"] li');
    await expectAccessible(page, 'findings');
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
      await expectAccessible(page, path);
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
