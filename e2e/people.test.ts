import { mkdtempSync, readFileSync, rmSync, writeFileSync, existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import {
  boardReady,
  dragStuds,
  fill,
  openDisplay,
  openList,
  pickFromOutline,
  press,
  saved,
  sees,
  shows,
  signedInPage,
  startServer,
  undo,
  valueOf,
  newPage,
} from './stage.ts';
import { useDemo } from './suite.ts';

/** What people of different standing do: a first owner, a builder at the table, a viewer, somebody with a file. */
const demo = useDemo();

const close = (page: Page) => page.browserContext().close();
const until = async (holds: () => boolean) => {
  for (let i = 0; i < 200 && !holds(); i++) await new Promise((resolve) => setTimeout(resolve, 50));
};

test('a newcomer goes from the one-time code to a first cutting and its needs in twelve acts', async () => {
  const server = await startServer();
  const context = await demo.browser().createBrowserContext();
  const page = await newPage(context);
  await page.setViewport({ width: 1280, height: 800 });
  let acts = 0;
  /** One thing that a person does: fills a field, presses a button, draws. */
  const act = async (does: Promise<unknown>) => {
    acts++;
    await does;
  };
  const onPage = (at: string) => page.waitForFunction((end) => location.pathname.endsWith(end), {}, at);
  try {
    const code = /one-time code (\w+)/.exec(server.output())?.[1] ?? '';
    await page.goto(`${server.url}/setup`);
    await page.waitForSelector('input[name="code"]');
    await act(page.type('input[name="code"]', code));
    await act(page.type('input[name="name"]', 'Wanda Firth'));
    await act(page.type('input[name="login"]', 'wanda'));
    await act(fill(page, 'Password', 'a long enough one'));
    await sees(page, 'No display yet');
    await page.waitForSelector('main input');
    await act(page.type('main input', 'Otter holt'));
    // Enter in the size begins.
    await act(fill(page, 'Size, width × depth', '42 × 55 cm'));
    await onPage('/brief');
    await sees(page, '52 × 68 studs');
    // Nothing is short, late or blocked before anything is drawn, and no finding is graver than a note.
    await page.waitForSelector('button[data-findings^="0 0 "]');
    await act(page.locator('::-p-aria([name="Next: Plan"])').click());
    await boardReady(page);
    await page.keyboard.press('h');
    await act(dragStuds(page, [4, 4], [40, 44]));
    await shows(page, 'Hill 1');
    await act(page.locator('::-p-aria([name="Next: Cut"])').click());
    await act(press(page, 'Cut'));
    await sees(page, 'Proven');
    await act(press(page, 'Use this cutting'));
    await act(page.locator('::-p-aria([name="Next: Needs"])').click());
    await page.waitForFunction(
      () => Number(/Pieces counted\s+([\d,]+)/.exec(document.body.innerText)?.[1].replaceAll(',', '')) > 100,
    );
    expect(acts).toBeLessThanOrEqual(12);
    await press(page, 'Done');
    await page.waitForFunction(() => !document.querySelector('nav[aria-label="First steps"]'));
  } finally {
    await context.close();
    await server.remove();
  }
});

test('what a builder moves out of an own section is refused by the server, and nothing is lost', async () => {
  const page = await signedInPage(demo.browser(), demo.server(), 'Brenna Rook');
  await openDisplay(page, 'Skarn Edge');
  await pickFromOutline(page, 'Plots', 'Baker');
  await fill(page, 'Height', '15b');
  await saved(page);
  const before = await valueOf(page, 'From north');
  await fill(page, 'From north', '20');
  await page.waitForSelector('::-p-text(does not lie wholly in a section of yours)');
  await page.waitForFunction(
    (north) => [...document.querySelectorAll('input')].some(({ value }) => value === north),
    {},
    before,
  );
  expect(await valueOf(page, 'Height')).toBe('15b');
  await close(page);
});

test('a finding is kept with a reason, reopened, and lapses when its number changes', async () => {
  const page = await signedInPage(demo.browser(), demo.server(), 'Iva Thorsby');
  await openDisplay(page, 'Heron at the weir');
  await page.waitForSelector('button[data-findings="1 1 0"]');
  await page.locator('button[data-findings]').click();
  await press(page, 'Accept with a reason …');
  await fill(page, 'Reason for accepting', 'The judges measure without the flag.');
  await page.waitForSelector('button[data-findings="0 1 0"]');
  await sees(page, 'Accepted by Iva Thorsby');
  await press(page, 'Reopen');
  await page.waitForSelector('button[data-findings="1 1 0"]');
  await undo(page);
  await page.waitForSelector('button[data-findings="0 1 0"]');
  await press(page, 'Close the findings');
  await pickFromOutline(page, 'Plots', 'Eel trap hut');
  await fill(page, 'Height', '11b');
  await page.waitForSelector('button[data-findings="1 1 0"]');
  await page.locator('button[data-findings]').click();
  await sees(page, 'Was accepted (“The judges measure without the flag.”), but its numbers have changed.');
  await close(page);
});

test('a display goes out as a file and comes in as another; a broken file says what is wrong', async () => {
  const page = await signedInPage(demo.browser(), demo.server(), 'Iva Thorsby');
  await openList(page);
  const folder = mkdtempSync(join(tmpdir(), 'quarry-files-'));
  try {
    const client = await page.createCDPSession();
    await client.send('Browser.setDownloadBehavior', {
      behavior: 'allow',
      downloadPath: folder,
      browserContextId: page.browserContext().id,
    });
    await page.locator('::-p-aria([name="Save Larch Lane as a file"])').click();
    const path = join(folder, 'larch-lane.quarry.json');
    await until(() => existsSync(path));
    const text = readFileSync(path, 'utf8');
    const input = await page.$('input[type="file"]');
    const broken = join(folder, 'broken.json');
    writeFileSync(broken, text.replace('"w": 288', '"w": 288000'));
    await input?.uploadFile(broken);
    await sees(page, 'field “w”: Too big');
    expect(page.url()).toBe(`${demo.server().url}/`);
    const renamed = join(folder, 'renamed.json');
    writeFileSync(renamed, text.replace('"name": "Larch Lane"', '"name": "Alder Lane"'));
    await input?.uploadFile(renamed);
    await boardReady(page);
    await sees(page, 'Alder Lane');
    await page.goto(demo.server().url);
    await press(page, 'Delete Alder Lane');
    await press(page, 'Delete for everybody');
    await page.waitForFunction(() => !document.body.innerText.includes('Alder Lane'));
  } finally {
    rmSync(folder, { recursive: true, force: true });
    await close(page);
  }
});

test('things are drawn, measured, removed and brought back; theme and units stay', async () => {
  const page = await signedInPage(demo.browser(), demo.server(), 'Iva Thorsby');
  await openDisplay(page, 'Larch Lane');
  await page.keyboard.press('b');
  const board = await (await page.$('[role="application"]'))?.boundingBox();
  if (!board) throw new Error('no board');
  await page.mouse.move(board.x + 300, board.y + 420);
  await page.mouse.down();
  await page.mouse.move(board.x + 360, board.y + 460, { steps: 5 });
  await page.mouse.up();
  await page.waitForSelector('::-p-xpath(//h2[normalize-space()="Plot 12"])');
  await page.keyboard.press('Delete');
  await page.waitForSelector('::-p-xpath(//h2[normalize-space()="Whole display"])');
  await page.locator('button[aria-label^="Undo: removed Plot 12"]').click();
  await pickFromOutline(page, 'Plots', 'Plot 12');
  const width = await valueOf(page, 'Width, east');
  expect(width).toMatch(/^\d+ studs$/);
  // A length may be typed in any unit; half a stud is the finest step.
  await fill(page, 'Width, east', '6 1/4 in');
  await sees(page, 'is not a whole number of steps of 4 mm');
  await page.keyboard.press('Escape');
  await fill(page, 'Width, east', '16.8 cm');
  expect(await valueOf(page, 'Width, east')).toBe('21 studs');
  await press(page, 'mm beside studs; show inches');
  await sees(page, '≈ 6 5/8 in');
  await press(page, 'Night shift');
  await saved(page);
  await page.reload();
  await boardReady(page);
  expect(await page.$eval('html', (html) => html.dataset.theme)).toBe('night');
  await page.waitForSelector('::-p-aria([name="in beside studs; show millimetres"])');
  await close(page);
});
