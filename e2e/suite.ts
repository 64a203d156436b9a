import type { Browser } from 'puppeteer-core';
import { startBrowser, startServer, type Server } from './stage.ts';

/** A demo server and a browser for the tests of one file; started before them, removed after them. */
export function useDemo(): { server: () => Server; browser: () => Browser } {
  let server: Server | undefined;
  let browser: Browser | undefined;
  beforeAll(async () => {
    server = await startServer({ demo: true });
    browser = await startBrowser();
  });
  afterAll(async () => {
    await browser?.close();
    await server?.remove();
  });
  const ready = <T>(thing: T | undefined): T => {
    if (thing === undefined) throw new Error('the demo is not up yet');
    return thing;
  };
  return { server: () => ready(server), browser: () => ready(browser) };
}
