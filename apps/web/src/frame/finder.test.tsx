import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useLocation } from 'react-router';
import { KIND_NAMES, sceneFrom } from '@quarry/core/document';
import { renderOn } from '../../test/renderOn.tsx';
import { useView } from '../data/view.ts';
import { Finder } from './Finder.tsx';
import { entityEntries, findEntries, placeEntries } from './finderEntries.ts';
import { WHEREABOUTS } from './whereabouts.ts';

// The finder: what is found by which words, and where it leads.

jest.mock('../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama' },
  levels: [{ id: 'l', name: 'Street', height: 3 }],
  hills: [
    { id: 'h1', name: 'East hill', x: 0, y: 0, w: 8, d: 8, level: 'l', height: 9, ground: 'grass' },
    { id: 'h2', name: 'Hill 2', x: 20, y: 0, w: 8, d: 8, level: 'l', height: 9, ground: 'grass' },
  ],
  sections: [{ id: 's', letter: 'C', name: 'Chilly side', x: 0, y: 0, w: 48, d: 48 }],
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
  tasks: [{ id: 't', name: 'Sweep the hillside' }],
  orders: [{ id: 'o', name: 'Spring order', lines: [] }],
  tables: [{ id: 'tb', name: 'Long table', x: 0, y: 0, w: 800, d: 600 }],
});
const labels = (typed: string) =>
  findEntries([...placeEntries(), ...entityEntries(scene)], typed, 20).map(({ label }) => label);

test('a name is found before what only holds its letters; every sheet is found by its word', () => {
  // Whole, then at the start, then at a word's start, then inside a word.
  expect(labels('hill 2')[0]).toBe('Hill 2');
  expect(labels('hill').slice(0, 2)).toEqual(['Hill 2', 'East hill']);
  expect(labels('hill')).toContain('Sweep the hillside');
  expect(labels('east')[0]).toBe('East hill');
  expect(labels('C · Chilly side')).toEqual(['C · Chilly side']);
  expect(labels('zzzz')).toEqual([]);
  expect(labels('  ')).toEqual([]);
  for (const { label, id } of placeEntries()) expect([id, labels(label)[0]]).toEqual([id, label]);
});

test('every kind that has a name leads somewhere, or says that it does not', () => {
  const found = new Set(entityEntries(scene).map(({ id }) => id.split(' ')[0]));
  for (const kind of KIND_NAMES)
    if (kind !== 'display' && WHEREABOUTS[kind] !== null && Object.keys(scene[kind]).length > 0)
      expect(found).toContain(kind);
  const order = entityEntries(scene).find(({ id }) => id === 'order o');
  expect(order?.target).toEqual({ to: 'page', path: 'stockpile?sheet=orders' });
});

const Place = () => {
  const { pathname, search } = useLocation();
  return <output data-place>{pathname + search}</output>;
};
const open = (more: { onKeys?: () => void; onClose?: () => void } = {}) =>
  renderOn(
    scene,
    <>
      <Place />
      <Finder
        open
        onClose={() => undefined}
        onKeys={() => undefined}
        onFindings={() => undefined}
        {...more}
      />
    </>,
    { at: '/d/d/brief' },
  );
const place = () => document.querySelector('[data-place]')?.textContent;

test('typed and chosen by keys: a hill is shown on the plan, a table in the room, and both are the last choices', async () => {
  localStorage.clear();
  const onClose = jest.fn();
  await open({ onClose });
  const field = screen.getByRole('combobox');
  await userEvent.type(field, 'east h{Enter}');
  expect(onClose).toHaveBeenCalledTimes(1);
  expect(place()).toBe('/d/d/plan');
  expect(useView.getState().picked).toMatchObject({ kind: 'hill', id: 'h1' });
  await userEvent.type(field, 'long tab{Enter}');
  expect(place()).toBe('/d/d/survey');
  expect(
    screen
      .getAllByRole('option')
      .slice(0, 2)
      .map(({ textContent }) => textContent),
  ).toEqual([expect.stringMatching(/^Long table/), expect.stringMatching(/^East hill/)]);
  await userEvent.type(field, 'spring ord{Enter}');
  expect(place()).toBe('/d/d/stockpile?sheet=orders');
  expect(useView.getState().picked).toBeNull();
});

test('what is not there is told in its own words; an act is done', async () => {
  const onKeys = jest.fn();
  await open({ onKeys });
  const field = screen.getByRole('combobox');
  await userEvent.type(field, 'kraken');
  expect(screen.getByRole('status').textContent).toBe('Nothing here has “kraken” in its name.');
  await userEvent.clear(field);
  await userEvent.type(field, 'list the keys{Enter}');
  expect(onKeys).toHaveBeenCalledTimes(1);
  const { metric } = useView.getState();
  await userEvent.type(field, metric === 'mm' ? 'show inches{Enter}' : 'show mill{Enter}');
  expect(useView.getState().metric).not.toBe(metric);
  act(() => useView.getState().setMetric(metric));
});
