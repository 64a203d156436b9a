import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { listOf, sceneFrom, type Actor } from '@quarry/core/document';
import { openPage, stopAt } from '../../../test/openPage.tsx';
import { StockpilePage } from './StockpilePage.tsx';

// What is short, bought of sellers whose offers one brings.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const file: Parameters<typeof sceneFrom>[0] = {
  display: { name: 'Quay', kind: 'diorama', currency: 'kr', spares: 0 },
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
  sections: [
    { id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 48, d: 48, owner: 'ada' },
    { id: 'b', letter: 'B', name: 'East', x: 48, y: 0, w: 48, d: 48, owner: 'ada' },
  ],
  partLists: [
    {
      ...{ id: 'mill', name: 'Mill', use: 'need', section: 'a' },
      lines: [
        { part: 'brick-2x4', colour: 'slate', qty: 100 },
        { part: 'plate-2x4', colour: 'moss', qty: 40 },
      ],
    },
    {
      ...{ id: 'inn', name: 'Inn', use: 'need', section: 'b' },
      lines: [{ part: 'tile-2x2', colour: 'rust', qty: 10 }],
    },
  ],
};
const open = (actor: Actor = { role: 'planner', person: 'ada' }) =>
  openPage(sceneFrom(file), <StockpilePage />, 'stockpile?sheet=buy', actor);
const bring = (text: string) => {
  // This DOM's files cannot be read.
  const bytes = new TextEncoder().encode(text).buffer;
  const offers = Object.assign(new File([], 'offers.csv'), { arrayBuffer: () => Promise.resolve(bytes) });
  fireEvent.change(screen.getByLabelText(/^Offers of your own/), { target: { files: [offers] } });
};
beforeAll(() => stopAt('2031-06-02'));

/**
 * Ash has all but the tiles; Beech is dearer by the piece and sends for less; Cedar has plates, cheap, a week later, from
 * 10.00 on.
 */
const OFFERS = `seller,part,colour,qty,price,shipping,min_order,days
Ash,brick-2x4,slate,200,0.20,6,0,5
Ash,plate-2x4,moss,60,0.10,6,0,5
Beech,brick-2x4,slate,100,0.22,3,0,2
Beech,plate-2x4,moss,40,0.12,3,0,2
Cedar,plate-2x4,moss,500,0.05,1,10,9
Dale,plate-2x4,moss,lots,0.05,1,0,9
`;

test('the cheapest, the fewest parcels and the soonest of brought offers; drafted, they are short no more', async () => {
  const page = await open();
  await page.sees('Simulated: this market');
  bring(OFFERS);
  await page.sees('Offers from offers.csv.');
  // The row whose quantity is none is left out, and told.
  await page.sees('Sellers3');
  await page.sees('Lines short3');
  await page.sees('Offered2 lines, 140 pieces1 line without an offer');
  await page.sees('Nobody offers');
  await page.press(/^Cheapest/);
  // Ash alone 20 + 4 + 6 = 30.00; Beech alone 22 + 4.80 + 3 = 29.80; both 20 + 4 + 9 is more; Cedar's least order is not reached.
  await page.sees('29.80 kr · 1 parcel · 2 days');
  await page.sees('nothing: proven');
  await page.press(/^Fewest parcels/);
  await page.press(/^Soonest/);
  await page.sees('Beech');
  await page.press('Draft 1 order');
  expect(listOf(page.scene(), 'order')).toMatchObject([
    {
      ...{ name: 'From Beech', seller: 'Beech', by: 'ada', postage: 3, guess: 29.8, state: 'draft' },
      lines: [
        { part: 'brick-2x4', colour: 'slate', qty: 100, price: 0.22, section: null },
        { part: 'plate-2x4', colour: 'moss', qty: 40, price: 0.12, section: null },
      ],
    },
  ]);
  // What stands on a draft is bought no second time.
  await page.sees('Lines short1');
  await page.sees('Nobody offers any of what is short.');
  await page.undo();
  await page.sees('Lines short3');
});

test('a search that was stopped can be gone on with; one that another goal ended, too', async () => {
  const page = await open();
  bring(OFFERS);
  await page.sees('Offers from offers.csv.');
  const press = (name: RegExp | string) => fireEvent.click(screen.getByRole('button', { name }));
  press(/^Cheapest/);
  press('Stop');
  await page.sees('not looked for yet');
  press('Search again');
  press(/^Soonest/);
  await page.sees('29.80 kr · 1 parcel · 2 days');
  press(/^Cheapest/);
  // Ended before it had an answer: it begins by itself, and is over when it has one.
  await page.sees('nothing: proven');
  expect(screen.queryByRole('button', { name: 'Search again' })).toBeNull();
});

test('one section by itself, and an order that keeps it; a nearer colour where the right one is not offered', async () => {
  const page = await open();
  bring('seller,part,colour,qty,price\nAsh,tile-2x2,brick,50,0.1\nAsh,tile-2x2,frost,50,0.01\n');
  await page.sees('Offers from offers.csv.');
  await userEvent.selectOptions(screen.getByLabelText('Section'), 'B, East');
  await page.sees('Lines short1');
  await page.sees('Nobody offers any of what is short.');
  await userEvent.click(screen.getByLabelText(/^Accept the nearest colour/));
  await page.sees('1 line in a nearer colour');
  await page.press(/^Cheapest/);
  // The nearer of the two, not the cheaper: ten tiles.
  await page.sees('1.00 kr · 1 parcel');
  await page.press('Draft 1 order');
  expect(listOf(page.scene(), 'order')[0]?.lines).toMatchObject([
    { part: 'tile-2x2', colour: 'brick', qty: 10, section: 'b' },
  ]);
});

test('a list of offers without its columns is told; a viewer compares and orders nothing', async () => {
  const page = await open({ role: 'viewer', person: null });
  bring('part,colour,qty,price\nbrick-2x4,slate,200,0.2\n');
  await page.sees('Simulated: this market');
  bring(OFFERS);
  await page.sees('Offers from offers.csv.');
  await page.press(/^Cheapest/);
  await page.sees('29.80 kr · 1 parcel');
  expect(screen.queryByRole('button', { name: 'Draft 1 order' })).toBeNull();
});
