import { fill, goTo, openDisplay, press, saved, sees, signedInPage, startServer, newPage } from '../stage.ts';
import { useJourneys } from '../suite.ts';

/** The first owner, a builder at the table, and two people at once, on a demo as it was seeded. */
const { demo, journey } = useJourneys();

test('a real instance: the printed code makes the first account, once; sign out and in again', async () => {
  const server = await startServer();
  const context = await demo.browser().createBrowserContext();
  const page = await newPage(context);
  try {
    const code = /one-time code (\w+)/.exec(server.output())?.[1] ?? '';
    expect(code).toMatch(/^[0-9A-F]{10}$/);
    await page.goto(`${server.url}/setup`);
    await fill(page, 'One-time code from the terminal', 'ABCDEF');
    await sees(page, 'Type your name.');
    await fill(page, 'Your name', 'Ada Fenn');
    await fill(page, 'Sign-in name', 'ada');
    await fill(page, 'Password', 'short');
    await sees(page, 'A password has at least 12 characters.');
    await fill(page, 'Password', 'a long enough one');
    await sees(page, 'not the code that the server printed');
    await fill(page, 'One-time code from the terminal', code);
    await sees(page, 'No display yet');
    await press(page, 'Sign out');
    await sees(page, 'Sign-in name');
    await fill(page, 'Sign-in name', 'ada');
    await fill(page, 'Password', 'not this one');
    await sees(page, 'The name or the password is not right.');
    await fill(page, 'Password', 'a long enough one');
    await sees(page, 'No display yet');
    await page.goto(`${server.url}/setup`);
    await sees(page, 'No display yet');
  } finally {
    await context.close();
    await server.remove();
  }
});

test('at the table with a phone: a stage on, a percentage, a base counted', async () => {
  const page = await signedInPage(demo.browser(), demo.server(), 'Mads Elvery', { width: 390, height: 844 });
  await openDisplay(page, 'Skarn Edge', 'progress');
  await fill(page, 'Percent of ground done in section D', '101');
  await sees(page, '101 is above the most, 100.');
  await fill(page, 'Percent of ground done in section D', '90');
  await saved(page);
  await press(page, 'Section C on to structures');
  await page.waitForSelector('::-p-aria([name="Section C on to dressed"])');
  await page.locator('button[data-findings]').click();
  await sees(page, 'findings');
  await press(page, 'Close the findings');
  await goTo(page, 'stockpile');
  await sees(page, 'short');
  await page.browserContext().close();
});

journey(
  'two people on one display: changes arrive, conflicts are shown, a builder keeps to a section',
  async (open) => {
    const [iva, brenna] = [await open('Iva Thorsby'), await open('Brenna Rook')];
    for (const page of [iva, brenna]) await openDisplay(page, 'Skarn Edge');
    await goTo(brenna, 'progress');
    expect(
      await brenna.$eval('[aria-label="Section D on to structures"]', (button) =>
        button.hasAttribute('disabled'),
      ),
    ).toBe(true);
    await press(brenna, 'Section B on to lit');
    await goTo(iva, 'progress');
    await sees(iva, '% of lit');

    // Both change one number while Brenna is cut off: hers comes too late, and she decides.
    await brenna.setOfflineMode(true);
    await fill(brenna, 'Percent of lit done in section B', '30');
    await sees(brenna, '1 change waiting');
    await fill(iva, 'Percent of lit done in section B', '50');
    await saved(iva);
    await brenna.setOfflineMode(false);
    await sees(brenna, 'Somebody changed this first');
    await press(brenna, 'Put mine on top');
    await saved(brenna);
    await iva.waitForFunction(() =>
      [...document.querySelectorAll('input')].some((input) => input.value === '30'),
    );
  },
);
