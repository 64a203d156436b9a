import type { Page } from 'puppeteer-core';
import { axe } from './axe.ts';

// How a page fits the screens that people have in their hands.

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

/** What still scrolls after so many looks, a tenth of a second apart, is no chart that is being drawn. */
const CHART_TRIES = 100;

const SCREENS = [
  { width: 820, height: 1180, of: 'a tablet' },
  { width: 640, height: 400, of: 'a laptop with letters twice as large' },
  { width: 390, height: 844, of: 'a phone' },
];
/** Where most of what does not fit shows. */
export const PHONE = SCREENS.slice(-1);

/**
 * Expects that what is shown is made for fingers on each screen: nothing scrolls sideways, is cut off, or is too small to
 * press, and that axe finds nothing where letters are twice as large. The page has its size again afterwards.
 */
export async function expectFits(page: Page, state: string, screens = SCREENS): Promise<void> {
  const before = page.viewport();
  for (const { of, ...size } of screens) {
    const where = `${state} on ${of} (${size.width} × ${size.height})`;
    await resize(page, size);
    let fit = await page.evaluate(measureFit);
    // Charts are drawn to their new width a little later.
    for (let tries = 0; tries < CHART_TRIES && fit.sideways.length > 0; tries++) {
      await new Promise((done) => setTimeout(done, 100));
      fit = await page.evaluate(measureFit);
    }
    const { sideways, large, small, zooming, cut } = fit;
    const found = size.width === 640 ? await axe(page) : [];
    expect({ where, sideways, zooming, cut, small: large < LARGE ? small : [], found }).toEqual({
      ...{ where, sideways: [], zooming: [], cut: [], small: [], found: [] },
    });
  }
  if (before) await resize(page, before);
}

/** Turns a page to another size and waits until it is laid out: sizes are observed before a frame, and drawn in the next. */
async function resize(page: Page, size: { width: number; height: number }): Promise<void> {
  await page.setViewport(size);
  await page.evaluate(
    () =>
      new Promise((resolve) => {
        requestAnimationFrame(() => requestAnimationFrame(resolve));
      }),
  );
}
