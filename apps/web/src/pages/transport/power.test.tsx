import { sceneFrom } from '@quarry/core/document';
import { onTable } from '../../../test/onTable.ts';
import { openPage } from '../../../test/openPage.tsx';
import { TransportPage } from './TransportPage.tsx';

// Light and power of a small display.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', place: 'hall', showPlace: 'hall' },
  ...onTable(96, 48),
  modules: [0, 1].map((i) => ({
    ...{ id: `m${i}`, name: `A${i + 1}`, x: 48 * i, y: 0, w: 48, d: 48 },
    bases: [{ x: 48 * i, y: 0, w: 48, d: 48 }],
  })),
  sockets: [0, 1].map((i) => ({ id: `s${i}`, name: `Outlet ${i}`, place: 'hall', x: 200 * i, y: -100 })),
  supplies: [
    {
      id: 'back',
      name: 'Adapter at the back',
      x: 60,
      y: -4,
      type: 'adapter',
      volts: 5,
      milliamps: 2000,
      leadMm: 1800,
    },
    {
      id: 'port',
      name: 'Port of the market',
      x: 40,
      y: -4,
      type: 'usb',
      volts: 5,
      milliamps: 500,
      leadMm: 2500,
    },
  ],
  circuits: [
    { id: 'lamps', name: 'Market lamps', supply: 'port', wire: 0.14, connectors: [{ x: 40, y: 0 }] },
    { id: 'panes', name: 'Shop windows', supply: 'port', wire: 0.14, connectors: [{ x: 40, y: 0 }] },
  ],
  devices: [
    ...[8, 20].map((y, i) => ({
      ...{ id: `lamp${i}`, name: `Lantern ${i + 1}`, x: 30, y, circuit: 'lamps', count: 4, milliamps: 30 },
    })),
    ...[60, 72].map((x, i) => ({
      ...{ id: `pane${i}`, name: `Window ${i + 1}`, x, y: 30, circuit: 'panes', count: 8, milliamps: 20 },
    })),
  ],
});

test('a circuit over its rating goes to another supply, its cable gets its connectors', async () => {
  const page = await openPage(scene, <TransportPage />, 'transport?sheet=power');
  await page.press('Supplies');
  // 8 lanterns of 30 mA and 16 windows of 20 mA.
  await page.sees('560 mA · 112 %');
  await page.press('Find a fix');
  await page.sees('Hang circuit “Market lamps” on “Adapter at the back”');
  await page.press(/^Apply/);
  await page.sees('320 mA · 64 %');
  await page.press('Circuits');
  await page.press('Plan 1 connector');
  await page.seesNo('missing at seams');
  await page.undo();
  await page.sees('1 missing at seams');
  await page.undo();
  await page.press('Supplies');
  await page.sees('560 mA of 500 mA');
});
