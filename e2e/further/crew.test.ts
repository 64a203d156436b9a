import { randomUUID } from 'node:crypto';
import type { Page } from 'puppeteer-core';
import {
  allThere,
  boardReady,
  choose,
  fill,
  goTo,
  openDisplay,
  openTab,
  pickFromOutline,
  press,
  saved,
  sees,
  signedInPage,
  startServer,
  valueOf,
  newPage,
} from '../stage.ts';
import { useJourneys } from '../suite.ts';

/** Several people on one display, each in a browser of their own. */
const { demo, journey } = useJourneys();

const type = async (page: Page, label: string, text: string) => {
  const field = await page.waitForSelector(`::-p-aria([name="${label}"])`);
  await field?.click({ count: 3 });
  await field?.press('Backspace');
  await field?.type(text);
};
/** What the page asked the interface for, in JSON, as this person. */
const asked = (page: Page, method: string, path: string, body?: object) =>
  page.evaluate(
    async (how, where, text) => {
      const answer = await fetch(where, {
        method: how,
        ...(text === null ? {} : { headers: { 'content-type': 'application/json' }, body: text }),
      });
      const read = await answer.text();
      return { status: answer.status, body: read === '' ? null : JSON.parse(read) };
    },
    method,
    path,
    body ? JSON.stringify(body) : null,
  );
const idOf = (page: Page) => new URL(page.url()).pathname.split('/')[2];

journey(
  'two people see each other, what the other has picked, and each change within a second',
  async (open) => {
    const [iva, brenna] = [await open('Iva Thorsby'), await open('Brenna Rook')];
    await openDisplay(iva, 'Skarn Edge');
    await openDisplay(brenna, 'Skarn Edge');
    await iva.waitForSelector('header a [title^="Brenna Rook"]');
    await pickFromOutline(brenna, 'Plots', 'Baker');
    await iva.waitForSelector('[title="Brenna Rook: Plan, section B"]');
    await goTo(iva, 'crew');
    await sees(iva, 'Brenna Rook here now');
    await fill(brenna, 'Height', '15b');
    const began = Date.now();
    await sees(iva, 'Brenna Rook changed');
    expect(Date.now() - began).toBeLessThan(3000);
    await openTab(iva, 'History');
    await sees(iva, 'raised Baker from 14b to 15b');
  },
);

journey(
  'a builder proposes elsewhere, a planner takes it over with one press, and both hear of it',
  async (open) => {
    const [brenna, tobin] = [await open('Brenna Rook'), await open('Tobin Orr')];
    await openDisplay(brenna, 'Skarn Edge');
    await openDisplay(tobin, 'Skarn Edge', 'crew');
    await pickFromOutline(brenna, 'Plots', 'Winding house');
    await brenna.locator('::-p-text(Advise on it)').click();
    await sees(brenna, 'About Winding house');
    await press(brenna, 'Show it as a proposal instead');
    await sees(brenna, 'You are proposing.');
    await goTo(brenna, 'plan');
    await fill(brenna, 'Height', '12b');
    await sees(brenna, '1 change, the last');
    await press(brenna, 'Send as advice …');
    await type(brenna, 'In a few words', 'Winding house two bricks taller');
    await type(brenna, 'Why (mention a person with @)', '@Tobin, the wheel shows over the hill then.');
    await press(brenna, 'Send');
    await saved(brenna);
    // Nothing has moved yet, for anybody.
    expect(await valueOf(brenna, 'Height')).toBe('10b');
    await openTab(tobin, 'Advice');
    await tobin.locator('::-p-text(Winding house two bricks taller)').click();
    await sees(tobin, 'Raised Winding house from 10b to 12b');
    await press(tobin, 'Apply');
    await saved(tobin);
    await sees(tobin, 'It has been taken over.');
    await brenna.waitForFunction(() =>
      [...document.querySelectorAll('input')].some(({ value }) => value === '12b'),
    );
    await brenna.goto(`${demo.server().url}/letters`);
    await sees(brenna, 'Tobin Orr accepted your “Winding house two bricks taller”');
  },
);

