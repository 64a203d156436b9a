import {
  KINDS,
  displayOf,
  listOf,
  isShellList,
  type Change,
  type Entity,
  type Scene,
} from '../document/index.ts';
import { shellOf } from '../terrain/index.ts';
import { listOfBuilding, shellList } from './lists.ts';
import { PLAIN_SHAPES } from './plainShapes.ts';
import { shellPieces } from './shell.ts';

// A building becomes another one on its place: a plain shape, or a kept piece that is one building.

/** What a building may become. */
export interface SwapChoice {
  from: 'shape' | 'piece';
  id: string;
  name: string;
}

/** Plain shapes, and kept pieces that are one building. */
export const swapChoices = (scene: Pick<Scene, 'piece'>): SwapChoice[] => [
  ...PLAIN_SHAPES.map(({ id, name }): SwapChoice => ({ from: 'shape', id, name })),
  ...listOf(scene, 'piece')
    .filter(({ things }) => things.length === 1 && things[0].kind === 'plot')
    .map(({ id, name }): SwapChoice => ({ from: 'piece', id, name })),
];

/** What of a building stays when it becomes another one: what it is called, how it is turned and what it stands on. */
const STAYING = ['name', 'turn', 'notes', 'onGround', 'onDeck', 'inCavity', 'onPlot', 'onRun'];

/**
 * A building as another one, its middle where it was, on half studs. The list that its shell made is made again; a list of
 * another name stays, as it may be of what is built.
 * @returns the changes and the building as it is then; or why it cannot be
 */
export function swapBuilding(
  scene: Scene,
  plot: Entity<'plot'>,
  { from, id }: Pick<SwapChoice, 'from' | 'id'>,
): { ok: true; changes: Change[]; plot: Entity<'plot'> } | { ok: false; error: string } {
  const wanted =
    from === 'shape' ? PLAIN_SHAPES.find((shape) => shape.id === id)?.plot : scene.piece[id]?.things[0]?.data;
  if (!wanted) return { ok: false, error: 'What it was to become is not there any more.' };
  const staying = Object.fromEntries(Object.entries(plot).filter(([field]) => STAYING.includes(field)));
  const read = KINDS.plot.schema.safeParse({ ...wanted, ...staying, x: 0, y: 0 });
  if (!read.success) return { ok: false, error: `It is no building of this version: ${read.error.message}` };
  const half = (at: number) => Math.round(2 * at) / 2;
  const set = {
    ...read.data,
    x: half(plot.x + (plot.w - read.data.w) / 2),
    y: half(plot.y + (plot.d - read.data.d) / 2),
  };
  const swapped: Entity<'plot'> = { ...plot, ...set };
  const counting = listOfBuilding(scene, plot);
  const isShell = counting?.isOwn === true && isShellList(counting.list, plot);
  return {
    ok: true,
    plot: swapped,
    changes: [
      { op: 'patch', kind: 'plot', id: plot.id, v: plot.v, set },
      ...(isShell
        ? [
            {
              ...{
                op: 'patch' as const,
                kind: 'partList' as const,
                id: counting.list.id,
                v: counting.list.v,
              },
              set: { lines: shellList(scene, swapped).lines },
            },
          ]
        : []),
    ],
  };
}

/** What a building comes to. */
export interface BuildingSum {
  /** Studs, and plates to its planned top. */
  w: number;
  d: number;
  height: number;
  /** Pieces and grams of its plain shell. */
  pieces: number;
  grams: number;
}

/** A building beside what it would become. */
export interface SwapCard {
  changes: Change[];
  now: BuildingSum;
  then: BuildingSum;
}

/** What it comes to when a building becomes another one; an error as `swapBuilding` has it. */
export function swapCard(
  scene: Scene,
  plot: Entity<'plot'>,
  choice: Pick<SwapChoice, 'from' | 'id'>,
): { ok: true; card: SwapCard } | { ok: false; error: string } {
  const swapped = swapBuilding(scene, plot, choice);
  if (!swapped.ok) return swapped;
  const sumOf = (one: Entity<'plot'>): BuildingSum => ({
    ...{ w: one.w, d: one.d, height: one.height, grams: shellOf(one).grams },
    pieces: shellPieces(one, displayOf(scene)).reduce((sum, { qty }) => sum + qty, 0),
  });
  return { ok: true, card: { changes: swapped.changes, now: sumOf(plot), then: sumOf(swapped.plot) } };
}
