import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type BrowserContext, type KeyInput, type Page } from 'puppeteer-core';
import CHROMIUM_PLACES from '../scripts/chromium.json';
import { remindOfCounts, seededDemo } from './counted.ts';

/** A built server in a folder of its own, and a browser: what journeys, screenshots and benchmarks stand on. */

export interface Server {
  url: string;
  pid: number;
  folder: string;
  /** What the server printed, such as the one-time code. */
  output: () => string;
  /** Ends it: politely, or as a power cut would. */
  stop(signal?: NodeJS.Signals): Promise<void>;
  /** Ends it and removes its folder. */
  remove(): Promise<void>;
}

const SERVER = join(__dirname, '..', 'apps', 'server', 'dist', 'main.js');

/** Starts the built server on a free port. @param options.folder a data folder to use again after a stop */
export async function startServer(
  options: { demo?: boolean; folder?: string; port?: number } = {},
): Promise<Server> {
  const folder = options.folder ?? mkdtempSync(join(tmpdir(), 'quarry-'));
  if (options.demo && options.folder === undefined && seededDemo !== null)
    cpSync(seededDemo, folder, { recursive: true });
  const args = [
    SERVER,
    '--port',
    String(options.port ?? 0),
    '--data',
    folder,
    ...(options.demo ? ['--demo'] : []),
  ];
  const child: ChildProcess = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'pipe'] });
  let output = '';
  child.stdout?.on('data', (chunk) => (output += String(chunk)));
  child.stderr?.on('data', (chunk) => (output += String(chunk)));
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  const url = await new Promise<string>((resolve, reject) => {
    const look = setInterval(() => {
      const found = /at (http:\S+)/.exec(output);
      if (!found && child.exitCode === null) return;
      clearInterval(look);
      if (found) resolve(found[1].replace('localhost', '127.0.0.1'));
      else reject(new Error(`the server did not start: ${output}`));
    }, 20);
  });
  const stop = async (signal: NodeJS.Signals = 'SIGTERM') => {
    if (child.exitCode === null && child.signalCode === null) child.kill(signal);
    await ended;
  };
  return {
    url,
    pid: child.pid ?? 0,
    folder,
    output: () => output,
    stop,
    async remove() {
      await stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** The one without windows first: it takes a tenth less time for the same pages. */
const CHROMIUM = CHROMIUM_PLACES.find((path) => existsSync(path));

/** A wait ends at what hangs; a busy machine is ten times slower than a quiet one. Below the limit of a test (jest.config). */
const LONGEST_WAIT_MS = 120_000;

/** A page whose waits allow for a busy machine. */
export async function newPage(context: BrowserContext): Promise<Page> {
  const page = await context.newPage();
  page.setDefaultTimeout(LONGEST_WAIT_MS);
  return page;
}

/** A headless browser with a profile of its own. */
export async function startBrowser(): Promise<Browser> {
  if (!CHROMIUM) throw new Error('no Chromium found: install Debian’s package “chromium”');
  return puppeteer.launch({
    executablePath: CHROMIUM,
    args: [
      '--headless',
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-gpu',
      '--force-prefers-reduced-motion',
      '--font-render-hinting=none',
      // A journey is short: optimising code for it takes longer than it saves, unless it counts ground in hot loops.
      '--js-flags=--no-turbofan,--invocation-count-for-maglev=2000',
    ],
  });
}

/** Keeps a page from storing the whole app for later, which takes as long as many a journey. */
export function refuseServiceWorker(): void {
  navigator.serviceWorker.register = () => Promise.reject(new Error('not in this journey'));
}

/**
 * A page in a context of its own (its own cookies and storage), signed in as one of the demo crew. It shows a picture of the
 * server's, since the list of displays takes as long to draw as many a journey: see `openList` and `openDisplay`.
 * @param options.keepsApp it stores the app, so that it opens without the network
 */
export async function signedInPage(
  browser: Browser,
  server: Server,
  name: string,
  size = { width: 1280, height: 800 },
  { keepsApp = false } = {},
): Promise<Page> {
  const context = await browser.createBrowserContext();
  const page = await newPage(context);
  await page.setViewport(size);
  if (!keepsApp) await page.evaluateOnNewDocument(refuseServiceWorker);
  await page.goto(`${server.url}/mark.svg`);
  const status = await page.evaluate(async (who) => {
    const crew: { name: string; login: string }[] = await (await fetch('/api/demo/crew')).json();
    const answer = await fetch('/api/demo/session', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ login: crew.find((one) => one.name === who)?.login }),
    });
    return answer.status;
  }, name);
  if (status >= 300) throw new Error(`${name} is not signed in: ${status}`);
  await remindOfCounts(page);
  return page;
}

/** Goes to the list of displays. */
export async function openList(page: Page): Promise<void> {
  await page.goto(new URL('/', page.url()).href);
  await page.waitForSelector('::-p-text(Displays)');
}