test('a first evening without the server: seven changes wait, survive a reload, and land in order when it is back', async () => {
  let server = await startServer({ demo: true });
  const port = Number(new URL(server.url).port);
  const page = await signedInPage(demo.browser(), server, 'Iva Thorsby', undefined, { keepsApp: true });
  try {
    await openDisplay(page, 'Larch Lane');
    // The pages are kept for this a few seconds after they have been opened.
    await page.waitForFunction(
      async () => {
        const worker = await navigator.serviceWorker.getRegistration();
        return (
          worker?.active?.state === 'activated' &&
          Boolean(await caches.match('/index.html', { ignoreSearch: true }))
        );
      },
      { polling: 500 },
    );
    const kept = await page.evaluate(async () => {
      const names = (await caches.keys()).filter((name) => name.includes('precache'));
      const all = await Promise.all(names.map(async (name) => (await caches.open(name)).matchAll()));
      const sizes = all.flat().map(async (response) => (await response.arrayBuffer()).byteLength);
      return (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
    });
    expect(kept).toBeGreaterThan(1_000_000);
    expect(kept).toBeLessThan(3_000_000);
    await server.stop('SIGKILL');
    const path = new URL(page.url()).pathname;
    await pickFromOutline(page, 'Plots', 'Florist');
    for (let height = 11; height <= 17; height++) await fill(page, 'Height', `${height}b`);
    await sees(page, '7 changes waiting');
    await page.reload();
    await boardReady(page);
    await sees(page, '7 changes waiting');
    await pickFromOutline(page, 'Plots', 'Florist');
    expect(await valueOf(page, 'Height')).toBe('17b');
    // A server that hangs takes calls and never answers: the page opens from what is kept all the same.
    server = await startServer({ demo: true, folder: server.folder, port });
    process.kill(server.pid, 'SIGSTOP');
    try {
      await page.reload();
      await boardReady(page);
      await sees(page, '7 changes waiting');
    } finally {
      process.kill(server.pid, 'SIGCONT');
    }
    await page.waitForFunction(
      () => document.querySelector('[aria-label="Saving"]')?.textContent === 'Saved',
      { polling: 200 },
    );
    const { body } = await asked(page, 'GET', `/api/displays/${path.split('/')[2]}/batches`);
    expect(
      (body as { changes: { set: { height: number } }[] }[])
        .slice(-7)
        .map(({ changes }) => changes[0].set.height),
    ).toEqual([33, 36, 39, 42, 45, 48, 51]);
  } finally {
    await page.browserContext().close();
    await server.remove();
  }
});

journey(
  'an owner invites by a link; a newcomer joins, is seen, is made a planner, and is taken off again',
  async (open) => {
    const iva = await open('Iva Thorsby');
    await openDisplay(iva, 'Larch Lane', 'crew');
    await openTab(iva, 'People');
    await sees(iva, 'Nobody is invited');
    await press(iva, 'Make a link');
    await sees(iva, 'Shown this once.');
    const link = await iva.$eval('[role="status"] .select-all', (element) => element.textContent ?? '');
    const context = await demo.browser().createBrowserContext();
    const nell = await newPage(context);
    try {
      await nell.goto(link);
      await sees(nell, 'Iva Thorsby asks you to join as builder');
      await type(nell, 'Your name', 'Nell Hythe');
      await type(nell, 'Sign-in name', 'nell');
      await type(nell, 'Password', 'short');
      await press(nell, 'Join');
      await sees(nell, 'A password has at least 12 characters.');
      await type(nell, 'Password', 'long enough by now');
      await press(nell, 'Join');
      await boardReady(nell);
      await nell.goto(link);
      await sees(nell, 'This invitation opens nothing');
      await nell.goBack();
      await boardReady(nell);
      await iva.reload();
      await openTab(iva, 'People');
      await sees(iva, 'Nell Hythe');
      await choose(iva, 'Role of Nell Hythe', 'planner');
      await goTo(nell, 'crew');
      await openTab(nell, 'People');
      await sees(nell, 'all of the plan');
      await iva.reload();
      await openTab(iva, 'People');
      await press(iva, 'Take off Nell Hythe');
      await press(iva, 'Take off');
      await sees(nell, 'This display is closed to you');
    } finally {
      await context.close();
    }
  },
);

journey(
  'history: the plan as it was, a change taken back, a display brought back; a report goes out and the public reads it',
  async (open) => {
    const iva = await open('Iva Thorsby');
    await openDisplay(iva, 'Skarn Edge', 'crew');
    await openTab(iva, 'History');
    await iva.locator('::-p-text(moved Dam 1 stud east)').click();
    await sees(iva, 'As it was');
    await iva.waitForSelector('[aria-label^="Plan as it was"] canvas');
    await press(iva, 'Take this change back');
    await saved(iva);
    await sees(iva, 'moved Dam 1 stud west');
    // The level that pads stand on cannot go without them.
    await choose(iva, 'Kind', 'level');
    await iva.locator('::-p-text(lowered the level Upper yard from 12b to 11b)').click();
    await press(iva, 'Bring the display back to this …');
    await sees(iva, 'set as before');
    await press(iva, 'Bring it back');
    await sees(iva, 'The display is as it was.');
    await openTab(iva, 'Since last report');
    await sees(iva, 'What changed');
    await type(iva, 'A few words above it', 'All back to the drawing board.');
    await iva.locator('::-p-text(Also on the page for the public)').click();
    await press(iva, 'Send the report');
    await saved(iva);
    const { body } = await asked(iva, 'GET', `/api/displays/${idOf(iva)}/share`);
    const visitor = await newPage(await demo.browser().createBrowserContext());
    try {
      await visitor.goto(`${demo.server().url}/s/${(body as { token: string }).token}`);
      await sees(visitor, 'All back to the drawing board.');
      // Visitors load nothing of the builders' pages.
      const scripts = await visitor.evaluate(() =>
        performance.getEntriesByType('resource').map(({ name }) => new URL(name).pathname),
      );
      expect(scripts).toContainEqual(expect.stringMatching(/^\/assets\/publicPage-.*\.js$/));
      expect(scripts).not.toContainEqual(expect.stringMatching(/^\/assets\/index-.*\.js$/));
      const text = await visitor.evaluate(() => document.body.innerText);
      for (const secret of ['Tobin', 'Brenna', 'pump', 'cr ']) expect(text).not.toContain(secret);
    } finally {
      await visitor.browserContext().close();
    }
  },
);

journey(
  'a section is handed over with what is open in it, and whoever gets it gets a letter',
  async (open) => {
    const [iva, mads] = [await open('Iva Thorsby'), await open('Mads Elvery')];
    await openDisplay(iva, 'Skarn Edge', 'crew');
    await press(iva, 'Hand over … section E');
    await choose(iva, 'Owner', 'Mads Elvery');
    await sees(iva, 'Section E, East fell, goes to Mads Elvery.');
    await press(iva, 'Hand it over');
    await saved(iva);
    await mads.goto(`${demo.server().url}/letters`);
    await sees(mads, 'Iva Thorsby names you in “Section E goes to Mads Elvery”');
    await mads.locator('::-p-text(Go there)').click();
    await sees(mads, 'Open with it:');
  },
);

journey('a script in every text somebody can write runs nowhere', async (open) => {
  const iva = await open('Iva Thorsby');
  await openDisplay(iva, 'Larch Lane');
  const script = '<img src=x onerror="window.hurt=1"><script>window.hurt=1</script>';
  const url = 'javascript:window.hurt=1';
  const short = '<svg onload=hurt=1>';
  const id = idOf(iva);
  const changes = [
    { op: 'add', kind: 'person', id: 'x-person', data: { name: script, initials: '<i>', town: script } },
    {
      op: 'add',
      kind: 'plot',
      id: 'x-plot',
      data: { name: short, x: 4, y: 4, w: 8, d: 8, height: 9, notes: script },
    },
    {
      op: 'add',
      kind: 'section',
      id: 'x-section',
      data: { letter: '<b', name: short, x: 0, y: 0, w: 16, d: 16, owner: 'x-person', notes: script },
    },
    { op: 'add', kind: 'note', id: 'x-note', data: { name: short, x: 2, y: 2, text: script } },
    {
      op: 'add',
      kind: 'marker',
      id: 'x-marker',
      data: { name: short, x: 2, y: 2, w: 2, d: 2, notes: script },
    },
    {
      op: 'add',
      kind: 'order',
      id: 'x-order',
      data: { name: short, seller: script.slice(0, 80), lines: [], notes: script },
    },
    {
      op: 'add',
      kind: 'thread',
      id: 'x-thread',
      data: { title: short, text: script, by: 'x-person', section: 'x-section' },
    },
    { op: 'add', kind: 'reply', id: 'x-reply', data: { thread: 'x-thread', text: script, by: 'x-person' } },
    {
      op: 'add',
      kind: 'report',
      id: 'x-report',
      data: {
        name: short,
        from: 0,
        upto: 1,
        text: `# ${script}\n\n[press](${url}) ![](${url}) ${script}`,
        published: true,
      },
    },
    { op: 'add', kind: 'milestone', id: 'x-day', data: { name: short, date: '2031-01-01' } },
  ];
  const batch = { id: randomUUID(), label: script, changes };
  expect((await asked(iva, 'POST', `/api/displays/${id}/batches`, batch)).status).toBe(200);
  const { body } = await asked(iva, 'PUT', `/api/displays/${id}/share`, { names: true, fresh: false });
  for (const path of [
    'brief?sheet=dates',
    'plan',
    'cut',
    'stockpile?tab=orders',
    'progress',
    'crew',
    'crew?sheet=people',
    'crew?sheet=advice&thread=x-thread',
    'crew?sheet=history',
    'crew?sheet=report',
  ]) {
    await iva.goto(`${demo.server().url}/d/${id}/${path}`, { waitUntil: 'domcontentloaded' });
    await sees(iva, 'Saved');
    await new Promise((resolve) => setTimeout(resolve, 400));
    expect([path, await iva.evaluate(() => 'hurt' in window)]).toEqual([path, false]);
  }
  await iva.goto(`${demo.server().url}/s/${(body as { token: string }).token}`);
  await sees(iva, 'built');
  await allThere(iva);
  expect(await iva.evaluate(() => 'hurt' in window)).toBe(false);
  const links = await iva.$$eval('a', (all) => all.map((one) => one.getAttribute('href')));
  expect(links.filter((href) => href?.startsWith('javascript'))).toEqual([]);
});
