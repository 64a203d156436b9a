import { sceneFrom } from '@quarry/core/document';
import { openPage } from '../../../test/openPage.tsx';
import { BriefPage } from './BriefPage.tsx';

// A crew that decides for a version.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', season: 'summer' },
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 48 }],
  sections: [{ id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 48, d: 48 }],
  figures: [{ id: 'market', name: 'Market', x: 20, y: 20, cast: 1, state: 'placed' }],
  tasks: [
    { id: 'datum', name: 'Set the datum', done: '2031-05-01' },
    { id: 'wire', name: 'Wire the lamps', done: '2031-05-02' },
  ],
  versions: [{ id: 'fair', name: 'Fair day', note: 'Twice the crowd.' }],
  differences: [
    {
      ...{ id: 'd1', version: 'fair', of: 'figure', thing: 'market', how: 'changed' },
      fields: { cast: 9, state: 'planned', story: 'The whole quay buys bread' },
    },
  ],
  milestones: [
    {
      ...{ id: 'letter', name: 'Letter no. 2', date: '2031-06-01' },
      promises: [
        { of: 'task', thing: 'datum' },
        { of: 'figure', thing: 'market' },
        { of: 'section', thing: 'a', stage: 'structures' },
      ],
    },
  ],
});

test('the crew decides for a version, and what a letter promised is met or not', async () => {
  const page = await openPage(scene, <BriefPage />, 'brief?sheet=versions');
  await page.press(/^Fair day/);
  await page.sees('Decide for it');
  await page.fill('Reason', 'more bread');
  await page.press('Make it the base');
  await page.sees('The base until “Fair day” took its place: more bread');
  await page.sees('Before Fair day');
  expect(document.querySelector('li[aria-label="Fair day"]')).toBeNull();
  // The base has the crowd now.
  expect(page.scene().figure.market).toMatchObject({ cast: 9, story: 'The whole quay buys bread' });
  // The market of the base until now was placed; this one is not yet.
  await page.tab('Dates');
  await page.sees('1 of 3 promises met');
  await page.choose('What Letter no. 2 promises', 'Task done');
  await page.choose('Which one Letter no. 2 promises', 'Wire the lamps');
  await page.sees('2 of 4 promises met');
  await page.press('Remove the promise section A, West at structures');
  await page.sees('2 of 3 promises met');
});
