import type { Page } from 'puppeteer-core';
import { goTo, newPage, openDisplay, openTab, pickFromOutline, press, sees, signedInPage } from './stage.ts';
import { PAGES, TABS, expectAccessible } from './everywhere.ts';
import { useDemo } from './suite.ts';

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
