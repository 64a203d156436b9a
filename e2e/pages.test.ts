import { readFileSync } from 'node:fs';
import type { AxeResults } from 'axe-core';
import type { Page } from 'puppeteer-core';
import { goTo, newPage, openDisplay, openTab, pickFromOutline, press, sees, signedInPage } from './stage.ts';
import { useDemo } from './suite.ts';

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');
const PAGES = [
  'brief',
  'survey',
  'plan',
  'cut',
  'sight',
  'stockpile',
  'progress',
  'crew',
  'transport',
  'bench',
];

/** Sheets and panels within pages. */
const TABS: Partial<Record<string, string[]>> = {
  bench: ['Rings', 'Roofs', 'Turned walls', 'Bays', 'Picture', 'Lift', 'Sideways'],
  brief: ['Scale', 'Space', 'Dates', 'Cast', 'Versions'],
  crew: ['People', 'Advice', 'History', 'Since last report', 'Owners'],
  progress: ['Tonight', 'Sessions', 'Tasks', 'Outlook', 'Agenda', 'Photos', 'One day', 'Sections'],
  cut: ['By hand', 'Lifting', 'Stability', 'Seams', 'Order', 'Alternatives'],
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
  sight: ['Buildings and scenes', 'Who looks', 'Walk', 'Sections'],
  transport: [
    ...['Vehicles', 'Crates', 'Brought along', 'Order', 'Light and power', 'Supplies', 'Parts and switches'],
    ...['Circuits', 'Kit', 'At the show', 'Day', 'Load'],
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
  // Pages outside a display have no switch, and over a dialog none is in reach: their theme is an attribute alone.
  const inFrame = (await page.$(night)) !== null && (await page.$('dialog[open]')) === null;
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
    const first = await newPage(context);
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
  test('the street elevation, the fronts and the floors of a building', async () => {
    await goTo(page, 'plan');
    for (const [act, words] of [
      ['Street elevation', 'Seen of its front'],
      ['Open its fronts', 'Bays, from the left'],
      ['Open its floors', 'Places for figures'],
    ]) {
      if (act === 'Open its fronts') await pickFromOutline(page, 'Plots', 'Baker');
      await press(page, act);
      await sees(page, words);
      await expectAccessible(page, act);
      await page.keyboard.press('Escape');
      await page.waitForFunction(() => document.querySelector('dialog[open]') === null);
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

interface Fit {
  /** What scrolls sideways beside strips of tabs and tools, photos and the matrix, which are strips by nature. */
  sideways: string[];
  /** Share of what is pressed that is 44 px high, and 24 wide, at least. */
  large: number;
  small: string[];
  /** Fields whose text a phone would zoom in on. */
  zooming: string[];
  /** Texts cut off without their whole in a title. */
  cut: string[];
}

/** How what is shown fits its screen. Runs in the page. */
function measureFit(): Fit {
  const isShown = (element: Element) => {
    const { width, height } = element.getBoundingClientRect();
    const isVisible = element.checkVisibility({ opacityProperty: true, visibilityProperty: true });
    return isVisible && width > 1 && height > 1 && !element.closest('.sr-only, [aria-hidden="true"]');
  };
  const all = (selector: string) => [...document.querySelectorAll(selector)].filter(isShown);
  const words = (element: Element) =>
    `${element.tagName} “${(element.getAttribute('aria-label') ?? element.textContent ?? '').trim().slice(0, 30)}”`;
  /** A tick is pressed as far as the mark behind it reaches. */
  const pressed = (element: Element) => {
    const { width, height } = (element.closest('label') ?? element).getBoundingClientRect();
    const { content, top } = getComputedStyle(element, '::after');
    const beyond = content === 'none' ? 0 : -Number.parseFloat(top) || 0;
    const own = element.getBoundingClientRect();
    return { w: Math.max(width, own.width + 2 * beyond), h: Math.max(height, own.height + 2 * beyond) };
  };
  const isInText = (element: Element) =>
    element instanceof HTMLAnchorElement && getComputedStyle(element).display === 'inline';
  const targets = all('button, a[href], input, select, textarea, summary').filter(
    (element) => !isInText(element) && !(element instanceof HTMLInputElement && element.type === 'file'),
  );
  const small = targets.filter((element) => {
    const { w, h } = pressed(element);
    return h < 43.5 || w < 23.5;
  });
  const isStrip = (element: Element) =>
    element.matches('[role="tablist"], ol, [data-strip]') ||
    element.querySelector(':scope > [aria-keyshortcuts]');
  const scrollers = all('body *').filter(
    (element) =>
      element.scrollWidth > element.clientWidth + 1 &&
      ['auto', 'scroll'].includes(getComputedStyle(element).overflowX) &&
      !isStrip(element),
  );
  const isWide = document.documentElement.scrollWidth > innerWidth;
  return {
    sideways: [...(isWide ? [`page ${document.documentElement.scrollWidth}`] : []), ...scrollers.map(words)],
    large: 1 - small.length / Math.max(1, targets.length),
    small: small.map(words),
    zooming: all('input:not([type="checkbox"], [type="radio"], [type="range"]), select, textarea')
      .filter((element) => Number.parseFloat(getComputedStyle(element).fontSize) < 16)
      .map(words),
    cut: all('main *')
      .filter(
        (element) =>
          element.childElementCount === 0 &&
          element.scrollWidth > element.clientWidth + 1 &&
          !['visible', 'auto', 'scroll'].includes(getComputedStyle(element).overflowX) &&
          !element.matches('input, select, textarea') &&
          !element.closest('[title]'),
      )
      .map(words),
  };
}

/** Least share of targets that a finger hits well. */
const LARGE = 0.95;

test.each([
  ['a phone', 390, 844],
  ['a tablet', 820, 1180],
  ['a laptop with letters twice as large', 640, 400],
])(
  'made for fingers on %s (%i × %i): nothing scrolls sideways, is cut off, or is too small to press',
  async (_, width, height) => {
    const page = await signedInPage(demo.browser(), demo.server(), 'Iva Thorsby', { width, height });
    const expectFit = async (where: string) => {
      const { sideways, large, small, zooming, cut } = await page.evaluate(measureFit);
      const found = width === 640 ? await axe(page, EVERYTHING) : [];
      expect({ where, sideways, zooming, cut, small: large < LARGE ? small : [], found }).toEqual({
        ...{ where, sideways: [], zooming: [], cut: [], small: [], found: [] },
      });
    };
    await expectFit('displays');
    await openDisplay(page, 'Skarn Edge');
    for (const at of PAGES) {
      await goTo(page, at);
      await expectFit(at);
      for (const tab of TABS[at] ?? []) {
        await openTab(page, tab);
        await expectFit(`${at}, ${tab}`);
      }
    }
    await page.locator('button[data-findings]').click();
    await page.waitForSelector('aside[aria-label="Findings"] li');
    await expectFit('findings');
    await page.browserContext().close();
  },
);
