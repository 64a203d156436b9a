import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ICAL from 'ical.js';
import {
  boardReady,
  fill,
  goTo,
  openDisplay,
  openTab,
  press,
  saved,
  sees,
  shareToken,
  shows,
} from '../stage.ts';
import { useJourneys } from '../suite.ts';

/** What followers read, who sits down when, photos from one spot to the next, and an evening on a phone. */
const { journey } = useJourneys();

journey('an update is worked out, edited by hand, sent, and read by the public', async (open) => {
  const page = await open('Iva Thorsby');
  await openDisplay(page, 'Skarn Edge', 'progress');
  await page.locator('::-p-text(Write the update)').click();
  await sees(page, 'Work and odds');
  await sees(page, 'hours at the table in');
  await page.waitForSelector(
    '::-p-xpath(//button[normalize-space()="Edit the whole text" and not(@disabled)])',
  );
  await press(page, 'Edit the whole text');
  const text = await page.waitForSelector('::-p-aria([name="The whole text, as Markdown"])');
  const written = await text?.evaluate((element) => ('value' in element ? String(element.value) : ''));
  expect(written).toContain('- Ready for Larkmoor Brick Show');
  // The public page names nobody: a text that does is not sent there.
  await page.locator('::-p-xpath(//label[contains(., "Also on the page for the public")]//input)').click();
  await sees(page, 'this text names');
  await press(page, 'Back to what is worked out');
  await press(page, 'Edit the whole text');
  const again = await page.waitForSelector('::-p-aria([name="The whole text, as Markdown"])');
  await again?.click();
  await again?.evaluate(
    (element) => element instanceof HTMLTextAreaElement && element.setSelectionRange(0, 0),
  );
  await again?.type('Written by hand in front. ');
  await press(page, 'Send the report');
  await saved(page);
  await page.goto(`${new URL(page.url()).origin}/s/${await shareToken(page)}`);
  await sees(page, 'Written by hand in front.');
});

journey('three clocks on one page: who sits down when, and the agenda as a file', async (open) => {
  const iva = await open('Iva Thorsby');
  await iva.emulateTimezone('America/St_Johns');
  await openDisplay(iva, 'Skarn Edge', 'progress');
  await openTab(iva, 'Agenda');
  await sees(iva, 'times of America/St Johns');
  await sees(iva, '(19:30–22:00 there)');
  await sees(iva, 'Brenna Rook, Iva Thorsby, Tobin Orr');
  await iva.locator('::-p-xpath(//summary[contains(., "Iva Thorsby")])').click();
  await fill(iva, 'Clock of', 'Nowhere/At_all');
  await sees(iva, '“Nowhere/At_all” is no zone');
  await fill(iva, 'Clock of', 'Asia/Kolkata');
  await fill(iva, 'Begins at', '06:30');
  await saved(iva);
  await sees(iva, '(06:30–08:30 there)');
  const agenda = await iva.evaluate(async () => {
    const link = document.querySelector('a[href*="agenda.ics"]');
    return (await fetch(link?.getAttribute('href') ?? '')).text();
  });
  const starts = new ICAL.Component(ICAL.parse(agenda))
    .getAllSubcomponents('vevent')
    .map((event) => new ICAL.Event(event))
    .filter(({ uid }) => uid.includes('sitting-iva'))
    .map(({ startDate }) => startDate.toString().slice(11));
  // Half past six in a zone five and a half hours ahead, without summer time.
  expect(new Set(starts)).toEqual(new Set(['01:00:00Z']));
});

journey('a photo from the same spot lies over the one before', async (open) => {
  const mads = await open('Mads Elvery');
  await openDisplay(mads, 'Skarn Edge', 'progress');
  await openTab(mads, 'Photos');
  await sees(mads, '3 photos');
  await press(mads, 'From the spot that is open');
  const input = await mads.waitForSelector('input[type=file]');
  const folder = join(__dirname, '..', '..', 'docs', 'screenshots');
  const [picture] = readdirSync(folder).filter((name) => name.endsWith('.png'));
  if (!input) throw new Error('no place for a file');
  await (input as unknown as { uploadFile(path: string): Promise<void> }).uploadFile(join(folder, picture));
  await sees(mads, '4 photos');
  await saved(mads);
  const shown = await mads.$$eval('figure[aria-label="Before and after"] img', (all) =>
    all.slice(0, 2).map((one) => one instanceof HTMLImageElement && one.complete && one.naturalWidth > 0),
  );
  expect(shown).toHaveLength(2);
  await mads.waitForFunction(() =>
    [...document.querySelectorAll('figure[aria-label="Before and after"] img')].every(
      (one) => one instanceof HTMLImageElement && one.naturalWidth > 0,
    ),
  );
  await mads.focus('figure input[type=range]');
  await mads.keyboard.press('End');
  await sees(mads, 'Before: ');
  await mads.locator('::-p-aria([name="On the public page"])').click();
  await saved(mads);
  // The display goes out with its photos and comes back with them.
  const archive = await mads.evaluate(async () => {
    const id = location.pathname.split('/')[2];
    const bytes = new Uint8Array(await (await fetch(`/api/displays/${id}/photos`)).arrayBuffer());
    return btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''));
  });
  const out = mkdtempSync(join(tmpdir(), 'quarry-archive-'));
  try {
    writeFileSync(join(out, 'skarn.quarry.zip'), Buffer.from(archive, 'base64'));
    await mads.goto(new URL('/', mads.url()).href);
    const field = await mads.waitForSelector('input[aria-label="Display file"]');
    await (field as unknown as { uploadFile(path: string): Promise<void> }).uploadFile(
      join(out, 'skarn.quarry.zip'),
    );
    await mads.waitForFunction(() => location.pathname.endsWith('/plan'));
    await goTo(mads, 'progress');
    await openTab(mads, 'Photos');
    await sees(mads, '4 photos');
    await mads.waitForFunction(() =>
      [...document.querySelectorAll('figure[aria-label="Before and after"] img')].every(
        (one) => one instanceof HTMLImageElement && one.naturalWidth > 0,
      ),
    );
  } finally {
    rmSync(out, { recursive: true });
  }
});

journey(
  'tonight on a phone: a session is started and stopped, a task ticked, a module looked up',
  async (open) => {
    const page = await open('Iva Thorsby', { width: 390, height: 844 });
    await openDisplay(page, 'Skarn Edge', 'progress');
    await openTab(page, 'Sessions');
    await press(page, 'Start');
    await press(page, 'Stop');
    await saved(page);
    await openTab(page, 'Tasks');
    await page.locator('input[aria-label*="Letter the shop signs"]').click();
    await saved(page);
    await openTab(page, 'Tonight');
    await sees(page, 'At the table');
    // The finder is on the phone's head too.
    await press(page, 'Find or do anything');
    await page.waitForSelector('[cmdk-input]');
    await page.keyboard.type('skarn top');
    await page.keyboard.press('Enter');
    await boardReady(page);
    await shows(page, 'Skarn top');
  },
);
