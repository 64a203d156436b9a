import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { listOf, sceneFrom, type Actor } from '@quarry/core/document';
import { onTable } from '../../../test/onTable.ts';
import { openPage } from '../../../test/openPage.tsx';
import { BriefPage } from './BriefPage.tsx';

// Who plays in which small scene, what is missing, and what visitors are told.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const spot = (more: { role?: string; character?: string; form?: 'vehicle'; dx?: number }) => more;
const file: Parameters<typeof sceneFrom>[0] = {
  display: { name: 'Quay', kind: 'diorama', method: 'solid' },
  ...onTable(96, 48),
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
  characters: [
    { id: 'wenna', name: 'Old Wenna', role: 'baker', owner: 'ada', seek: 'bakers' },
    { id: 'piers', name: 'Piers', role: 'baker', state: 'lost' },
    { id: 'cart', name: 'Bread cart', form: 'vehicle' },
    { id: 'colm', name: 'Colm', role: 'carter', crewOf: 'cart', state: 'wanted', source: 'buy' },
    { id: 'cats', name: 'Quay cats', form: 'animal', count: 3, role: 'cat' },
    { id: 'tib', name: 'Tib', form: 'animal', role: 'cat' },
  ],
  figures: [
    { ...{ id: 'oven', name: 'At the oven', x: 10, y: 10, order: 2 }, spots: [spot({ role: 'baker' })] },
    {
      ...{ id: 'market', name: 'Market', x: 40, y: 10, order: 1, story: 'Bread is sold.' },
      spots: [spot({ character: 'cart', form: 'vehicle' }), spot({ role: 'baker', dx: 2 })],
    },
    { id: 'well', name: 'At the well', x: 70, y: 30 },
  ],
};
const open = (actor?: Actor) => openPage(sceneFrom(file), <BriefPage />, 'brief?sheet=cast', actor);
const item = (name: string) => within(screen.getByRole('listitem', { name }));

test('one baker for two scenes: what can be made, what one more would make, and the spare ones', async () => {
  const page = await open();
  // The cart lacks its carter, so the market cannot be made; the baker plays at the oven.
  await page.sees('1 of 2 scenes with spots can be made at once');
  await page.sees('no other casting makes more');
  expect(item('At the oven').getByText('✓ can be made')).toBeTruthy();
  expect(item('Market').getByText(/△ lacks Bread cart/)).toBeTruthy();
  expect(item('At the well').getByText('no spots yet')).toBeTruthy();
  await page.sees('3 of 6 in hand');
  const characters = await page.rowsOf('Characters');
  expect(characters.find(([name]) => name?.startsWith('Quay cats'))).toEqual([
    ...['Quay cats × 3', 'cat', 'Ready', 'spare'],
  ]);
  expect(characters.find(([name]) => name === 'Bread cart')?.[3]).toBe('Market');
  // The carter comes: the market needs a second baker now, or the oven goes without.
  await page.press('Colm');
  await page.choose('State', 'Ready');
  await page.sees('5 of 6 in hand');
  await page.sees('1 of 2 scenes with spots can be made');
  await page.sees('What one more would make possible');
  await page.press('Piers');
  await page.choose('State', 'Ready');
  await page.sees('2 of 2 scenes with spots can be made at once');
  await page.seesNo('What one more would make possible');
});

test('a scene gets spots beside one another, a name for each, and those who play now stand by name', async () => {
  const page = await open();
  await page.press(/^At the well/);
  await page.press('Add a spot');
  await page.press('Add a spot');
  const spots = () => page.scene().figure.well?.spots ?? [];
  expect(spots().map(({ dx, dy }) => [dx, dy])).toEqual([
    [0, 0],
    [2, 0],
  ]);
  const second = within(screen.getByRole('group', { name: 'Spot 2' }));
  await userEvent.selectOptions(second.getByRole('combobox', { name: 'Form' }), 'Animal');
  await userEvent.selectOptions(second.getByRole('combobox', { name: 'Pose' }), 'Lies');
  await userEvent.clear(second.getByRole('textbox', { name: 'South of it' }));
  await userEvent.type(second.getByRole('textbox', { name: 'South of it' }), '12 mm{Enter}');
  expect(spots()[1]).toMatchObject({ form: 'animal', pose: 'lying', dy: 1.5, character: null });
  // A group of three is no one cat; of those who are free one fits.
  await page.press('Name those who play now');
  expect(spots()[1]).toMatchObject({ character: 'tib', form: 'animal' });
  await userEvent.click(second.getByRole('checkbox', { name: 'Only this one will do' }));
  await userEvent.selectOptions(second.getByRole('combobox', { name: 'Who' }), 'Anybody of the role');
  expect(spots()[1]).toMatchObject({ character: null, isFixed: false });
  await page.press('Remove spot 1 of At the well');
  expect(spots()).toHaveLength(1);
  await page.fill('Number in the story', '0');
  await page.sees('0 is below the least, 1');
  await page.fill('Number in the story', '3');
  await page.sees('may be read by the public');
});

test('a character with what it wears: parts to buy are in the needs by how many are alike', async () => {
  const page = await open();
  await page.press('Add a character');
  await page.fill('Name', 'Lamplighter');
  await page.choose('From', 'To buy');
  await page.choose('State', 'Not there yet');
  // A figure is one part while nothing is said of what it wears.
  await page.sees('In the needs: 1 part.');
  await page.fill('How many alike', '4');
  await page.sees('In the needs: 4 parts.');
  await page.press('Add a part');
  await page.press('Add a part');
  await page.sees('In the needs: 8 parts.');
  const made = () => listOf(page.scene(), 'character').find(({ name }) => name === 'Lamplighter');
  const parts = made()?.wears.map(({ part }) => part) ?? [];
  expect(new Set(parts).size).toBe(2);
  await page.fill('How many alike', '501');
  await page.sees('501 is above the most, 500');
  await page.choose('From', 'Lent');
  await page.sees('Nothing of it is in the needs.');
  await page.choose('Lender', 'Ada Fenn');
  expect(made()).toMatchObject({ source: 'lent', owner: 'ada', count: 4 });
  await page.choose('Rides in', 'Bread cart');
  expect(made()?.crewOf).toBe('cart');
  await page.press('Remove Lamplighter');
  expect(made()).toBeUndefined();
  await page.undo();
  expect(made()?.crewOf).toBe('cart');
});

test('what visitors look for is counted of those in hand who are in a scene', async () => {
  const page = await open();
  await page.press(/^Quay cats/);
  await page.fill('Visitors look for', 'cats');
  // They are in no scene yet.
  await page.seesNo('3 cats');
  await page.press(/^At the well/);
  await page.press('Add a spot');
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Who' }), 'Quay cats');
  await page.sees('3 cats in At the well');
});
