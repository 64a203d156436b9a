import { demoScene } from '../../../test/demoScene.ts';
import { openPage } from '../../../test/openPage.tsx';
import { BriefPage } from './BriefPage.tsx';

// A crew that decides for a version.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

test('the crew decides for a version, and what a letter promised is met or not', async () => {
  // Without what takes longest to work out and neither version nor letter speaks of.
  const scene = {
    ...demoScene('skarn-edge'),
    hill: {},
    hollow: {},
    stream: {},
    planting: {},
    run: {},
    repeat: {},
  };
  const page = await openPage(scene, <BriefPage />, 'brief?sheet=versions');
  await page.press(/^Market day/);
  await page.sees('Decide for it');
  await page.fill('Reason', 'more bread');
  await page.press('Make it the base');
  await page.sees('The base until “Market day” took its place: more bread');
  await page.sees('Before Market day');
  expect(document.querySelector('li[aria-label="Market day"]')).toBeNull();
  // The base has the crowd now.
  await page.tab('Cast');
  await page.sees('The fiddler');
  await page.tab('Dates');
  // The market of the base until now was placed; this one is not yet.
  await page.sees('2 of 4 promises met');
  await page.choose('What Letter no. 2 promises', 'Task done');
  await page.choose('Which one Letter no. 2 promises', 'Wire the street lamps');
  await page.sees('2 of 5 promises met');
  await page.press('Remove the promise section D, The Tarn and dam at structures');
  await page.sees('2 of 4 promises met');
});
