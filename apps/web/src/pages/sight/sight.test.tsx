import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { compileRelief } from '@quarry/core/terrain';
import { sightOf } from '@quarry/core/visibility';
import { useDisplay } from '../../data/useDisplay.tsx';
import { renderOn } from '../../../test/renderOn.tsx';
import { SeenCliffs } from './SeenCliffs.tsx';
import { SeenFrom } from './SeenFrom.tsx';
import { SeenThings } from './SeenThings.tsx';
import { PlainGround } from './PlainGround.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Seen', kind: 'diorama', viewedSides: ['s', 'e'], place: 'hall' },
  places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 1000, sceneY: 1000 }],
  tables: [{ id: 't', name: 'Table', place: 'hall', x: 1000, y: 1000, w: 768, d: 384, height: 740 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  plots: [{ id: 'b', name: 'Mill', x: 40, y: 20, w: 10, d: 8, height: 18 }],
  photoSpots: [{ id: 'gate', name: 'Gate', x: 48, y: 100, bearing: 0 }],
});
const sight = sightOf(scene, compileRelief(scene));
/** Who looks, of the display as it stands. */
function WhoLooks() {
  const now = useDisplay((state) => state.scene);
  return sight && <SeenFrom scene={now} sight={sight} />;
}

test('a side and its thirds are weighed by themselves; nothing is taken that is no percent', async () => {
  const user = userEvent.setup();
  const acts = await renderOn(scene, <WhoLooks />);
  const south = within(screen.getByRole('group', { name: 'Along the south side' }));
  const type = async (field: HTMLElement, text: string) => {
    await user.clear(field);
    await user.type(field, `${text}{Enter}`);
  };
  await type(south.getByRole('textbox', { name: 'The south side, west third' }), '40');
  await type(south.getByRole('textbox', { name: 'The south side, east third' }), '5');
  await type(screen.getByRole('textbox', { name: 'The east side, north third' }), '70');
  await type(screen.getByRole('textbox', { name: 'The south side' }), '80');
  expect(acts.map(({ changes: [change] }) => change?.op === 'patch' && change.set)).toMatchObject([
    { crowdAlong: { s: [40, 100, 100] } },
    { crowdAlong: { s: [40, 100, 5] } },
    { crowdAlong: { s: [40, 100, 5], e: [70, 100, 100] } },
    { crowd: { s: 80, e: 100 } },
  ]);
  await type(south.getByRole('textbox', { name: 'The south side, middle third' }), '0');
  expect(screen.getByRole('alert').textContent).toContain('0 is below the least, 1');
  expect(acts).toHaveLength(4);
  // Sides that nobody looks at are not asked.
  expect(screen.queryByRole('group', { name: 'Along the north side' })).toBeNull();
});

test('a photo spot is told with what is seen from there', async () => {
  await renderOn(scene, <WhoLooks />, { actor: { role: 'viewer', person: null } });
  const rows = within(screen.getByRole('table', { name: 'First views and photos' })).getAllByRole('row');
  // 100 − 48 studs before the south edge: 416 mm.
  expect(rows.at(-1)?.textContent).toMatch(/^Gate416 mm\d+ %Mill/);
  expect(screen.getByRole('textbox', { name: 'The south side, west third' }).hasAttribute('disabled')).toBe(
    true,
  );
});

/** Ground six plates high, a board over it that looks south, and one that looks north. */
const raisedFile: Parameters<typeof sceneFrom>[0] = {
  display: { name: 'Seen', kind: 'diorama', viewedSides: ['s'], place: 'hall' },
  places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
  tables: [{ id: 't', name: 'Table', place: 'hall', x: 0, y: 0, w: 480, d: 160, height: 740 }],
  levels: [{ id: 'low', name: 'Low', height: 6 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 60, d: 20 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 60, d: 20, level: 'low', ground: 'paving' }],
  signboards: [
    { id: 's', name: 'Quay sign', text: 'QUAY', x: 30, y: 10 },
    { id: 'n', name: 'Back sign', x: 30, y: 4, facing: 0, letters: 3 },
  ],
};
const raised = sceneFrom(raisedFile);
const seenRaised = sightOf(raised, compileRelief(raised));
if (!seenRaised) throw new Error('nobody looks');

test('edges are told with how long and high they are, who sees them and how much nobody does', async () => {
  await renderOn(raised, <SeenCliffs sight={seenRaised} />);
  const table = within(screen.getByRole('table', { name: 'Cliffs and edges' }));
  const rows = table.getAllByRole('row').slice(1);
  const told = rows.map((row) => [...row.children].map((cell) => cell.textContent));
  expect(told.map(([what]) => what?.replace(/(north|east|south|west).*/, '$1'))).toEqual([
    ...['north', 'west', 'east', 'south'].map((side) => `Edge of the display, ${side}`),
  ]);
  // 60 studs nobody is before; the front all four heights see.
  expect(told[0].slice(1)).toEqual(['–', '–', '–', '–', '60']);
  expect(told[0][0]).toContain('60 studs long, 2b high, seen from nowhere');
  expect(told[3].slice(1)).toEqual(['100 %', '100 %', '100 %', '100 %', '0']);
});

test('faces that nobody sees are left plain by one press, with the ground; taken back by another', async () => {
  const user = userEvent.setup();
  const acts = await renderOn(raised, <PlainGround scene={raised} sight={seenRaised} />);
  expect(screen.getByText(/of faces of\s+cliffs and edges, are hidden from everybody/).textContent).toContain(
    '100 studs',
  );
  expect(screen.getByRole('button', { name: 'What that saves' })).toBeTruthy();
  const faces = [{ side: 'n' as const, x: 0, y: 0, w: 60, d: 1 }];
  const plain = sceneFrom({ ...raisedFile, plains: [{ id: 'h', name: 'Hidden', faces }] });
  const taken = await renderOn(plain, <PlainGround scene={plain} sight={seenRaised} />);
  await user.click(screen.getAllByRole('button', { name: 'Take back' })[0]);
  expect(taken.flatMap(({ changes }) => changes)).toEqual([{ op: 'remove', kind: 'plain', id: 'h', v: 1 }]);
  expect(acts).toEqual([]);
});

test('a signboard that is picked tells by whom its letters are read', async () => {
  const user = userEvent.setup();
  await renderOn(raised, <SeenThings scene={raised} sight={seenRaised} />);
  await user.click(screen.getByRole('button', { name: 'Back sign' }));
  expect(screen.getByText(/Its letters are read from/).textContent).toContain('0 % of the places of adults');
});
