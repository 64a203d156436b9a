import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { listOf, sceneFrom, type Actor } from '@quarry/core/document';
import { openPage } from '../../../test/openPage.tsx';
import { StockpilePage } from './StockpilePage.tsx';

// Lists that people bring: read, mapped, corrected, and held against kits.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const file: Parameters<typeof sceneFrom>[0] = {
  display: { name: 'Quay', kind: 'diorama', currency: 'kr' },
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
  sections: [{ id: 'b', letter: 'B', name: 'Mill street', x: 0, y: 0, w: 48, d: 48, owner: 'ada' }],
};
const line = (part: string, colour: string, qty: number) => ({ part, colour, qty });
const open = (more: object = {}, actor: Actor = { role: 'planner', person: 'ada' }) =>
  openPage(sceneFrom({ ...file, ...more }), <StockpilePage />, 'stockpile?sheet=lists', actor);
const paste = async (text: string) => {
  await userEvent.click(screen.getByRole('textbox', { name: 'Or paste rows here, with a heading' }));
  await userEvent.paste(text);
  await userEvent.click(screen.getByRole('button', { name: 'Read it' }));
};

const named = async (name: string) => {
  const field = screen.getByRole('textbox', { name: 'Called' });
  await userEvent.clear(field);
  await userEvent.type(field, name);
};

test('a pasted list: bad rows are told and left out, an unknown word is explained once, and it is brought again in place', async () => {
  const page = await open();
  await page.press('Bring a list');
  await page.sees('A file: CSV or XLSX, with a heading');
  await paste('part,colour,qty');
  await page.sees('A file: CSV or XLSX, with a heading');
  await userEvent.clear(screen.getByRole('textbox', { name: 'Or paste rows here, with a heading' }));
  await paste(
    'part;colour;qty\nbrick 2x4;Slate;1.200\nbrick 2x4;slate;40\nplate 1x2;Foggy;30\nplate 1x2;Moss;many\n',
  );
  // Two rows of the same brick are one line; the colour nobody knows and the number that is none are not taken yet.
  await page.sees('Pasted list: 4 rows make 1 line of 1,240 pieces. 2 rows are left out.');
  await page.choose('What colour “Foggy” means', 'Pebble');
  await page.sees('4 rows make 2 lines of 1,270 pieces. 1 row is left out.');
  await named('Walls');
  await userEvent.selectOptions(screen.getByLabelText(/^For section/), 'B, Mill street');
  await page.press('Take 2 lines');
  expect(listOf(page.scene(), 'partList')).toMatchObject([
    {
      ...{ name: 'Walls', use: 'need', section: 'b' },
      lines: [line('brick-2x4', 'slate', 1240), line('plate-1x2', 'pebble', 30)],
    },
  ]);
  expect(listOf(page.scene(), 'alias')).toMatchObject([{ word: 'Foggy', means: 'pebble' }]);
  // The same list again: the word is known, and the list is replaced, not doubled.
  await page.press('Bring a list');
  await paste('part;colour;qty\nplate 1x2;FOGGY;31\n');
  await page.sees('1 row makes 1 line of 31 pieces.');
  await named(' walls ');
  await page.sees('Replace “walls”, which is there');
  await page.press('Take 1 line');
  expect(listOf(page.scene(), 'partList').map(({ name, lines }) => [name, lines.length])).toHaveLength(1);
  expect(listOf(page.scene(), 'partList')[0]?.lines).toEqual([line('plate-1x2', 'pebble', 31)]);
  await page.undo();
  expect(listOf(page.scene(), 'partList')[0]?.lines).toHaveLength(2);
});

test('a list against kits: what fits, how many copies would do, what is missing; as the only source it is told the same', async () => {
  const page = await open({
    partLists: [
      {
        ...{ id: 'mill', name: 'Mill', use: 'need', copies: 2, section: 'b' },
        lines: [line('brick-2x4', 'slate', 30), line('plate-2x4', 'moss', 5), line('tile-1x1', 'rust', 1)],
      },
      {
        ...{ id: 'box', name: 'Quay kit', use: 'kit', copies: 2, owner: 'ada', price: 12 },
        lines: [line('brick-2x4', 'slate', 20), line('plate-2x4', 'moss', 8), line('arch-1x4', 'chalk', 3)],
      },
    ],
    partTypes: [{ id: 'arch-1x4', family: 'arch', price: 0.5 }],
  });
  await page.press(/^Mill/);
  // Two mills: 60 + 10 + 2 = 72 pieces; two kits give 40 + 10.
  await page.sees('69 %');
  await page.sees('Missing22 pieces2 lines');
  // Of what a kit has at all: 60 bricks take three of it.
  await page.sees('Quay kit: copies for what it has3');
  await page.fill('How many of it', '1');
  // 30 + 5 + 1: the one tile is missing.
  await page.sees('97 %');
  await page.sees('Missing1 piece1 line');
  await page.fill('Pieces of tile-1x1 in rust', '2');
  await page.sees('Missing2 pieces1 line');
  await page.fill('Pieces of tile-1x1 in rust', 'two');
  await page.sees('“two” is not a number');
  await userEvent.click(screen.getByRole('checkbox', { name: 'Only from these kits' }));
  await page.sees('1 line, not bought');
  await page.sees('95 %');
  // What is left over of the kits: 40 − 30 bricks, 16 − 5 plates, six arches.
  await page.press(/^Quay kit/);
  await page.sees('27 pieces');
  await page.sees('6 × arch 1×4 in Chalk');
  // A copy more, and what it holds is left over too.
  await page.fill('Copies owned', '3');
  await page.sees('58 pieces');
  await page.fill('One cost', '12.5');
  expect(page.scene().partList.box).toMatchObject({ copies: 3, price: 12.5 });
});

test('whoever only looks sees lists and changes none', async () => {
  const page = await open(
    { partLists: [{ id: 'mill', name: 'Mill', use: 'need', lines: [line('brick-2x4', 'slate', 30)] }] },
    { role: 'viewer', person: null },
  );
  await page.press(/^Mill/);
  await page.sees('30');
  expect(screen.queryByRole('button', { name: 'Bring a list' })).toBeNull();
  expect(page.isDisabled('Pieces of brick-2x4 in slate')).toBe(true);
  expect(page.isDisabled('Only from these kits')).toBe(true);
  expect(screen.queryByRole('button', { name: 'Remove Mill' })).toBeNull();
});
