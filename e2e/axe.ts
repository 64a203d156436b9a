import { readFileSync } from 'node:fs';
import type * as axeCore from 'axe-core';
import type { RunOptions } from 'axe-core';
import type { Page } from 'puppeteer-core';

// What axe-core finds on what a page shows: its rules on all of it, those of colours on each pair of colours once.

declare global {
  interface Window {
    axe: typeof axeCore;
  }
}

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];
/** What passes is not described: that takes longer than the rules. */
const BRIEF: RunOptions = { resultTypes: ['violations'], selectors: false, preload: false, iframes: false };
/** WCAG 2.2 AA and good practice, but for colours. */
const RULES: RunOptions = {
  ...BRIEF,
  runOnly: {
    type: 'tag',
    values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
  },
  rules: Object.fromEntries(COLOUR_RULES.map((rule) => [rule, { enabled: false }])),
};
const COLOURS: RunOptions = {
  ...BRIEF,
  runOnly: { type: 'rule', values: COLOUR_RULES },
  resultTypes: ['violations', 'passes'],
  elementRef: true,
};

/** Brings axe to a page that has none: through the debugger, since the page's own policy runs no foreign script. */
async function bringAxe(page: Page): Promise<void> {
  const client = await page.createCDPSession();
  await client.send('Runtime.evaluate', { expression: `if (!window.axe) { ${AXE} }` });
  await client.detach();
}

/** What axe finds on what is shown, colours apart; one line for each element. */
export async function axe(page: Page): Promise<string[]> {
  await bringAxe(page);
  return page.evaluate(async (rules) => {
    const { violations } = await window.axe.run(document, rules);
    return violations.flatMap(({ id, nodes }) =>
      nodes.map(({ html, any }) => `${id}: ${html.slice(0, 160)} ${any[0]?.message ?? ''}`),
    );
  }, RULES);
}

/** Looks of texts that need not be judged again on a page: those that passed, and places where axe never says. */
const known = new WeakMap<Page, Set<string>>();

/**
 * What axe finds on the colours that are shown; one line for each element. Judged is one text of each look that has not
 * passed before on this page: axe takes most of its time for the colours of rows that differ in nothing but their words.
 */
export async function faintColours(page: Page): Promise<string[]> {
  await bringAxe(page);
  const looks = known.get(page) ?? new Set<string>();
  known.set(page, looks);
  const { settled, faults } = await page.evaluate(judgeColours, [...looks], COLOURS);
  for (const look of settled) looks.add(look);
  return faults;
}

/** Has axe judge the texts whose look is not among those known. Runs in the page. */
async function judgeColours(
  settledBefore: string[],
  options: RunOptions,
): Promise<{ settled: string[]; faults: string[] }> {
  const isClear = (colour: string) => /rgba\(.* 0\)|transparent/.test(colour);
  const isOpaque = (colour: string) => !/rgba|\/|transparent/.test(colour);
  /** All that the contrast of a text hangs on: its letters, and what is behind them up to the first opaque ground. */
  const lookOf = (element: Element) => {
    const { color, fontSize, fontWeight, textShadow } = getComputedStyle(element);
    const parts = [color, fontSize, fontWeight, textShadow];
    const link = element.closest('a');
    if (link?.parentElement)
      parts.push(
        `in ${getComputedStyle(link.parentElement).color} ${getComputedStyle(link).textDecorationLine}`,
      );
    let isCovered = false;
    for (let at: Element | null = element; at; at = at.parentElement) {
      const { backgroundColor, backgroundImage, opacity, position } = getComputedStyle(at);
      if (!isCovered && !isClear(backgroundColor)) parts.push(backgroundColor);
      if (!isCovered && backgroundImage !== 'none') parts.push(backgroundImage);
      if (opacity !== '1') parts.push(`opacity ${opacity}`);
      // What is lifted out of the flow may lie on anything.
      if (!isCovered && position !== 'static' && position !== 'relative')
        parts.push(`${position} ${at.className}`);
      isCovered ||= isOpaque(backgroundColor);
    }
    return parts.join(' | ');
  };
  const hasText = (element: Element) =>
    element.matches('input, select, textarea') ||
    [...element.childNodes].some(({ nodeType, nodeValue }) => nodeType === 3 && nodeValue?.trim() !== '');
  // What axe does not judge: what only a screen reader tells, and what is hidden from it.
  const isJudged = (element: Element) =>
    hasText(element) &&
    !element.closest('.sr-only, [aria-hidden="true"]') &&
    element.checkVisibility({ opacityProperty: true, visibilityProperty: true });
  const placeOf = (look: string, element: Element) => `${look} at ${element.tagName} ${element.className}`;

  const settled = new Set(settledBefore);
  const open = new Map<string, Element[]>();
  for (const element of document.querySelectorAll('body *')) {
    if (!isJudged(element)) continue;
    const look = lookOf(element);
    if (!settled.has(look) && !settled.has(placeOf(look, element)))
      open.set(look, [...(open.get(look) ?? []), element]);
  }
  settled.clear();
  const faults: string[] = [];
  const judge = async (elements: Element[]) => {
    if (elements.length === 0) return;
    const { violations, passes } = await window.axe.run({ include: elements }, options);
    for (const { id, nodes } of violations)
      for (const { html, any } of nodes) faults.push(`${id}: ${html.slice(0, 160)} ${any[0]?.message ?? ''}`);
    const passed = new Set<Element | undefined>(
      passes.flatMap(({ nodes }) => nodes.map(({ element }) => element)),
    );
    for (const [look, group] of open)
      if (group.some((element) => passed.has(element))) {
        open.delete(look);
        settled.add(look);
      }
  };
  await judge([...open.values()].map(([first]) => first));
  // Where the first is one that axe leaves undecided, such as a field that is shut, or a text that something covers.
  await judge([...open.values()].flatMap(([, ...others]) => others));
  if (faults.length === 0)
    for (const [look, group] of open) for (const element of group) settled.add(placeOf(look, element));
  return { settled: [...settled], faults };
}
