import { cleanup, screen } from '@testing-library/react';
import { sceneFrom, type Actor } from '@quarry/core/document';
import { openPage, stopAt } from '../../../test/openPage.tsx';
import { StockpilePage } from './StockpilePage.tsx';

// An order from draft to drawer, what it costs whom, and what is lent.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here.
jest.mock('../../ui/useChart.ts', () => ({ useChart: () => undefined }));

const file: Parameters<typeof sceneFrom>[0] = {
  display: { name: 'Quay', kind: 'diorama', currency: 'kr' },
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
    { id: 'cy', name: 'Cy Nook', initials: 'CN' },
  ],
  sections: [{ id: 'b', letter: 'B', name: 'Mill street', x: 0, y: 0, w: 96, d: 48, owner: 'ada' }],
};
const line = (part: string, qty: number, price: number, more: object = {}) => ({
  ...{ part, colour: 'slate', qty, price },
  ...more,
});
const open = (more: object = {}, actor: Actor = { role: 'planner', person: 'ada' }) =>
  openPage(sceneFrom({ ...file, ...more }), <StockpilePage />, 'stockpile?sheet=orders', actor);
beforeAll(() => stopAt('2031-06-02'));

test('an order is written line by line, comes by halves, and its pieces are put into a drawer once', async () => {
  const page = await open();
  await page.sees('Nothing is ordered');
  await page.press('New order');
  await page.fill('Name', 'Spring order');
  const add = async (words: string) => {
    await page.fill('One more line', words);
    return screen
      .queryAllByRole('alert')
      .map(({ textContent }) => textContent)
      .join('');
  };
  expect(await add('plates')).toContain('type for instance “40 plate 2x4 in Slate”');
  expect(await add('40 plank 2x4 in Slate')).toContain('Part: “plank 2x4” is not known.');
  expect(await add('40 plate 2x4 in Sleet')).toContain('Colour: “Sleet” is not known.');
  expect(await add('0 plate 2x4 in Slate')).toContain('Pieces: “0” must be a whole number from 1');
  // As people say it: with the mark of thousands, and with a times sign.
  expect(await add('1,200 plate 2x4 in Slate')).toBe('');
  expect(await add('30 × brick 1x2 in slate')).toBe('');
  expect(Object.values(page.scene().order)[0]?.lines.map(({ part, qty }) => [part, qty])).toEqual([
    ['plate-2x4', 1200],
    ['brick-1x2', 30],
  ]);
  await page.fill('Price of one plate 2×4 in slate', '0.125');
  await page.fill('Price of one brick 1×2 in slate', '1.5');
  await page.fill('Postage', '6.5');
  // 1,200 × 0.125 + 30 × 1.50 = 195.
  await page.sees('195.00 + 6.50');
  await page.sees('201.50 kr');
  await page.press('Mark as sent');
  expect(page.acts.at(-1)?.label).toBe('marked the order Spring order as sent');
  await page.press('Mark as paid');
  await page.press('Mark as in the mail');
  // More cannot be taken off than has come.
  await page.fill('Comes now of plate 2×4 in slate', '700');
  await page.fill('Into which drawer', 'drawer 4');
  await page.press('Put 700 away');
  await page.sees('arrived in part');
  expect(page.text()).toContain('700 of 1,230 pcs');
  await page.fill('Pieces of plate 2×4 in slate', '600');
  await page.sees('700');
  expect(Object.values(page.scene().order)[0]?.lines[0]?.qty).toBe(1200);
  // The rest goes to the same drawer, to what lies there.
  await page.press('All of it came');
  await page.press('Put 530 away');
  await page.sees('put away');
  const lots = Object.values(page.scene().lot).map(({ part, qty, place, owner }) => [
    part,
    qty,
    place,
    owner,
  ]);
  expect(lots).toEqual([
    ['plate-2x4', 1200, 'drawer 4', 'ada'],
    ['brick-1x2', 30, 'drawer 4', 'ada'],
  ]);
  await page.undo();
  expect(Object.values(page.scene().lot).map(({ qty }) => qty)).toEqual([700]);
  await page.sees('arrived in part');
});

