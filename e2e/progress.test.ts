import { fill, goTo, openDisplay, openTab, press, saved, sees } from './stage.ts';
import { useJourneys } from './suite.ts';

/** Builders at the table, with a phone; and what their hours say of the end. */
const { journey } = useJourneys();

journey(
  'three sessions on a phone: started and stopped, typed, counted; the rate is learnt from them',
  async (open) => {
    const page = await open('Suri Vale', { width: 390, height: 844 });
    await openDisplay(page, 'Skarn Edge');
    await goTo(page, 'progress');
    await openTab(page, 'Sessions');
    // Whoever only looks logs nothing.
    await sees(page, 'Viewers may look at this display but not change it.');
    const mads = await open('Mads Elvery', { width: 390, height: 844 });
    await openDisplay(mads, 'Skarn Edge');
    await goTo(mads, 'progress');
    await openTab(mads, 'Sessions');
    await sees(mads, 'learnt from 4');
    await press(mads, 'Start');
    await sees(mads, 'Ground, section C since');
    await fill(mads, 'Pieces placed, if you counted', '1.5');
    await sees(mads, '«1.5» is not a whole number');
    await fill(mads, 'Pieces placed, if you counted', '40');
    await press(mads, 'Stop');
    await saved(mads);
    await sees(mads, 'learnt from 5');
    await fill(mads, 'Or typed: minutes, until now', '2000');
    await sees(mads, 'not a whole number from 1 to 1,440');
    await fill(mads, 'Or typed: minutes, until now', '45');
    await saved(mads);
    await sees(mads, '45 min');
  },
);

journey('no forecast without guesses; with them odds stand, and move when the guess does', async (open) => {
  const page = await open('Iva Thorsby');
  await openDisplay(page, 'Skarn Edge');
  await goTo(page, 'progress');
  await openTab(page, 'Outlook');
  await sees(page, 'No forecast without knowing these');
  await sees(page, 'Section E: who builds it?');
  await fill(page, 'E, East fell', '10');
  await saved(page);
  await goTo(page, 'crew');
  await press(page, 'Hand over … section E');
  await page.select('dialog[open] select', 'tobin');
  await press(page, 'Hand it over');
  await saved(page);
  await goTo(page, 'progress');
  await openTab(page, 'Outlook');
  await sees(page, 'Ready for Larkmoor Brick Show', 30_000);
  const odds = () =>
    page.evaluate(() => /Ready for Larkmoor Brick Show\s*(\d+) %/.exec(document.body.innerText)?.[1] ?? '');
  const before = Number(await odds());
  await fill(page, 'B, Mill street', '900');
  await saved(page);
  await page.waitForFunction(
    (was) => {
      const now = /Ready for Larkmoor Brick Show\s*(\d+) %/.exec(document.body.innerText)?.[1];
      return now !== undefined && Number(now) < was;
    },
    { timeout: 30_000, polling: 200 },
    before,
  );
  await sees(page, 'What moves the odds most');
});
