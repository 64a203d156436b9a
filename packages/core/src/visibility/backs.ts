import { ANY_COLOUR } from '../catalogue/index.ts';
import {
  SIDES,
  displayOf,
  isRound,
  listOf,
  turnedSide,
  type Change,
  type Entity,
  type Scene,
  type Side,
} from '../document/index.ts';
import { priceOfPart } from '../masonry/index.ts';
import { listOfBuilding, shellPieces } from '../structures/index.ts';
import { dequal } from 'dequal/lite';
import type { SeenThing } from './targets.ts';

// Backs of buildings that nobody sees: their walls may be of any colour.

/** A building with sides that nobody sees, and what it frees to leave them bare. */
export interface HiddenBack {
  /** The building's id. */
  id: string;
  /** Of the unturned building. */
  sides: Side[];
  /** Pieces of walls that may be of any colour then, and what they cost to buy, money of the display. */
  pieces: number;
  worth: number;
}

/** Nearer than this to half a quarter turn no side is nearest to a point of the compass, degrees. */
const ASKEW = 1;

/** Buildings with sides that nobody sees, those that free most pieces first. Round ones have no sides. @param things as `Sight` has them */
export function hiddenBacks(scene: Scene, things: readonly SeenThing[]): HiddenBack[] {
  return things
    .flatMap(({ kind, id, sides }): HiddenBack[] => {
      const plot = kind === 'plot' ? scene.plot[id] : undefined;
      if (!plot || isRound(plot) || Math.abs((plot.turn % 90) - 45) < ASKEW) return [];
      const hidden = SIDES.filter((side) => {
        const towards = turnedSide(side, plot.turn);
        return sides.every((one) => one.side !== towards || one.free === 0);
      });
      const { pieces, worth } = freedBy(scene, plot, hidden);
      return pieces > 0 ? [{ id, sides: hidden, pieces, worth }] : [];
    })
    .toSorted((a, b) => b.pieces - a.pieces || (a.id < b.id ? -1 : 1));
}

/** Pieces of any colour with some sides bare, against none. */
function freedBy(
  scene: Scene,
  plot: Entity<'plot'>,
  bareSides: Side[],
): Pick<HiddenBack, 'pieces' | 'worth'> {
  const rules = displayOf(scene);
  const sum = { pieces: 0, worth: 0 };
  for (const [sign, sides] of [
    [1, bareSides],
    [-1, []],
  ] as const)
    for (const { part, colour, qty } of shellPieces({ ...plot, bareSides: [...sides] }, rules)) {
      if (colour !== ANY_COLOUR) continue;
      sum.pieces += sign * qty;
      sum.worth += sign * qty * priceOfPart(part, scene.partType).price;
    }
  return sum;
}

/** Whether these backs are bare already, and no others. */
export function areBare(scene: Scene, backs: readonly HiddenBack[]): boolean {
  const sidesOf = new Map(backs.map(({ id, sides }) => [id, sides]));
  return listOf(scene, 'plot').every(({ id, bareSides }) => dequal(sidesOf.get(id) ?? [], bareSides));
}

/** Changes after which these backs are bare, and no others; lists that a building's pieces made are made again. */
export function backChanges(scene: Scene, backs: readonly HiddenBack[]): Change[] {
  const sidesOf = new Map(backs.map(({ id, sides }) => [id, sides]));
  const rules = displayOf(scene);
  return listOf(scene, 'plot').flatMap((plot): Change[] => {
    const bareSides = sidesOf.get(plot.id) ?? [];
    if (dequal(bareSides, plot.bareSides)) return [];
    const counting = listOfBuilding(scene, plot);
    const isOwn = counting?.isOwn === true && dequal(counting.list.lines, shellPieces(plot, rules));
    return [
      { op: 'patch', kind: 'plot', id: plot.id, v: plot.v, set: { bareSides } },
      ...(isOwn
        ? [
            {
              ...{ op: 'patch' as const, kind: 'partList' as const },
              ...{ id: counting.list.id, v: counting.list.v },
              set: { lines: shellPieces({ ...plot, bareSides }, rules) },
            },
          ]
        : []),
    ];
  });
}
