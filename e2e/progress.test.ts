import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ICAL from 'ical.js';
import { choose, fill, goTo, openDisplay, openTab, press, saved, sees } from './stage.ts';
import { useJourneys } from './suite.ts';

/** Builders at the table, with a phone; and what their hours say of the end. */
const { journey } = useJourneys();
const PHONE = { width: 390, height: 844 };

journey(
  'three sessions on a phone: started and stopped, typed, counted; the rate is learnt from them',
  async (open) => {
    const page = await open('Suri Vale', PHONE);
    await openDisplay(page, 'Skarn Edge', 'progress');
    await openTab(page, 'Sessions');
    // Whoever only looks logs nothing.
    await sees(page, 'Viewers may look at this display but not change it.');
    const mads = await open('Mads Elvery', PHONE);
    await openDisplay(mads, 'Skarn Edge', 'progress');
    await openTab(mads, 'Sessions');
    await sees(mads, 'learnt from 4');
    await press(mads, 'Start');
    await sees(mads, 'Ground, section C since');
    await fill(mads, 'Pieces placed, if you counted', '1.5');
    await sees(mads, '“1.5” is not a whole number');
    await fill(mads, 'Pieces placed, if you counted', '40');
    await press(mads, 'Stop');
    await saved(mads);
    await sees(mads, 'learnt from 5');
    await fill(mads, 'Or typed: minutes, until now', '2000');
    await sees(mads, 'is no time from 1 to 1,440 minutes');
    await fill(mads, 'Or typed: minutes, until now', '45');
    await saved(mads);
    await sees(mads, '45 min');
    // The pieces one had forgotten, of the session that began before the last one.
    await mads
      .locator('::-p-xpath((//button[starts-with(@aria-label, "Change the session of Mads Elvery")])[2])')
      .click();
    await fill(mads, 'Pieces placed', '150');
    await saved(mads);
    await sees(mads, '200 an hour');
    await sees(mads, 'learnt from 6');
  },
);

journey(
  'an evening on a phone: what can be finished, sat down to, ticked off, the stage moved on, all with one batch',
  async (open) => {
    const brenna = await open('Brenna Rook', PHONE);
    await openDisplay(brenna, 'Skarn Edge', 'progress');
    await openTab(brenna, 'Tonight');
    // How long an evening is depends on the day of the week: one of 2 h 30 is asked for.
    await brenna.focus('input[type=range]');
    const minutes = () => brenna.$eval('input[type=range]', (input) => Number(input.value));
    for (let now = await minutes(); now !== 150; now = await minutes())
      await brenna.keyboard.press(now > 150 ? 'ArrowLeft' : 'ArrowRight');
    await sees(brenna, '2 h 20 of 2 h 30');
    await sees(brenna, 'Lay the last of the kerb');
    await brenna.locator('::-p-text(Not tonight: 2)').click();
    await sees(brenna, 'its parts come on');
    // A shorter evening holds less.
    await brenna.focus('input[type=range]');
    for (let i = 0; i < 4; i++) await brenna.keyboard.press('ArrowLeft');
    await sees(brenna, '1 h 20 of 1 h 30');
    await press(brenna, 'Sit down and start');
    await openTab(brenna, 'Sessions');
    await sees(brenna, 'Dressing, section B since');
    await brenna.locator('::-p-aria([name="Letter the shop signs"][role="checkbox"])').click();
    await choose(brenna, 'Section B is now', 'lit');
    await press(brenna, 'Stop');
    await saved(brenna);
    await sees(brenna, 'finished “Letter the shop signs”');
    await openTab(brenna, 'Sections');
    await sees(brenna, '% of lit');
  },
);

journey(
  'odds leave out what is not known; with it they stand, move when the guess does, and go out in an update',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'progress');
    await openTab(page, 'Outlook');
    await sees(page, 'Left out: section E');
    await sees(page, 'Section E: who builds it?');
    await goTo(page, 'crew');
    await press(page, 'Hand over … section E');
    await page.select('dialog[open] select', 'tobin');
    await press(page, 'Hand it over');
    await saved(page);
    await goTo(page, 'progress');
    await openTab(page, 'Outlook');
    const odds = () =>
      page.evaluate(
        () => /Ready for Larkmoor Brick Show\s*[<>]? ?(\d+) %/.exec(document.body.innerText)?.[1] ?? null,
      );
    await page.waitForFunction(
      () => /Ready for Larkmoor Brick Show\s*[<>]? ?\d+ %/.test(document.body.innerText),
      {
        ...{ polling: 200 },
      },
    );
    const before = Number(await odds());
    await fill(page, 'B, Mill street', '900');
    await saved(page);
    await page.waitForFunction(
      (was) => {
        const now = /Ready for Larkmoor Brick Show\s*[<>]? ?(\d+) %/.exec(document.body.innerText)?.[1];
        return now !== undefined && Number(now) < was;
      },
      { polling: 200 },
      before,
    );
    await sees(page, 'What moves the odds most');
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
    const address = await page.evaluate(async () => {
      const id = location.pathname.split('/')[2];
      const share: unknown = await (await fetch(`/api/displays/${id}/share`)).json();
      return `${location.origin}/s/${String(Object(share).token)}`;
    });
    await page.goto(address);
    await sees(page, 'Written by hand in front.');
  },
);

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
  const folder = join(__dirname, '..', 'docs', 'screenshots');
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
