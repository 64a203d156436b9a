import type { Rect } from '@quarry/core/lattice';
import { displayOf, listOf, padsInOrder, type Change, type Scene } from '@quarry/core/scene';
import { hereOf } from '@quarry/core/site';
import type { Drawn } from '../../board/Board.tsx';

interface DrawnThing {
  words: string;
  data: Record<string, unknown>;
  /** Changes that must come first, such as a level for the first pad. */
  before: Change[];
}

/** The next letter that no section has: A, B, … Z, AA … */
function nextLetter(scene: Scene): string {
  const used = new Set(listOf(scene, 'section').map(({ letter }) => letter));
  const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  return [...letters, ...letters.map((letter) => `A${letter}`)].find((letter) => !used.has(letter)) ?? '?';
}

/** What a newly drawn thing is until somebody says more: sensible, named, and easy to change. */
export function drawnData(scene: Scene, kind: Drawn, place: Rect): DrawnThing {
  const name = (word: string) => `${word} ${listOf(scene, kind).length + 1}`;
  const known = listOf(scene, 'level');
  switch (kind) {
    case 'footprint':
      return { words: 'a footprint part', data: { name: name('Part'), ...place }, before: [] };
    case 'table':
      return {
        words: 'a table',
        data: {
          name: name('Table'),
          ...place,
          height: hereOf(scene, 'table')[0]?.height ?? 740,
          place: displayOf(scene).place,
        },
        before: [],
      };
    case 'plot':
      return { words: 'a plot', data: { name: name('Plot'), ...place, height: 30, storeys: 2 }, before: [] };
    case 'section':
      return {
        words: 'a section',
        data: { letter: nextLetter(scene), name: name('Section'), ...place },
        before: [],
      };
    case 'pad': {
      const last = padsInOrder(scene).at(-1)?.order ?? 0;
      const before: Change[] =
        known.length > 0
          ? []
          : [{ op: 'add', kind: 'level', id: 'ground', data: { name: 'Ground', height: 3 } }];
      return {
        words: 'a pad',
        data: {
          name: name('Pad'),
          ...place,
          level: known[0]?.id ?? 'ground',
          ground: 'grass',
          order: Math.min(100_000, last + 10),
        },
        before,
      };
    }
  }
}
