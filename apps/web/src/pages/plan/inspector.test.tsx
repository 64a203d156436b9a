import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { compileRelief } from '@quarry/core/terrain';
import type { Act } from '../../../test/linkOn.ts';
import { useScene } from '../../data/useDisplay.tsx';
import { renderOn } from '../../../test/renderOn.tsx';
import { ElevationDialog } from './elevation/ElevationDialog.tsx';
import { PlotPart } from './PlotPart.tsx';
import { RunPart } from './RunPart.tsx';
import { SectionSheet } from './sheets.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// No browser’s storage here: no photograph lies below a front.
jest.mock('../../data/tracings.ts', () => ({ loadTracing: () => Promise.resolve(null) }));

const HALL = { id: 'h', name: 'Hall', x: 0, y: 0, w: 32, d: 20, height: 30 };
const scene = sceneFrom({
  display: { name: 'Quay', kind: 'city' },
  sections: [{ id: 'a', letter: 'A', name: 'Quay', x: 0, y: 0, w: 32, d: 32 }],
  plots: [{ ...HALL, mayCut: true }],
});
const Plot = () => <PlotPart plot={useScene('plot').plot.h} disabled={false} />;
const Section = () => <SectionSheet section={useScene('section').section.a} />;
const setBy = (acts: readonly Act[]) => {
  const change = acts.at(-1)?.changes[0];
  return change?.op === 'patch' ? change.set : null;
};

