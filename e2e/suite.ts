import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, BrowserContext, Page } from 'puppeteer-core';
import {
  newPage,
  refuseServiceWorker,
  signedInPage,
  startBrowser,
  startServer,
  type Server,
} from './stage.ts';

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
  /** What a person's browser keeps from one journey to the next: the session, and counts of ground. */
  const kept = new Map<string, BrowserContext>();
  const pageOf = async (who: string, size = { width: 1280, height: 800 }): Promise<Page> => {
    const context = kept.get(who);
    kept.delete(who);
    if (!context) return signedInPage(demo.browser(), demo.server(), who, size);
    const page = await newPage(context);
    await page.setViewport(size);
    await page.evaluateOnNewDocument(refuseServiceWorker);
    // Choices of the last journey (theme, unit) are not this one's.
    await page.goto(`${demo.server().url}/mark.svg`);
    const user = await page.evaluate(async () => {
      localStorage.clear();
      return (await fetch('/api/me')).text();
    });
    if (!user.includes(who)) {
      await context.close();
      return signedInPage(demo.browser(), demo.server(), who, size);
    }
    return page;
  };
  const journey = (name: string, walk: (open: Open) => Promise<void>) =>
    test(name, async () => {
      const pages: Page[] = [];
      const opened: [string, BrowserContext][] = [];
      const faults: string[] = [];
      try {
        await walk(async (who, size) => {
          const page = await pageOf(who, size);
          opened.push([who, page.browserContext()]);
          page.on('pageerror', (error) => faults.push(String(error)));
          pages.push(page);
          return page;
        });
        expect(faults).toEqual([]);
        for (const page of pages.splice(0)) await page.close();
        for (const [who, context] of opened.splice(0))
          if (kept.has(who)) await context.close();
          else kept.set(who, context);
      } catch (error) {
        const folder = join(__dirname, 'failures');
        mkdirSync(folder, { recursive: true });
        for (const [i, page] of pages.entries())
          await page.screenshot({
            path: join(folder, `${name.replace(/\W+/g, '-')}-${i}.png`) as `${string}.png`,
          });
        throw error;
      } finally {
        for (const [, context] of opened) await context.close();
      }
    });
  return { demo, journey };
}