/** Begins a display on a table of 192 × 96 studs with a brick of ground, and goes to its plan. */
export async function beginOnTable(page: Page, name: string): Promise<void> {
  await openList(page);
  await page.focus('main input');
  await page.keyboard.type(name);
  await press(page, 'Table 192 × 96');
  await choose(page, 'Ground begins on', 'one brick up');
  await press(page, 'Begin');
  await page.waitForSelector('nav[aria-label="Pages"]');
  await goTo(page, 'plan');
}

/** Takes back the last act by its keys. */
export async function undo(page: Page): Promise<void> {
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
}

/** Opens a display by its address, on one of its pages. */
export async function openDisplay(page: Page, name: string, at = 'plan'): Promise<void> {
  const id = await page.evaluate(async (wanted) => {
    const displays: { id: string; name: string }[] = await (await fetch('/api/displays')).json();
    return displays.find((one) => one.name === wanted)?.id;
  }, name);
  if (id === undefined) throw new Error(`no display “${name}” for this person`);
  await page.goto(new URL(`/d/${id}/${at}`, page.url()).href, { waitUntil: 'domcontentloaded' });
  await pageThere(page, at);
}

/** Clicks a page in the rail. */
export async function goTo(page: Page, at: string): Promise<void> {
  await page.locator(`nav[aria-label="Pages"] a[href$="/${at}"]`).click();
  await page.waitForFunction((end) => location.pathname.endsWith(end), {}, `/${at}`);
  await pageThere(page, at);
}

/** Waits until a page of a display has come: until it has, the rail points at the last. */
async function pageThere(page: Page, at: string): Promise<void> {
  await page.waitForSelector(`nav[aria-label="Pages"] a[aria-current="page"][href$="/${at}"]`);
  await page.waitForFunction(
    () => !document.querySelector('main')?.textContent?.trim().startsWith('Opening the page'),
  );
  if (at === 'plan') await boardReady(page);
}

/** Waits until the board has drawn the compiled ground. */
export async function boardReady(page: Page): Promise<void> {
  await page.waitForSelector('[role="application"] canvas');
  await page.waitForSelector('figure[aria-label^="Section cut"]');
}

/** Types into a field by its label and leaves it with Enter, as a person would. */
export async function fill(page: Page, label: string, text: string): Promise<void> {
  const field = await page.waitForSelector(`::-p-aria([name="${label}"])`);
  await field?.click({ count: 3 });
  await field?.press('Backspace');
  await field?.type(text);
  await field?.press('Enter');
}

/** Clicks a button by its accessible name. */
export async function press(page: Page, name: string): Promise<void> {
  await page.locator(`::-p-aria([name="${name}"][role="button"])`).click();
}

/** Replaces what stands in a text area. Not Puppeteer's own fill: it empties the area behind the page's back, and a page that draws itself in that moment puts the old text back. */
export async function writeText(page: Page, selector: string, text: string): Promise<void> {
  const area = await page.waitForSelector(selector);
  await area?.focus();
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
}

/** Takes up a tool by its letter, the board in hand rather than a field. */
export async function take(page: Page, key: KeyInput): Promise<void> {
  await page.focus('[role="application"]');
  await page.keyboard.press(key);
}

/**
 * How often the text of a page is read again: it is dear to read, so not with each frame. Puppeteer's
 * polling by mutation would do less, but does not see that a text node got another text.
 */
const TEXT_POLL_MS = 150;

/** Waits until the page says so, anywhere in its text. */
export async function sees(page: Page, text: string): Promise<void> {
  await page.waitForFunction(
    (words) => document.body.innerText.includes(words),
    { polling: TEXT_POLL_MS },
    text,
  );
}

/** The token of the public page of the display that is open. */
export const shareToken = (page: Page): Promise<string> =>
  page.evaluate(async () => {
    const id = location.pathname.split('/')[2];
    return String((await (await fetch(`/api/displays/${id}/share`)).json()).token);
  });

/** Waits until no part of the page is still being opened. */
export async function allThere(page: Page): Promise<void> {
  await page.waitForFunction(() => !document.querySelector('[role="status"] svg'), {
    polling: TEXT_POLL_MS,
  });
}

/** Waits until every change has been acknowledged. */
export const saved = (page: Page) =>
  page.waitForFunction(() => document.querySelector('[aria-label="Saving"]')?.textContent === 'Saved', {
    polling: TEXT_POLL_MS,
  });

/** The value of a field by its label. */
export async function valueOf(page: Page, label: string): Promise<string> {
  const field = await page.waitForSelector(`::-p-aria([name="${label}"])`);
  return field ? field.evaluate((element) => ('value' in element ? String(element.value) : '')) : '';
}

/** Times a tab is pressed, and how long each press may take to open it, ms: an answer that comes in that moment may move the strip. */
const TAB_PRESSES = 4;
const TAB_MS = 15_000;

