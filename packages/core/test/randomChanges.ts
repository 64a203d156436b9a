import fc from 'fast-check';
import { KIND_NAMES, listOf, type Change, type Kind, type Scene } from '../src/document/index.ts';

export interface RandomAct {
  kind: number;
  which: number;
  act: number;
}

/** Some changes one after the other. */
export const randomActs: fc.Arbitrary<RandomAct[]> = fc.array(
  fc.record({ kind: fc.nat(), which: fc.nat(), act: fc.nat(4) }),
  { minLength: 1, maxLength: 6 },
);

/** Moves, raises, renames, removes or otherwise changes one of the things there are. */
export function changeOf(scene: Scene, { kind, which, act }: RandomAct): Change | null {
  const kinds = KIND_NAMES.filter((name) => name !== 'display' && listOf(scene, name).length > 0);
  if (kinds.length === 0) return null;
  const name: Kind = kinds[kind % kinds.length];
  const list = listOf(scene, name);
  const thing = list[which % list.length];
  const at = { kind: name, id: thing.id, v: thing.v };
  if (act === 0) return { op: 'remove', ...at };
  if (act === 1 && 'x' in thing && typeof thing.x === 'number')
    return { op: 'patch', ...at, set: { x: thing.x + 1.5 } };
  if (act === 2 && 'height' in thing && typeof thing.height === 'number')
    return { op: 'patch', ...at, set: { height: thing.height + 3 } };
  if (act === 3 && 'method' in thing)
    return { op: 'patch', ...at, set: { method: thing.method === 'raft' ? 'solid' : 'raft' } };
  if (act === 3 && 'struck' in thing) return { op: 'patch', ...at, set: { struck: ['n', 'e'] } };
  if (act === 3 && 'coverUnder' in thing)
    return { op: 'patch', ...at, set: { coverUnder: !thing.coverUnder } };
  return { op: 'patch', ...at, set: { name: `Other ${which % 7}` } };
}
