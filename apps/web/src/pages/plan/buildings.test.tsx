import { waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { LONGEST, openPage, pickFromOutline } from '../../../test/openPage.tsx';
import { longTest } from '../../../../../packages/core/test/runs.ts';
import { PlanPage } from './PlanPage.tsx';

// Buildings of a city at home, from their plan to their fronts, their floors and their list of pieces.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here.
jest.mock('../../board/Board.tsx', () => ({ Board: () => null }));
jest.mock('../../board/Profile.tsx', () => ({ Profile: () => null }));
// No browser’s storage here: no photograph lies below a front.
jest.mock('../../data/tracings.ts', () => ({ loadTracing: () => Promise.resolve(null) }));

const scene = sceneFrom({
  display: { name: 'Lane', kind: 'city', school: 'width', ratio: 30 },
  footprint: [{ id: 'f', name: 'Lane', x: 0, y: 0, w: 96, d: 48 }],
  plots: [
    { id: 'hall', name: 'Village hall', x: 0, y: 0, w: 40, d: 16, height: 36 },
    { id: 'post', name: 'Post room', x: 48, y: 0, w: 32, d: 32, height: 45, storeys: 3 },
    { id: 'kiosk', name: 'Kiosk', x: 84, y: 4, w: 8, d: 8, height: 12 },
  ],
});
const open = () => openPage(scene, <PlanPage />, 'plan');
/** Something that is drawn in a dialog, found by the beginning of its name, once it is there. */
const drawn = (begin: string) =>
  waitFor(() => {
    const found = document.querySelector<SVGElement>(`dialog [aria-label^="${begin}"]`);
    if (!found) throw new Error(`nothing drawn begins with “${begin}”`);
    return found;
  }, LONGEST);
const key = async (begin: string, press: string) => {
  (await drawn(begin)).focus();
  await userEvent.keyboard(press);
};

longTest(
  'a round tower: an L first, its room, its dome, mixed walls, a door in the wrong colour, and taken apart again',
  async () => {
    const page = await open();
    await pickFromOutline(page, 'Village hall');
    await page.fill('Width, east', '16');
    // First an L: a quarter left out, 60 studs of wall as round the whole square, the room 132 of its 192 studs.
    await page.press('Corner');
    await page.choose('Corner 1, which', 'North-east');
    await page.fill('Corner 1, studs wide', '8');
    await page.fill('Corner 1, studs deep', '8');
    await page.sees('132 studs');
    await page.fill('Corner 1, studs wide', '16');
    await page.sees('take 16 studs of a row of 16');
    await page.press('Remove Corner 1');
    await page.choose('Shape', 'Round');
    // A circle of 16 studs less a wall of one: 148 of 14 × 14.
    await page.sees('148 studs');
    await page.fill('Height', '22b');
    await page.fill('Roof from', '10b');
    await page.choose('Rings draw in', 'In a curve: a dome');
    await page.sees('11 rings of bricks');
    await page.choose('Walls in', 'Chalk');
    await page.choose('Windows and doors in', 'Slate');
    await page.press('Colour');
    await page.choose('Colour 1, in', 'Pebble');
    await page.fill('Colour 1, percent', '100');
    await page.sees('Colour 1, percent: 100 is above the most, 99.');
    await page.fill('Colour 1, percent', '25');
    // Six studs of its south side run straight: a door of four stands in them, one of the next size up does not.
    await page.press('Open its fronts');
    await page.fill('Bays, from the left', '8');
    await page.sees('2 studs wider than the front');
    await page.fill('Bays, from the left', '6');
    await page.sees('nothing is left over');
    await key('Storey 1, bay 1:', '{Enter}');
    await page.choose('Bay 1, 6 studs', 'Door 4×1');
    await page.choose('Stands in another colour', 'Moss');
    await page.press('Note it as a placeholder');
    await page.sees('Stands in Moss, should be Slate');
    expect(Object.values(page.scene().placeholder)).toMatchObject([
      {
        ...{ part: 'door-4x1', colour: 'slate', stands: 'moss', qty: 1 },
        notes: 'Village hall, south front, storey 1, bay 1',
      },
    ]);
    await page.press('Close');
    // A chest in the corner of its rectangle stands in the wall; in the middle it has room.
    await page.press('Open its floors');
    await page.sees('of 148 inside');
    await page.press('Thing');
    await page.fill('From the west wall', '0');
    await page.fill('From the north wall', '0');
    await page.sees('it stands in the round wall');
    await page.fill('From the west wall', '6');
    await page.fill('From the north wall', '6');
    await page.seesNo('No room');
    await page.press('Close');
    await page.press('Add its shell to the needs');
    await page.sees('Shell of Village hall');
    await page.press('Take apart');
    await page.seesNo('Shell of Village hall');
  },
);

test('another building on the place of one: what it comes to is told before it is swapped, and undone in one act', async () => {
  const page = await open();
  await pickFromOutline(page, 'Post room');
  const before = page.valueOf('Width, east');
  await page.choose('Becomes', 'Mill, an L');
  await page.sees('20 × 16 studs');
  await page.press('Swap it');
  await waitFor(() => expect(page.valueOf('Corner 1, which')).toBe('ne'), LONGEST);
  expect(page.valueOf('Width, east')).toContain('20');
  await page.undo();
  await waitFor(() => expect(page.valueOf('Width, east')).toBe(before), LONGEST);
});

test('a kiosk has its shell in pieces, bays in its street front, a table on its floor, and its list renewed', async () => {
  const page = await open();
  await pickFromOutline(page, 'Kiosk');
  await page.press('Add its shell to the needs');
  await page.sees('Shell of Kiosk');
  await page.fill('Height', '12b');
  await page.sees('Its shell now');
  // Two bays, a door and a window; what does not fit is told where it is chosen.
  await page.press('Open its fronts');
  await page.fill('Bays, from the left', '2 x 5 m');
  await page.sees('“m” is no width of a bay');
  await page.fill('Bays, from the left', '6');
  await page.sees('2 studs left, at both ends');
  await page.fill('Bays, from the left', '6 2');
  await page.sees('nothing is left over');
  await key('Storey 1, bay 1:', '{Enter}');
  await page.choose('Bay 1, 6 studs', 'Door 4×1');
  await page.fill('Sill', '30');
  await page.sees('Left out: it needs 36 courses');
  await page.fill('Sill', '0');
  await page.seesNo('Left out');
  await key('Storey 1, bay 2:', ' ');
  await page.choose('Bay 2, 2 studs', 'Window 1×1×2');
  await page.fill('Sill', '2');
  await page.press('Close');
  // Its floor from above: 6 × 6 studs inside. A table in the middle, moved by arrows, half a stud with Alt.
  await page.press('Open its floors');
  await page.sees('36 studs');
  await page.press('Thing');
  await page.fill('Name', 'Long table');
  await page.fill('Deep', '3');
  await page.fill('Wide', '6');
  await page.sees('it is set 1 stud into a wall 1 thick');
  await page.fill('From the west wall', '0');
  await page.fill('From the north wall', '0');
  await page.sees('18 studs');
  await key('Long table', '{ArrowDown}');
  await key('Long table, 6 × 3 studs at 0, 1', '{Alt>}{ArrowUp}{/Alt}');
  await drawn('Long table, 6 × 3 studs at 0, 0.5');
  await page.press('Close');
  // Its window and door are in it; before that is known the list would be renewed without them.
  await page.sees('Its shell now100');
  await page.press('Renew its list');
  await page.seesNo('Its shell now');
});
