/** Whether modules of thousands of pieces stand: a hollow hill, and a wide deck on few pillars that has to be proven. */
import loadHighs from 'highs';
import { compile } from '../packages/core/src/terrain/index.ts';
import { judge, piecesOfModule } from '../packages/core/src/stability/index.ts';
import { sceneFrom } from '../packages/core/src/document/index.ts';
import type { Row } from './table.ts';

type Given = Parameters<typeof sceneFrom>[0];
/** One module of 96 × 48 studs on a brick of ground. */
const moduleOf = (more: Partial<Given>): Given => ({
  display: { name: 'Module', kind: 'diorama' },
  levels: [{ id: 'low', name: 'Low', height: 0 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  pads: [{ id: 'p', name: 'Pad', x: 0, y: 0, w: 96, d: 48, level: 'low', offset: 3, ground: 'grass' }],
  modules: [{ id: 'm', name: 'A1', x: 0, y: 0, w: 96, d: 48, bases: [] }],
  ...more,
});
const area = { x: 0, y: 0, w: 96, d: 48, level: 'low' };

const CASES: [string, Given][] = [
  [
    'a hollow hill',
    moduleOf({
      hills: [{ id: 'h', name: 'Hill', ...area, level: 'low', height: 60, ground: 'grass' }],
    }),
  ],
  [
    'a deck on pillars each 24 studs',
    moduleOf({ decks: [{ id: 'd', name: 'Deck', ...area, offset: 40, thick: 6, spacing: 24 }] }),
  ],
  [
    'a deck on pillars each 40 studs',
    moduleOf({ decks: [{ id: 'd', name: 'Deck', ...area, offset: 40, thick: 12, spacing: 40 }] }),
  ],
];

export async function benchStability(): Promise<Row[]> {
  const highs = await loadHighs();
  const now = () => performance.now();
  return CASES.flatMap(([name, given]): Row[] => {
    const scene = sceneFrom(given);
    const group = piecesOfModule(scene, compile(scene), 'm');
    if (!group) throw new Error('no module');
    const began = now();
    const standing = judge(group, { highs, hold: 100, time: { seconds: 10, now } });
    const seconds = (now() - began) / 1000;
    const { free = 0, solved = 0, bound = 0 } = standing ?? {};
    return [
      {
        what: `${name}: a module of ${group.pieces.length.toLocaleString('en')} pieces judged (${free} not borne straight down, ${solved} solved, at least ${Math.round(100 * bound)} % of the hold)`,
        measured: seconds,
        unit: 's',
        aim: 10,
        better: 'less',
      },
    ];
  });
}
