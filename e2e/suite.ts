import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { signedInPage, startBrowser, startServer, type Server } from './stage.ts';

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

type Open = (who: string, size?: { width: number; height: number }) => Promise<Page>;

/** The demo with journeys on it: each opens its pages as people; when it fails, they are pictured in e2e/failures. */
export function useJourneys() {
  const demo = useDemo();
  const journey = (name: string, walk: (open: Open) => Promise<void>) =>
    test(name, async () => {
      const pages: Page[] = [];
      const faults: string[] = [];
      try {
        await walk(async (who, size) => {
          const page = await signedInPage(demo.browser(), demo.server(), who, size);
          page.on('pageerror', (error) => faults.push(String(error)));
          pages.push(page);
          return page;
        });
        expect(faults).toEqual([]);
      } catch (error) {
        const folder = join(__dirname, 'failures');
        mkdirSync(folder, { recursive: true });
        for (const [i, page] of pages.entries())
          await page.screenshot({
            path: join(folder, `${name.replace(/\W+/g, '-')}-${i}.png`) as `${string}.png`,
          });
        throw error;
      } finally {
        for (const page of pages) await page.browserContext().close();
      }
    });
  return { demo, journey };
}
