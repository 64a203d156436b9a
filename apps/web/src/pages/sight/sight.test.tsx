import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { compileRelief } from '@quarry/core/terrain';
import { sightOf } from '@quarry/core/visibility';
import { useDisplay } from '../../data/useDisplay.tsx';
import { renderOn } from '../../workers/renderOn.tsx';
import { SeenFrom } from './SeenFrom.tsx';

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
