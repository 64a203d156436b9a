import { emptyScene, reduce, type Change, type Scene } from '../src/document/index.ts';

/** A small valley of two modules and a strip in none, with a hill in the first and a road across. */
export function sceneOf(more: readonly Change[] = []): Scene {
  const add = (kind: Change['kind'], id: string, data: Record<string, unknown>): Change => ({
    op: 'add',
    kind,
    id,
    data,
  });
  const made = reduce(emptyScene(), [
    add('display', 'display', { name: 'Valley', kind: 'diorama', method: 'raft', currency: '¤' }),
    add('level', 'street', { name: 'Street', height: 6 }),
    add('footprint', 'all', { name: 'All', x: 0, y: 0, w: 80, d: 32 }),
    add('person', 'ada', { name: 'Ada Fenn', initials: 'AF' }),
    add('person', 'bo', { name: 'Bo Marl', initials: 'BM' }),
    add('section', 'a', { letter: 'A', name: 'West', x: 0, y: 0, w: 32, d: 32, owner: 'ada' }),
    add('section', 'b', { letter: 'B', name: 'East', x: 32, y: 0, w: 48, d: 32, owner: 'bo' }),
    add('module', 'a1', { name: 'A1', x: 0, y: 0, w: 32, d: 32, bases: [] }),
    add('module', 'b1', { name: 'B1', x: 32, y: 0, w: 32, d: 32, bases: [] }),
    add('pad', 'field', { name: 'Field', x: 0, y: 0, w: 80, d: 32, level: 'street', ground: 'grass' }),
    add('hill', 'knoll', {
      name: 'Knoll',
      x: 2,
      y: 2,
      w: 26,
      d: 26,
      level: 'street',
      height: 30,
      shape: 'oval',
    }),
    add('way', 'lane', {
      name: 'Lane',
      points: [
        { x: 32, y: 28 },
        { x: 80, y: 28 },
      ],
      width: 6,
    }),
    ...more,
  ]);
  if (!made.ok) throw new Error(made.refusal.sentence);
  return made.scene;
}
