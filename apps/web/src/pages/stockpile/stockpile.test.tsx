import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { LONGEST, openPage, stopAt } from '../../../test/openPage.tsx';
import { StockpilePage } from './StockpilePage.tsx';

// What a lead does on Stockpile: how the ground is built, and parts from a list to the drawer.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', method: 'solid' },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 48 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 48, d: 48, level: 'low', ground: 'paving' }],
  hills: [
    { id: 'h', name: 'East fell', x: 4, y: 4, w: 40, d: 40, level: 'low', height: 30, ground: 'grass' },
  ],
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
  ],
  sections: [{ id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 48, d: 48, owner: 'ada' }],
});
const open = (sheet: string) =>
  openPage(scene, <StockpilePage />, `stockpile?sheet=${sheet}`, { role: 'owner', person: 'ada' });
beforeAll(() => stopAt('2031-06-02'));

test('a hill by six methods: one is chosen, and what is needed follows; taken back', async () => {
  const page = await open('needs');
  await page.sees('Nothing since this display was opened');
  await page.tab('Methods');
  await userEvent.selectOptions(await screen.findByLabelText('What is filled'), 'East fell');
  const table = await screen.findByRole('table', { name: /^Methods for/ }, LONGEST);
  const of = (method: string) => {
    const rows = within(table).getAllByRole('row');
    const row = rows.find((one) => one.querySelector('b')?.textContent === method);
    return Number(row?.children[1]?.textContent?.replace(/\D/g, ''));
  };
  await waitFor(() => expect(of('solid')).toBeGreaterThan(0), LONGEST);
  expect(of('moulded rock panels')).toBeLessThan(of('solid'));
  expect(of('filler under slopes')).toBeLessThan(of('raft on pillars'));
  await page.press('Choose moulded rock panels');
  expect(page.acts.at(-1)?.changes).toMatchObject([{ kind: 'hill', id: 'h' }]);
  await page.sees('set to moulded rock panels');
  await page.tab('Needs');
  await waitFor(() => expect(document.querySelector('[data-changed] li')).not.toBeNull(), LONGEST);
  await page.sees('for core');
  await page.undo();
  await page.tab('Methods');
  await userEvent.selectOptions(await screen.findByLabelText('What is filled'), 'East fell');
  await page.sees('no method of its own');
});