test('where a seam may cut a building is said by wall and studs; beyond its walls it is refused', async () => {
  const user = userEvent.setup();
  const acts = await renderOn(scene, <Plot />);
  expect(screen.getByText('anywhere')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Place' }));
  expect(setBy(acts)).toEqual({ cutAt: [{ across: 'x', at: 16 }] });
  await user.selectOptions(screen.getByRole('combobox', { name: 'Place 1, from which wall' }), [
    'From its north wall',
  ]);
  const at = screen.getByRole('textbox', { name: 'Place 1, studs from the wall' });
  await user.clear(at);
  await user.type(at, '10.5{Enter}');
  expect(setBy(acts)).toEqual({ cutAt: [{ across: 'y', at: 10.5 }] });
  await user.clear(at);
  await user.type(at, '21{Enter}');
  expect(screen.getByRole('alert').textContent).toContain('20 studs');
  await user.click(screen.getByRole('button', { name: 'Remove Place 1' }));
  expect(setBy(acts)).toEqual({ cutAt: [] });
});
test('a side that stands back begins as a court behind the front; it is moved, made wider, and taken back', async () => {
  const user = userEvent.setup();
  const acts = await renderOn(scene, <Plot />);
  const court = { side: 'n', at: 8, wide: 16, deep: 10 };
  expect(screen.getByText('540 studs')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Recess' }));
  expect(acts.at(-1)?.label).toBe('let sides stand back of Hall');
  expect(setBy(acts)).toEqual({ recesses: [court] });
  // 32 × 20 less 16 × 10, less walls of 104 + 20 studs less one at each of six outer corners, more one at two inner ones.
  expect(screen.getByText(`${32 * 20 - 160 - (124 - 6 + 2)} studs`)).toBeTruthy();
  const type = async (label: string, text: string) => {
    const field = screen.getByRole('textbox', { name: label });
    await user.clear(field);
    await user.type(field, text);
  };
  await type('Recess 1, studs from the west end', '0{Enter}');
  expect(setBy(acts)).toEqual({ recesses: [{ ...court, at: 0 }] });
  await type('Recess 1, studs wide', '257{Enter}');
  expect(screen.getByRole('alert').textContent).toContain('257 is above the most, 256');
  await user.selectOptions(screen.getByRole('combobox', { name: 'Recess 1, which side' }), 'East');
  expect(setBy(acts)).toEqual({ recesses: [{ ...court, at: 0, side: 'e' }] });
  await type('Recess 1, studs from the north end', '5{Enter}');
  await user.click(screen.getByRole('button', { name: 'Remove Recess 1' }));
  expect(setBy(acts)).toEqual({ recesses: [], bays: [] });
});
test('the walls across a court have bays of their own; removed, a recess takes them along', async () => {
  const user = userEvent.setup();
  const Fronts = () => (
    <ElevationDialog plot={useScene('plot').plot.h} disabled={false} onClose={() => undefined} />
  );
  const court = { side: 'n', at: 8, wide: 16, deep: 10 } as const;
  const acts = await renderOn(
    sceneFrom({ display: { name: 'Quay', kind: 'city' }, plots: [{ ...HALL, recesses: [court] }] }),
    <>
      <Plot />
      <Fronts />
    </>,
  );
  const tab = (name: string) => screen.getByRole('tab', { name, hidden: true });
  await user.click(tab('Recess 1, facing west'));
  expect(screen.getByText(/^10 studs · 80 mm/)).toBeTruthy();
  const rhythm = screen.getByLabelText('Bays, from the left');
  await user.type(rhythm, '2 × 4{Enter}');
  expect(setBy(acts)).toMatchObject({
    bays: [{ side: 'w', recess: 1, storey: 1, bays: [{ wide: 4 }, { wide: 4 }] }],
  });
  expect(screen.getByText('2 studs left, at both ends')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Remove Recess 1', hidden: true }));
  expect(setBy(acts)).toEqual({ recesses: [], bays: [] });
  // Its tab is gone: the street side is shown.
  expect(tab('South · street').getAttribute('aria-selected')).toBe('true');
});
test('the day a section needs its parts is set, and left to the show again', async () => {
  const user = userEvent.setup();
  const acts = await renderOn(scene, <Section />);
  expect(screen.getByText('empty: by the show')).toBeTruthy();
  const field = screen.getByLabelText('Its parts are needed by');
  await user.type(field, '2031-05-02');
  await user.tab();
  expect(setBy(acts)).toEqual({ partsBy: '2031-05-02' });
  await user.clear(field);
  await user.tab();
  expect(setBy(acts)).toEqual({ partsBy: null });
});
test('a viewer changes neither', async () => {
  await renderOn(scene, <Section />, { actor: { role: 'viewer', person: null } });
  expect(screen.getByLabelText('Its parts are needed by').hasAttribute('disabled')).toBe(true);
});
test('a round room: its measures, six windows spread over it, and a door left in its place', async () => {
  const points = [
    { x: 40, y: 40 },
    { x: 40, y: 20 },
  ];
  const round = sceneFrom({
    display: { name: 'Fort', kind: 'diorama' },
    runs: [
      {
        ...{ id: 'r', name: 'Round room', points, ring: 24, panel: 4, height: 18 },
        // Of the two a file brought the second: no such thing is let in.
        openings: [
          { at: 13, part: 'door-2x1' },
          { at: 2, part: 'brick-2x4' },
        ],
      },
    ],
  });
  const Run = () => <RunPart run={useScene('run').run.r} disabled={false} />;
  const acts = await renderOn(round, <Run />);
  expect(screen.getByText('15.19 st')).toBeTruthy();
  expect(screen.getByText('2.1 mm')).toBeTruthy();
  expect(screen.getByText('180°, opposite 1')).toBeTruthy();
  const brought = screen.getByRole<HTMLSelectElement>('combobox', { name: 'Let into panel 2' });
  expect(brought.selectedOptions[0].textContent).toBe('Brick 2×4');
  const user = userEvent.setup();
  await user.click(screen.getByText('Spread over the panels'));
  expect(screen.getByText(/^Every 4 panels; left out in panel 13/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Let them in' }));
  expect(setBy(acts)).toEqual({
    openings: [
      { at: 13, part: 'door-2x1', sill: 0, niche: false },
      { at: 2, part: 'brick-2x4', sill: 0, niche: false },
      ...[1, 5, 9, 17, 21].map((at) => ({ at, part: 'window-2x1x2', sill: 2, niche: false })),
    ],
  });
});
test('a wall tells its panels, how its arches come out in them, and what it takes', async () => {
  const points = [0, 40].map((x) => ({ x, y: 4 }));
  const walled = sceneFrom({
    display: { name: 'Quay', kind: 'city' },
    runs: [
      {
        ...{ id: 'r', name: 'Quay wall', points, height: 12, thick: 2 },
        ...{ panel: 16, arches: 'arch-1x6', topFence: true },
      },
    ],
  });
  const Run = () => <RunPart run={useScene('run').run.r} disabled={false} />;
  await renderOn(walled, <Run />);
  // Panels of 16, 16 and 8: two, two and one arch of 6, and 4, 4 and 2 studs plain.
  expect(screen.getByText('3 panels')).toBeTruthy();
  expect(screen.getByText('5')).toBeTruthy();
  expect(screen.getByText('2 in the first panel; 2 or 4 studs plain at its ends')).toBeTruthy();
  // Behind 10 × 4 bricks; before them 5 arches, 2 double piers and 6 single ones of three bricks, and at both ends of each
  // panel a brick, four courses high; 10 fences.
  expect(screen.getByText(String(40 + 5 + 3 * 2 + 3 * 6 + 4 * 6 + 10))).toBeTruthy();
});
test('on a ring a storey with its floor, and a roof on that, are built in one act each; a square has no round roof', async () => {
  const points = [
    { x: 24, y: 24 },
    { x: 24, y: 40 },
  ];
  const ringed = (ring: number) =>
    sceneFrom({
      display: { name: 'Keep', kind: 'city' },
      levels: [{ id: 'low', name: 'Low', height: 3 }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 48 }],
      runs: [{ id: 'r', name: 'Keep', use: 'wall', points, ring, panel: 4, height: 18 }],
    });
  const scene = ringed(24);
  const relief = compileRelief(scene);
  const Run = () => <RunPart run={useScene('run').run.r} disabled={false} />;
  const acts = await renderOn(scene, <Run />, { derived: { ground: { relief, tiles: [] } } });
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Build a storey on it' }));
  expect(acts.at(-1)).toMatchObject({
    label: 'built a storey on Keep',
    changes: [
      { op: 'add', kind: 'run', data: { name: 'Keep, storey 2', onRun: 'r' } },
      { op: 'add', kind: 'deck', data: { level: 'low', offset: 15 } },
    ],
  });
  await user.click(screen.getByRole('button', { name: 'Put a roof on it' }));
  expect(acts.at(-1)).toMatchObject({
    label: 'put a roof on Keep',
    changes: [{ op: 'add', kind: 'plot', data: { name: 'Roof of Keep', onRun: 'r', w: 32 } }],
  });
  cleanup();
  await renderOn(ringed(4), <Run />, { derived: { ground: { relief, tiles: [] } } });
  expect(screen.getByRole('button', { name: 'Put a roof on it' }).hasAttribute('disabled')).toBe(true);
  expect(screen.getByText(/^No circle of studs/)).toBeTruthy();
});
