import { join } from 'node:path';
import { choose, fill, openDisplay, openTab, press, saved, sees } from '../stage.ts';
import { useJourneys } from '../suite.ts';

const { journey } = useJourneys();

journey(
  'a cast from figures in hand: a stand-in plays, the one that is missing is found, visitors read the story',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'brief');
    await openTab(page, 'Cast');
    await sees(page, '4 of 6 scenes');
    const scene = (name: string) => `//li[@aria-label="${name}"]`;
    const click = (xpath: string) => page.locator(`::-p-xpath(${xpath})`).click();
    // Pell is lost: Yarrow, of the same role, may play, and is named by one act.
    await click(`${scene('Slate splitters')}/button`);
    await sees(page, 'Yarrow may play it');
    await click(`${scene('Slate splitters')}//button[. = "Name those who play now"]`);
    await saved(page);
    await page.waitForSelector(`::-p-xpath(${scene('Slate splitters')}//summary[contains(., "Yarrow")])`);
    // The goat is what one more scene lacks; found, it can be made.
    await click('//section[@aria-labelledby="small-scenes"]//button[. = "White goat"]');
    await choose(page, 'State', 'Ready');
    await saved(page);
    await sees(page, '5 of 6 scenes');
    // A character of one's own takes a spot that asks for its role.
    await press(page, 'Add a character');
    await saved(page);
    await fill(page, 'Name', 'Dot from the mill');
    await fill(page, 'Role', 'brakeman');
    const [photo] = await Promise.all([
      page.waitForFileChooser(),
      click('//label[contains(., "Photo")][@for]'),
    ]);
    await photo.accept([join(__dirname, '..', '..', 'docs', 'screenshots', 'plan.png')]);
    await page.waitForSelector('img[alt="Photo of Dot from the mill"]');
    await saved(page);
    await click(`${scene('Runaway wagon')}/button`);
    await sees(page, 'Dot from the mill may play it');
    // In another version somebody would be in two places: that is a finding there.
    await choose(page, 'Version shown', 'Market day');
    await click(
      '//table[@aria-label="Characters"]//tr[.//button[contains(., "Nan Quill")] and contains(., "The fiddler")]//button',
    );
    await sees(page, 'Nan Quill');
    // What visitors read.
    const token = await page.evaluate(async () => {
      const id = location.pathname.split('/')[2];
      const share = `/api/displays/${id}/share`;
      const headers = { 'content-type': 'application/json' };
      await fetch(share, { method: 'PUT', headers, body: '{}' });
      const { token: made } = (await (await fetch(share)).json()) as { token: string };
      return made;
    });
    const visitor = await open('Tobin Orr');
    await visitor.goto(`${new URL(page.url()).origin}/s/${token}`);
    for (const words of [
      'The story',
      'Everybody runs, nobody catches it',
      'goats',
      'Market day',
      'figures in scenes',
    ])
      await sees(visitor, words);
    const text = await visitor.evaluate(() => document.body.textContent);
    // Names that are not marked for the public stay with the crew.
    for (const name of ['Old Wenna', 'Keeper Thole']) expect(text).toContain(name);
    for (const name of ['Bettany', 'Lise Marrow', 'Dot from the mill']) expect(text).not.toContain(name);
  },
);
