import type { Page } from 'puppeteer-core';
import {
  fill,
  openDisplay,
  openTab,
  pickFromOutline,
  press,
  pressInPanel,
  saved,
  sees,
  signedInPage,
  undo,
  writeText,
} from '../stage.ts';
import { useJourneys } from '../suite.ts';

const { demo, journey } = useJourneys();

const modulesNow = (page: Page, count: number) => sees(page, `Current: ${count} modules`);

journey(
  'alternatives are compared, one is used and undone; the knife meets what may not be cut',
  async (open) => {
    const page = await open('Iva Thorsby');
    await openDisplay(page, 'Skarn Edge', 'cut');
    await modulesNow(page, 7);
    // What is wrong with them as they are.
    await sees(page, 'the club stair door lets');
    await press(page, 'Cut');
    await sees(page, 'Quietest seams');
    await sees(page, 'Proven: no cutting costs less');
    await press(page, 'Stop, keep the best');
    await pressInPanel(page, 'Quietest seams');
    await sees(page, 'more than the least that is proven');
    await pressInPanel(page, 'Balanced');
    await sees(page, 'Proposed:');
    const found = await page.evaluate(() => Number(/Proposed: (\d+)/.exec(document.body.innerText)?.[1]));
    expect(found).toBeGreaterThan(7);
    await press(page, 'Use this cutting');
    await modulesNow(page, found);
    await undo(page);
    await modulesNow(page, 7);

    // The knife is drawn on the board: through the middle of everything it meets what may not be cut.
    await openTab(page, 'By hand');
    await press(page, 'Knife');
    const board = await (await page.$('[role="application"]'))?.boundingBox();
    if (!board) throw new Error('the board has no size');
    await page.mouse.move(board.x + board.width / 3, board.y + 80);
    await page.mouse.down();
    await page.mouse.move(board.x + board.width / 3 + 4, board.y + board.height - 50, { steps: 6 });
    await page.mouse.up();
    await sees(page, 'which may not be cut');
    await press(page, 'Forget it');
    await saved(page);
  },
);

journey(
  'two builders disagree at a seam, mend, sign, and a later change of the ground reopens it',
  async (open) => {
    const brenna = await open('Brenna Rook');
    await openDisplay(brenna, 'Skarn Edge', 'cut');
    await openTab(brenna, 'Seams');
    await pressInPanel(brenna, 'B3–C1');
    await sees(brenna, 'not signed');
    // What she has built is two plates low for three studs; the list says what to mend, by module and stud.
    const planned = await brenna.evaluate(async () => {
      const id = location.pathname.split('/')[2];
      const text = await (await fetch(`/api/displays/${id}/sheets/seam.csv?seam=seam-b3-c1`)).text();
      return text
        .split('\r\n')
        .slice(1)
        .map((row) => Number(row.split(',')[1]));
    });
    await brenna.locator('::-p-xpath(//summary[contains(., "What stands there")])').click();
    await writeText(brenna, 'textarea', `B3, 1, ${planned[0]}\nB3, 99, 4`);
    await press(brenna, 'Keep readings');
    await sees(brenna, 'the stud is a whole number from 1 to 48');
    await writeText(
      brenna,
      'textarea',
      [21, 22, 23].map((stud) => `B3, ${stud}, ${planned[stud - 1] - 2}`).join('\n'),
    );
    await press(brenna, 'Keep readings');
    await sees(brenna, 'raise by 2p');
    await writeText(
      brenna,
      'textarea',
      [21, 22, 23].map((stud) => `B3, ${stud}, ${planned[stud - 1]}`).join('\n'),
    );
    await press(brenna, 'Keep readings');
    await brenna.waitForFunction(() => !document.body.innerText.includes('raise by 2p'));
    await press(brenna, 'Sign for B3');
    await sees(brenna, 'one side signed');
    await saved(brenna);

    const mads = await signedInPage(demo.browser(), demo.server(), 'Mads Elvery');
    await openDisplay(mads, 'Skarn Edge', 'cut');
    await openTab(mads, 'Seams');
    await pressInPanel(mads, 'B3–C1');
    await sees(mads, 'Brenna Rook');
    await press(mads, 'Sign for C1');
    await sees(mads, 'agreed');
    await sees(brenna, 'C1 signed');

    // Iva raises the meadow under the seam: both see it reopened, with the studs that differ.
    const iva = await signedInPage(demo.browser(), demo.server(), 'Iva Thorsby');
    await openDisplay(iva, 'Skarn Edge');
    await pickFromOutline(iva, 'Pads', 'Skarn meadow');
    await fill(iva, 'Above it', '1b');
    await saved(iva);
    for (const page of [brenna, mads]) {
      await sees(page, 'studs are not as they were signed');
      await page.locator('button[data-findings]').click();
      await sees(page, 'The seam B3–C1, signed by Brenna Rook and Mads');
    }
    await undo(iva);
    await saved(iva);
    for (const page of [mads, iva]) await page.browserContext().close();
  },
);
