import { reduce, sceneFrom, shellName, type Scene } from '../document/index.ts';
import { evaluateRules } from '../findings/index.ts';
import {
  PLAIN_SHAPES,
  buildingPieces,
  frontsOf,
  shellPieces,
  swapCard,
  swapChoices,
  shellList,
} from './index.ts';

const STREET = { pavementLight: 'any', pavementDark: 'any' };
const yard = (more: object = {}): Scene =>
  sceneFrom({
    display: { name: 'Yard', kind: 'city' },
    levels: [{ id: 'l', name: 'Yard', height: 3 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 96 }],
    pads: [{ id: 'p', name: 'Paving', x: 0, y: 0, w: 96, d: 96, level: 'l', ground: 'paving' }],
    plots: [
      { id: 'a', name: 'Corner', x: 40, y: 40, w: 15, d: 9, height: 20, turn: 90, notes: 'By the lane' },
    ],
    ...more,
  });

const become = (scene: Scene, from: 'shape' | 'piece', id: string) => {
  const answer = swapCard(scene, scene.plot.a, { from, id });
  if (!answer.ok) throw new Error(answer.error);
  const done = reduce(scene, answer.card.changes);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return { card: answer.card, scene: done.scene };
};

test.each(PLAIN_SHAPES)(
  'the plain shape “$name” fits together: every bay, every piece, nothing an error',
  ({ id, plot }) => {
    const { scene, card } = become(yard(), 'shape', id);
    const { a } = scene.plot;
    for (const { left, bays } of frontsOf(a)) {
      expect(left).toBe(0);
      expect(bays.flatMap(({ fault }) => fault ?? [])).toEqual([]);
    }
    expect(
      frontsOf(a).flatMap(({ bays }) => bays.flatMap(({ opening }) => opening ?? [])).length,
    ).toBeGreaterThan(0);
    const pieces = buildingPieces(a, STREET);
    expect(card.then).toMatchObject({ w: plot.w, d: plot.d, pieces: pieces.length });
    // Its roof ends within a brick of the height that is planned.
    const top = pieces.reduce((high, { z, h }) => Math.max(high, z + h), 0);
    expect(Math.abs(top - a.height)).toBeLessThanOrEqual(3);
    const errors = evaluateRules(scene, { today: '2026-05-01' }).filter(
      ({ severity, things }) => severity === 'error' && things.some((thing) => thing.id === 'a'),
    );
    expect(errors.map(({ sentence }) => sentence)).toEqual([]);
  },
);

test('its name, middle, turn, notes and what it stands on stay; undone by one change back', () => {
  const { scene, card } = become(yard(), 'shape', 'house');
  const { a } = scene.plot;
  expect(a).toMatchObject({ name: 'Corner', turn: 90, notes: 'By the lane', w: 12, d: 10 });
  expect([a.x + a.w / 2, a.y + a.d / 2]).toEqual([47.5, 44.5]);
  expect(card.now).toMatchObject({ w: 15, d: 9, height: 20 });
  expect(swapCard(scene, a, { from: 'shape', id: 'gone' })).toEqual({
    ok: false,
    error: 'What it was to become is not there any more.',
  });
});

test('a kept piece that is one building is offered; the list of a shell follows, one of another name stays', () => {
  const kept = {
    ...{ id: 'k', name: 'Kiosk', w: 6, d: 6 },
    things: [{ kind: 'plot', data: { name: 'Kiosk', x: 0, y: 0, w: 6, d: 6, height: 19, onGround: true } }],
  };
  const two = { ...kept, id: 'two', name: 'Pair', things: [...kept.things, ...kept.things] };
  const plain = yard({ pieces: [kept, two] });
  expect(swapChoices(plain).filter(({ from }) => from === 'piece')).toEqual([
    { from: 'piece', id: 'k', name: 'Kiosk' },
  ]);
  const listed = (name: string) => {
    const data = { ...shellList(plain, plain.plot.a), name };
    const done = reduce(plain, [{ op: 'add', kind: 'partList', id: 'own', data }]);
    if (!done.ok) throw new Error(done.refusal.sentence);
    return become(done.scene, 'piece', 'k').scene;
  };
  const swapped = listed(shellName(plain.plot.a));
  expect(swapped.plot.a).toMatchObject({ w: 6, height: 19, name: 'Corner', onGround: false });
  expect(swapped.partList.own.lines).toEqual(shellPieces(swapped.plot.a, STREET));
  expect(listed('As built').partList.own.lines).toEqual(shellPieces(plain.plot.a, STREET));
});