test('what is paid is borne by shares to the cent; guess and actual stand by section, postage with the goods', async () => {
  const page = await open({
    orders: [
      {
        ...{ id: 'o', name: 'Walls', by: 'ada', state: 'paid', guess: 90, paid: 100, postage: 10 },
        lines: [line('brick-2x4', 30, 2, { section: 'b' }), line('brick-1x2', 30, 1)],
      },
      // Noted as a sum, without a line.
      { id: 'l', name: 'Lamps', by: 'bo', state: 'paid', guess: 20, paid: 25.5, lines: [] },
    ],
  });
  // Two thirds of the goods are section B’s; what has no line is no section’s.
  expect(await page.rowsOf('Cost by section')).toEqual([
    ['Section', 'Guess, kr', 'Paid, kr'],
    ['B, Mill street', '60.00', '! 66.67'],
    ['no section', '50.00', '! 58.83'],
  ]);
  await page.sees('125.50 of 110.00 kr guessed');
  // Without shares who ordered bears it.
  await page.sees('Ada Fennevenpaid 100.00, bears 100.00');
  await page.press(/^Walls/);
  for (const name of ['Ada Fenn', 'Bo Marl', 'Cy Nook']) await page.fill(name, '1');
  await page.sees('+10.00 against the guess');
  await page.press(/^Walls/);
  // 100.00 in three: 33.33, 33.34 and 33.33, which add up.
  await page.sees('paid 100.00, bears 33.33');
  await page.sees('gets 66.67 kr');
  await page.sees('paid 25.50, bears 58.84');
  await page.sees('owes 33.34 kr');
  await page.sees('owes 33.33 kr');
});

test('an order without a typed guess is held against its lines; one without either against nothing', async () => {
  const page = await open({
    orders: [
      { id: 'o', name: 'Walls', state: 'paid', paid: 62, postage: 2, lines: [line('brick-2x4', 30, 2)] },
      { id: 'l', name: 'Lamps', state: 'paid', paid: 25.5, lines: [] },
      { id: 'd', name: 'Doors', state: 'paid', guess: 10, paid: 12, lines: [] },
      { id: 'r', name: 'Roofs', state: 'sent', guess: 50, lines: [] },
    ],
  });
  // 30 × 2.00 and 2.00 of postage as paid, 10 and 50: the doors were dearer, but less is paid than was guessed at.
  expect(await page.rowsOf('Cost by section')).toEqual([
    ['Section', 'Guess, kr', 'Paid, kr'],
    ['no section', '122.00', '99.50'],
  ]);
  await page.press(/^Walls/);
  await page.sees('none typed: 62.00 as listed');
  await page.sees('+0.00 against the guess');
  await page.press(/^Lamps/);
  expect(document.body.textContent).not.toContain('against the guess');
});

test('a late parcel says by how many days; what is lent stands until it is back', async () => {
  const page = await open({
    orders: [
      {
        ...{ id: 'o', name: 'Walls', by: 'ada', state: 'mail', expected: '2031-05-30' },
        lines: [line('brick-2x4', 30, 2)],
      },
    ],
    loans: [
      { id: 'l', part: 'plate-2x4', colour: 'moss', qty: 12, from: 'bo', to: 'ada', due: '2031-06-01' },
    ],
  });
  await page.sees('in the mail, 3 days late');
  await page.sees('12 × plate 2×4 in Moss');
  await page.sees('Bo Marl to Ada Fenn · back by 1 Jun 2031');
  await page.press('Back');
  await page.seesNo('Bo Marl to Ada Fenn');
  expect(page.scene().loan.l?.back).toBe('2031-06-02');
  await page.fill('What you lend', '20 brick 2x4 in Slate');
  await page.sees('Say to whom.');
  await page.choose('To whom', 'Cy Nook');
  await page.press('Lend');
  await page.sees('Ada Fenn to Cy Nook');
  await page.choose('Which way', 'I borrow');
  await page.choose('From whom', 'from…');
  await page.fill('What you borrow', '5 brick 2x4 in moss');
  await page.sees('Say from whom.');
  await page.choose('From whom', 'Bo Marl');
  await page.press('Borrow');
  await page.sees('2 out');
});

test('a builder writes down what they borrow, not what others owe them; a viewer nothing', async () => {
  const builder = await open({}, { role: 'builder', person: 'ada' });
  await builder.sees('Lent and borrowed');
  expect(screen.queryByRole('combobox', { name: 'Which way' })).toBeNull();
  await builder.choose('From whom', 'Bo Marl');
  await builder.fill('What you borrow', '5 brick 2x4 in moss');
  await builder.sees('Bo Marl to Ada Fenn');
  cleanup();
  const viewer = await open({}, { role: 'viewer', person: 'ada' });
  await viewer.sees('0 out');
  expect(screen.queryByRole('textbox', { name: 'What you borrow' })).toBeNull();
  expect(screen.queryByRole('button', { name: 'New order' })).toBeNull();
});
