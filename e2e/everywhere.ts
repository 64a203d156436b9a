import { readFileSync } from 'node:fs';
import type { AxeResults, RunOptions } from 'axe-core';
import type { Page } from 'puppeteer-core';

// Every page and sheet, and what each must hold by axe.

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');
/** Every page of a display. */
export const PAGES = [
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
export const TABS: Partial<Record<string, string[]>> = {
  bench: [
    'Rings',
    'Roofs',
    'Turned walls',
    'Hinges',
    'Bays',
    'Stacks',
    'Block',
    'Picture',
    'Enlarged',
    'Lift',
    'Sideways',
  ],
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

const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];
/** WCAG 2.2 AA, and good practice. */
const EVERYTHING: RunOptions = {
  runOnly: {
    type: 'tag',
    values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
  },
};
/** The rules of those that hang on colours: the others find the same by night as by day. */
const COLOURS: RunOptions = { runOnly: { type: 'rule', values: COLOUR_RULES } };
/** The rules that hang on the size of the screen or of letters: colours are the same on all. */
export const SIZES: RunOptions = {
  ...EVERYTHING,
  rules: Object.fromEntries(COLOUR_RULES.map((rule) => [rule, { enabled: false }])),
};

/** What axe-core finds by some of its rules, one line each. */
export async function axe(page: Page, rules: RunOptions): Promise<string[]> {
  // Through the debugger, since the page's own policy runs no foreign script.
  const client = await page.createCDPSession();
  await client.send('Runtime.evaluate', { expression: `if (!window.axe) { ${AXE} }` });
  // What passes is not described: that takes longer than the rules.
  const options = JSON.stringify({
    ...rules,
    ...{ resultTypes: ['violations'], selectors: false },
    ...{ preload: false, iframes: false },
  });
  const { result } = await client.send('Runtime.evaluate', {
    expression: `axe.run(document, ${options}).then(({ violations }) => violations)`,
    awaitPromise: true,
    returnByValue: true,
  });
  await client.detach();
  const violations: AxeResults['violations'] = result.value;
  return violations.flatMap(({ id, nodes }) =>
    nodes.map(({ html, any }) => `${id}: ${html.slice(0, 160)} ${any[0]?.message ?? ''}`),
  );
}

/** Expects that axe finds nothing on what is shown, nor in its colours by night. */
export async function expectAccessible(page: Page, where: string): Promise<void> {
  expect({ where, found: await axe(page, EVERYTHING) }).toEqual({ where, found: [] });
  // The switch of the frame sets this attribute too; beside it, it only draws the boards again, which axe does not read.
  const turn = (to: 'night' | 'day') =>
    page.evaluate((theme) => void (document.documentElement.dataset.theme = theme), to);
  await turn('night');
  expect({ where, byNight: await axe(page, COLOURS) }).toEqual({ where, byNight: [] });
  await turn('day');
}
