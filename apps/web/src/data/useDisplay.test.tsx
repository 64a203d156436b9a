import { act, render, screen } from '@testing-library/react';
import { sceneFrom } from '@quarry/core/document';
import { DisplayLink } from './displayLink.ts';
import { linkOn } from '../../test/linkOn.ts';
import { DisplayProvider, useScene } from './useDisplay.tsx';

jest.mock('./displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

test('a component renders again for the kinds it reads, and for no others', async () => {
  const link = linkOn(
    sceneFrom({
      display: { name: 'Quay', kind: 'diorama' },
      levels: [{ id: 'low', name: 'Low', height: 3 }],
      people: [{ id: 'bo', name: 'Bo', initials: 'BO' }],
      footprint: [{ id: 'f', name: 'Ground', x: 0, y: 0, w: 32, d: 32 }],
    }),
  );
  jest.mocked(DisplayLink.open).mockResolvedValue(link);
  const rendered = { level: 0, people: 0 };
  function Level() {
    const scene = useScene('level');
    rendered.level++;
    return <p>Low is {scene.level.low.height} plates</p>;
  }
  function People() {
    const scene = useScene('person', 'section');
    rendered.people++;
    return <p>{Object.values(scene.person).map(({ name }) => name)}</p>;
  }
  await act(async () => {
    render(
      <DisplayProvider id="d" user="u" loading="opening" failed={() => 'failed'}>
        <Level />
        <People />
      </DisplayProvider>,
    );
  });
  expect(screen.getByText('Low is 3 plates')).toBeTruthy();
  const before = { ...rendered };
  act(() => link.change('', [{ op: 'patch', kind: 'level', id: 'low', v: 1, set: { height: 6 } }]));
  expect(screen.getByText('Low is 6 plates')).toBeTruthy();
  expect(rendered).toEqual({ level: before.level + 1, people: before.people });
  act(() => link.change('', [{ op: 'patch', kind: 'person', id: 'bo', v: 1, set: { name: 'Bodil' } }]));
  expect(screen.getByText('Bodil')).toBeTruthy();
  expect(rendered).toEqual({ level: before.level + 1, people: before.people + 1 });
});
