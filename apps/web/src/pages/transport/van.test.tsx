import { waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { onTable } from '../../../test/onTable.ts';
import { LONGEST, openPage } from '../../../test/openPage.tsx';
import { TransportPage } from './TransportPage.tsx';

// What goes into the van.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', place: 'hall', showPlace: 'hall' },
  ...onTable(144, 96),
  bases: [{ id: 'b48', w: 48, d: 48, price: 14, stock: 9 }],
  modules: [
    {
      id: 'm1',
      name: 'A1',
      x: 0,
      y: 0,
      w: 48,
      d: 96,
      bases: [0, 48].map((y) => ({ x: 0, y, w: 48, d: 48 })),
    },
    {
      ...{ id: 'm2', name: 'A2', x: 48, y: 0, w: 96, d: 96 },
      bases: [48, 96].flatMap((x) => [0, 48].map((y) => ({ x, y, w: 48, d: 48 }))),
    },
  ],
  passages: [
    { id: 'door', name: 'hall door', kind: 'door', place: 'hall', width: 600, height: 2010, order: 1 },
    {
      ...{ id: 'van', name: 'van', kind: 'vehicle', width: 1200, height: 1000, order: 2 },
      ...{ insideW: 1200, insideD: 1500, insideH: 1100, driver: 'ada' },
    },
  ],
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
});

test('a module that does not come through is split by a tried fix, everything goes in, and is ticked', async () => {
  const page = await openPage(scene, <TransportPage />, 'transport?sheet=load');
  await page.sees('Does not come throughmodule A2 stopped by the hall door');
  await page.press('module A2');
  await page.press('Find a fix');
  await page.sees('Split A2 on column 96');
  await page.press(/^Apply/);
  await page.seesNo('Does not come through');
  // One piece more than before, and every one of them in the van.
  await page.sees('In a vehicle3 of 3');
  await page.sees('Put in · arrived0 · 0of 3');
  // A loading that is found a moment later draws the list again.
  await waitFor(async () => {
    const first = document.querySelector<HTMLInputElement>('section[aria-label^="Loading order"] input');
    if (first && !first.checked) await userEvent.click(first);
    expect(page.text()).toContain('Put in · arrived1 · 0of 3');
  }, LONGEST);
  await page.undo();
  await page.sees('Put in · arrived0 · 0of 3');
  await page.undo();
  await page.sees('Does not come through');
});