/** Opens a tab by its word: a sheet of the brief, a place or a panel of the survey. */
export async function openTab(page: Page, word: string): Promise<void> {
  const tab = (more: string) =>
    `::-p-xpath(//button[@role="tab"${more} and starts-with(normalize-space(), "${word}")])`;
  for (let press = 1; ; press++) {
    await page.locator(tab('')).click();
    const isLast = press === TAB_PRESSES;
    const opened = await page
      .waitForSelector(tab(' and @aria-selected="true"'), { timeout: TAB_MS })
      .catch((error: unknown) => {
        if (isLast) throw error;
        return null;
      });
    if (opened) return;
  }
}

/** Picks from a list by the option's word: a heading of the same name, behind a dialog that opens, is none. */
export async function choose(page: Page, label: string, word: string): Promise<void> {
  const list = await page.waitForSelector(`::-p-aria([name="${label}"][role="combobox"])`);
  const value = await list?.evaluate(
    (element, text) =>
      [...element.querySelectorAll('option')].find((option) => option.textContent?.startsWith(text))?.value,
    word,
  );
  if (value === undefined) throw new Error(`“${label}” has no option “${word}”`);
  await list?.select(value);
}

/** Picks something from the plan's outline. */
export async function pickFromOutline(page: Page, group: string, name: string): Promise<void> {
  await page.evaluate((word) => {
    for (const details of document.querySelectorAll('aside[aria-label="Inspector"] details'))
      if (details.textContent?.startsWith(word)) details.setAttribute('open', '');
  }, group);
  await page
    .locator(
      `::-p-xpath(//aside[@aria-label="Inspector"]//button[starts-with(normalize-space(), "${name}")])`,
    )
    .click();
  await page.waitForSelector(`::-p-xpath(//aside[@aria-label="Inspector"]//h2[normalize-space()="${name}"])`);
}

/** Finds where studs are on the screen, by what the status strip says of two places. */
async function studsOnScreen(page: Page): Promise<(stud: [number, number]) => { x: number; y: number }> {
  const at = await page.evaluate(() => {
    const box = document.querySelector('[role="application"]')?.getBoundingClientRect();
    const zoom = Number(/([\d.]+) px\/stud/.exec(document.body.innerText)?.[1]);
    return { x: box?.x ?? 0, y: box?.y ?? 0, w: box?.width ?? 0, h: box?.height ?? 0, zoom };
  });
  const [cx, cy] = [at.x + at.w / 2, at.y + at.h / 2];
  await page.mouse.move(cx, cy);
  await page.waitForFunction(() => /Pointer\s*-?\d+, -?\d+ st/.test(document.body.innerText));
  const [, sx, sy] =
    /Pointer\s*(-?\d+), (-?\d+) st/.exec(await page.evaluate(() => document.body.innerText)) ?? [];
  return ([x, y]) => ({ x: cx + (x - Number(sx)) * at.zoom, y: cy + (y - Number(sy)) * at.zoom });
}

/** Drags on the board from one stud to another, at the scale it has. */
export async function dragStuds(page: Page, from: [number, number], to: [number, number]): Promise<void> {
  const place = await studsOnScreen(page);
  const [a, b] = [place(from), place(to)];
  await page.mouse.move(a.x, a.y);
  await page.mouse.down();
  await page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2, { steps: 4 });
  await page.mouse.move(b.x, b.y, { steps: 4 });
  await page.mouse.up();
}

/** Lets the pointer rest on a stud of the board. */
export async function restOnStud(page: Page, stud: [number, number]): Promise<void> {
  const { x, y } = (await studsOnScreen(page))(stud);
  await page.mouse.move(x, y);
}

/** Clicks studs on the board one after the other. */
export async function clickStuds(page: Page, ...studs: [number, number][]): Promise<void> {
  const place = await studsOnScreen(page);
  for (const stud of studs) {
    const { x, y } = place(stud);
    await page.mouse.click(x, y);
  }
}

/** Waits until the inspector shows the data sheet of a thing by this name. */
export const shows = (page: Page, name: string) =>
  page.waitForSelector(`::-p-xpath(//aside[@aria-label="Inspector"]//h2[normalize-space()="${name}"])`);

/** How many things of a group the plan's outline counts. */
export const countInOutline = (page: Page, group: string) =>
  page.$eval(`::-p-xpath(//aside[@aria-label="Inspector"]//summary[contains(., "${group}")])`, (summary) =>
    Number(/\d+$/.exec(summary.textContent ?? '')?.[0]),
  );

/** Opens a panel of Stockpile on the display that the crew is on. */
export async function openStockpile(page: Page, tab: string): Promise<void> {
  await openDisplay(page, 'Skarn Edge', 'stockpile');
  await openTab(page, tab);
}

/** Presses a button within the open panel by words it has. */
export const pressInPanel = (page: Page, words: string) =>
  page.locator(`::-p-xpath(//section[@role="tabpanel"]//button[contains(., "${words}")])`).click();
