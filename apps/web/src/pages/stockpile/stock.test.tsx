import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { renderOn } from '../../../test/renderOn.tsx';
import { StockPanel } from './StockPanel.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama' },
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
  ],
  lots: [
    { id: 'a', part: 'brick-2x4', colour: 'slate', qty: 120, owner: 'ada', place: 'drawer 3' },
    { id: 'b', part: 'plate-1x2', colour: 'rust', qty: 30, owner: 'bo', place: 'drawer 1' },
    { id: 'c', part: 'brick-1x1', colour: 'moss', qty: 500, bulk: true },
  ],
  partTypes: [{ id: 'brick-2x4', family: 'brick', grams: 2.3 }],
});
const ada = { role: 'builder', person: 'ada' } as const;
const card = () => within(screen.getByRole('complementary', { name: 'Counting' }));

test('drawers are filtered by whose they are and by words, and summed', async () => {
  const user = userEvent.setup();
  await renderOn(scene, <StockPanel />, { actor: { role: 'owner', person: 'ada' } });
  expect(screen.getByText('650 pieces in 3 places')).toBeTruthy();
  await user.selectOptions(screen.getByRole('combobox', { name: 'Whose' }), 'Bo Marl');
  expect(screen.getByText('30 pieces in 1 place')).toBeTruthy();
  await user.selectOptions(screen.getByRole('combobox', { name: 'Whose' }), 'everybody’s');
  await user.type(screen.getByRole('searchbox', { name: 'Find in drawers' }), '2x4 slate');
  expect(screen.getByText('120 pieces in 1 place')).toBeTruthy();
  await user.type(screen.getByRole('searchbox', { name: 'Find in drawers' }), ' nothing');
  expect(screen.getByText('Nothing matches')).toBeTruthy();
});

test('an entry is begun by names as people say them; what is not known says what is near', async () => {
  const user = userEvent.setup();
  const acts = await renderOn(scene, <StockPanel />, { actor: ada });
  const type = async (label: string, text: string) => {
    const field = screen.getByRole('textbox', { name: label });
    await user.clear(field);
    await user.type(field, text);
  };
  const add = screen.getByRole('button', { name: 'Add and count' });
  expect(add.hasAttribute('disabled')).toBe(true);
  await type('Part', 'blick 2x4');
  await type('Colour', 'slate');
  await user.click(add);
  expect(screen.getByRole('alert').textContent).toContain('Part: “blick 2x4” is not known');
  await type('Part', '2x4 brick');
  await type('Colour', 'slat');
  await user.click(add);
  expect(screen.getByRole('alert').textContent).toContain('Colour: “slat” is not known');
  expect(acts).toEqual([]);
  await type('Colour', 'SLATE');
  await type('Drawer', 'drawer 9');
  await user.click(add);
  expect(acts.at(-1)?.changes[0]).toMatchObject({
    data: { part: 'brick-2x4', colour: 'slate', qty: 0, place: 'drawer 9', owner: 'ada' },
  });
  // It is counted at once: by buttons, by typing, by weight.
  expect(card().getByRole('heading', { name: 'brick 2×4 in Slate' })).toBeTruthy();
  expect(card().getByRole('button', { name: '10 fewer' }).hasAttribute('disabled')).toBe(true);
  await user.click(card().getByRole('button', { name: '10 more' }));
  await user.click(card().getByRole('button', { name: '1 fewer' }));
  expect(acts.at(-1)?.label).toBe('counted brick 2×4 in Slate: 9');
  const count = card().getByRole('textbox', { name: 'Count' });
  await user.clear(count);
  await user.type(count, '1,234{Enter}');
  expect(acts.at(-1)?.label).toBe('counted brick 2×4 in Slate: 1234');
  await user.clear(count);
  await user.type(count, '12.5{Enter}');
  expect(acts.at(-1)?.label).toBe('counted brick 2×4 in Slate: 1234');
  await user.click(card().getByRole('checkbox', { name: 'Worn: for where it is not seen' }));
  expect(acts.at(-1)).toMatchObject({
    label: 'called worn: brick 2×4 in Slate',
    changes: [{ set: { worn: true } }],
  });
  // 46 g of pieces of 2.3 g each.
  await user.type(card().getByRole('textbox', { name: 'Grams on the scale' }), '46');
  await user.click(card().getByRole('button', { name: 'Set to 20' }));
  expect(acts.at(-1)?.label).toBe('counted brick 2×4 in Slate: 20');
});
