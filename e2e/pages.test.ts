import type { Page } from 'puppeteer-core';
import {
  allThere,
  boardReady,
  goTo,
  newPage,
  openDisplay,
  openList,
  openTab,
  pickFromOutline,
  press,
  sees,
  shareToken,
  signedInPage,
} from './stage.ts';
import { isAll } from '../packages/core/test/runs.ts';
import { PAGES, TABS, expectAccessible } from './everywhere.ts';
import { PHONE, expectFits } from './fit.ts';
import { useDemo } from './suite.ts';

const demo = useDemo();

describe('axe finds nothing by day and night, and all is made for fingers:', () => {
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
    await first.locator('::-p-xpath(//button[contains(., "Iva Thorsby")])').click();
    await first.locator('::-p-xpath(//a[normalize-space()="Skarn Edge"])').click();
    await boardReady(first);
    await context.close();
    await openList(page);
    await expectAccessible(page, 'displays');
    await expectFits(page, 'displays');
    await openDisplay(page, 'Skarn Edge', 'brief');
  });
  test.each(PAGES)('%s and its sheets', async (at) => {
    await goTo(page, at);
    await expectAccessible(page, at);
    await expectFits(page, at);
    for (const tab of TABS[at] ?? []) {
      await openTab(page, tab);
      if (isAll) await expectAccessible(page, `${at}, ${tab}`);
      await expectFits(page, `${at}, ${tab}`, isAll ? undefined : PHONE);
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
  test('leaves by month, a custom ground, wishes of followers, and a new one', async () => {
    await goTo(page, 'stockpile');
    await openTab(page, 'Colours');
    await press(page, 'Leaves by month');
    await sees(page, 'Leaves in October');
    await expectAccessible(page, 'leaves by month');
    await press(page, 'Custom grounds');
    await press(page, 'New ground');
    await sees(page, 'From the top down');
    await expectAccessible(page, 'custom grounds');
    await press(page, 'Remove this ground');
    await goTo(page, 'crew');
    await openTab(page, 'Advice');
    await press(page, 'Wishes');
    await sees(page, '3 wishes of 68 followers');
    await expectAccessible(page, 'wishes');
    await press(page, 'Advise');
    await page.locator('::-p-xpath(//label[contains(., "A wish of followers")])').click();
    await page.waitForSelector('input[type="number"]');
    await expectAccessible(page, 'a new wish');
  });
  test('findings, and the pages outside a display', async () => {
    await page.locator('button[data-findings]').click();
    await page.waitForSelector('aside[aria-label="Findings"] li');
    await expectAccessible(page, 'findings');
    await expectFits(page, 'findings');
    const token = await shareToken(page);
    for (const [path, words] of [
      ['/account', 'Where you are signed in'],
      ['/letters', 'Mail is simulated'],
      ['/reset', 'A new password'],
      ['/join/none', 'opens nothing'],
      [`/s/${token}`, 'built'],
    ]) {
      await page.goto(demo.server().url + path);
      await sees(page, words);
      await allThere(page);
      await expectAccessible(page, path);
    }
  });
});
