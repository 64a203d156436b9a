import { act, screen } from '@testing-library/react';
import { listOf, sceneFrom, type Kind } from '@quarry/core/document';
import { openPage, type OpenPage } from '../../../test/openPage.tsx';
import { useView } from '../../data/view.ts';
import { SurveyPage } from './SurveyPage.tsx';

// What stands in a room, by its data sheet.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', place: 'hall' },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  places: [
    {
      ...{ id: 'hall', name: 'Pier hall', sceneX: 1000, sceneY: 1000 },
      walls: [
        { x: 0, y: 0 },
        { x: 4000, y: 0 },
        { x: 4000, y: 3000 },
        { x: 0, y: 3000 },
      ],
    },
  ],
  tables: [
    { id: 't', name: 'Long table', x: 1000, y: 1000, w: 1200, d: 600, height: 740, place: 'hall' },
    { id: 'u', name: 'Side table', x: 2400, y: 1000, w: 600, d: 600, height: 740, place: 'hall' },
  ],
  openings: [
    { id: 'o', name: 'Yard door', use: 'door', wall: 2, at: 500, width: 900, height: 2100, place: 'hall' },
  ],
  sockets: [{ id: 's', name: 'Wall socket', x: 1000, y: 0, place: 'hall', outlets: 2 }],
});
const open = () => openPage(scene, <SurveyPage />, 'survey?sheet=room', { role: 'planner', person: null });
async function pick(page: OpenPage, kind: Kind, id: string, name: string): Promise<void> {
  act(() => useView.getState().pick({ kind, id }));
  await page.sees(name);
}
afterEach(() => act(() => useView.getState().pick(null)));
/** What stands beside a word of the data sheet. */
const beside = (word: string) => screen.getByText(word, { selector: 'dt' }).nextElementSibling?.textContent;

test('a table: what is clear on each side, turned about its middle, and another beside it', async () => {
  const page = await open();
  await pick(page, 'table', 't', 'Clear to the next thing');
  expect(['North', 'East', 'South', 'West'].map(beside)).toEqual([
    '1,000 mm',
    '200 mm',
    '1,400 mm',
    '1,000 mm',
  ]);
  await page.press('Turn by 90°');
  expect(page.scene().table.t).toMatchObject({ x: 1300, y: 700, w: 600, d: 1200 });
  expect(['North', 'East', 'South', 'West'].map(beside)).toEqual([
    '700 mm',
    '500 mm',
    '1,100 mm',
    '1,300 mm',
  ]);
  await page.undo();
  await page.press('Another beside it');
  const third = listOf(page.scene(), 'table').find(({ name }) => name === 'Table 3');
  expect(third).toMatchObject({ x: 2200, y: 1000, w: 1200, d: 600, height: 740, place: 'hall' });
  // It stands in the side table: nothing is clear between them.
  await page.sees('Table 3');
  await page.fill('Height', '29 1/8 in');
  // 29 1/8 × 25.4 mm (the inch of 1959).
  expect(listOf(page.scene(), 'table').find(({ id }) => id === third?.id)?.height).toBeCloseTo(739.775, 3);
});

test('a door is put on the access route with its own size, once; a socket says how far a cable runs', async () => {
  const page = await open();
  await pick(page, 'opening', 'o', 'Yard door');
  await page.press('Add to the access route');
  expect(listOf(page.scene(), 'passage')).toMatchObject([
    { name: 'Yard door', width: 900, height: 2100, place: 'hall' },
  ]);
  await page.sees('It is a step of the access route.');
  expect(page.isDisabled('In wall')).toBe(false);
  await page.choose('In wall', '2, 3,000 mm');
  expect(page.scene().opening.o?.wall).toBe(1);
  await pick(page, 'socket', 's', 'Wall socket');
  // From the wall to the scene's north-west corner at 1,000, 1,000.
  expect(beside('Cable to the scene, straight')).toBe('1,000 mm');
  await page.fill('From west', '40 cm');
  // 600 west and 1,000 north of it.
  expect(beside('Cable to the scene, straight')).toBe('1,166 mm');
  await page.sees('Keep cables off aisles');
});

test('a second place is looked at without moving the display; then it stands there', async () => {
  const page = await open();
  await page.press('Place');
  await page.sees('Place 2');
  await page.sees('Let it stand here');
  // Nothing stands in it yet, and the display is where it was.
  await page.sees('0 in all');
  expect(listOf(page.scene(), 'display')[0]?.place).toBe('hall');
  await page.press('Let it stand here');
  expect(page.acts.at(-1)?.label).toBe('moved the display to Place 2');
  await page.undo();
  expect(listOf(page.scene(), 'display')[0]?.place).toBe('hall');
});
