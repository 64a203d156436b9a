import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { COUNTED_ENV, keptFile, keptOf } from './counted.ts';
import { openDisplay, signedInPage, startBrowser, startServer } from './stage.ts';

/** How long the demo may take to be counted on a busy machine, and how often it is asked, ms. */
const LONGEST_COUNT = 240_000;
const EVERY = 250;

/** Seeds the demo and counts it once, before a whole run of journeys. */
export default async function prepare({
  nonFlagArgs,
  runTestsByPath,
  testPathPatterns,
}: {
  nonFlagArgs: string[];
  runTestsByPath: boolean;
  testPathPatterns: { patterns: string[] };
}): Promise<void> {
  if (runTestsByPath || nonFlagArgs.length > 0 || testPathPatterns.patterns.length > 0) return;
  const folder = mkdtempSync(join(tmpdir(), 'quarry-counted-'));
  const server = await startServer({ demo: true, folder: join(folder, 'demo') });
  const browser = await startBrowser();
  const page = await signedInPage(browser, server, 'Iva Thorsby');
  await openDisplay(page, 'Skarn Edge');
  let kept = '';
  for (const began = Date.now(); kept === '';) {
    if (Date.now() - began > LONGEST_COUNT) throw new Error('the demo is not counted');
    await new Promise((resolve) => setTimeout(resolve, EVERY));
    kept = await keptOf(page);
  }
  writeFileSync(keptFile(folder), kept);
  await browser.close();
  await server.stop();
  process.env[COUNTED_ENV] = folder;
}
