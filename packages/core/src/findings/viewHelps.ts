import { countOf, intersection, type Rect } from '../grid/index.ts';
import {
  labelOf,
  listOf,
  moveAll,
  placeIn,
  plotBounds,
  reduce,
  type EntityRef,
  type Scene,
} from '../document/index.ts';
import { groundAt, indexAt, recompile, type Compiled, type Relief } from '../terrain/index.ts';
import { Lookout, publicEyes, type LookedAt, type Seen } from '../visibility/index.ts';
import { evaluateRules } from './evaluator.ts';
import { isWorse } from './fixes.ts';
import { turnBoard } from './signboards.ts';
import { COMPASS_WAYS, moveFix, patch, turnFixes, type Fix } from './fix.ts';

// What frees the view of a building or a small scene: moves, turns and lower trees, each tried on the whole scene.

/** A fix before it is tried; of a group the best is offered. */
interface Proposed extends Fix {
  group: string;
}

/** A change after which more of a thing is seen. */
export interface ViewHelp extends Fix {
  /** Share of the lines to it that are free then, the mean of all watchers, 0 to 1. */
  free: number;
}

/** How far things are moved, studs. */
const MOVES = [8, 16, 24] as const;
/** So many places all over the display are tried, each some whole eights of studs from the next. */
const MAX_PLACES = 60;
const PLACE_STEP = 8;
/** Trees are lowered to these shares of their height. */
const LOWER = [2 / 3, 1 / 2] as const;
/** Of so many things that hide it changes are tried, and so many helps are offered. */
const HIDERS = 2;
const OFFERED = 4;
/** Of a group so many are judged by all rules, the best first. */
const MAX_TRIES = 8;
/** Less than this is no help, share of all lines. */
const LEAST = 0.03;

/**
 * Changes that free the view of a thing, the most first: of itself (near moves and turns, and the best place anywhere on the
 * display) and of what hides most of it. Each is compiled and looked at; of those that are offered every rule was asked, and none tells another error or warning.
 * @param today ISO date for the rules about dates
 * @param onProgress receives how much of it is tried, 0 to 1
 * @returns none where nothing helps, or where it is not said who looks
 */
export function viewHelps(
  compiled: Compiled,
  { kind, id }: { kind: LookedAt; id: string },
  today: string,
  onProgress: (share: number) => void = () => undefined,
): ViewHelp[] {
  const { scene, relief } = compiled;
  const seenIn = ({ scene: of, relief: over }: Compiled): Seen | null => {
    const eyes = publicEyes(of, over);
    return eyes && new Lookout(of, over, eyes).look(kind, id);
  };
  const now = seenIn(compiled);
  if (!now) return [];
  const hiders = now.hiders.filter(({ isStanding }) => isStanding).slice(0, HIDERS);
  const proposed = [
    ...[{ kind, id }, ...hiders].flatMap((ref) => changesOf(scene, ref)),
    ...placesFor(scene, relief, { kind, id }),
  ];
  const helps = proposed.flatMap((fix, i) => {
    onProgress((0.7 * i) / proposed.length);
    const done = fix.changes.length > 0 ? reduce(scene, fix.changes) : null;
    if (!done?.ok) return [];
    const then = recompile(compiled, done.scene).compiled;
    const seen = seenIn(then);
    const free = seen?.mean ?? 0;
    return free >= now.mean + LEAST ? [{ ...fix, free, then }] : [];
  });
  const before = new Map(evaluateRules(scene, { relief, today }).map((one) => [one.key, one]));
  const offered: ViewHelp[] = [];
  const groups = new Set<string>();
  const tries = new Map<string, number>();
  // Of those that free as much the first, which changes least.
  for (const { then, group, ...help } of helps.toSorted((a, b) => b.free - a.free)) {
    if (offered.length === OFFERED) break;
    const tried = tries.get(group) ?? 0;
    if (groups.has(group) || tried === MAX_TRIES) continue;
    tries.set(group, tried + 1);
    const found = evaluateRules(then.scene, { relief: then.relief, today });
    if (found.some((one) => isWorse(one, before.get(one.key), help))) continue;
    groups.add(group);
    offered.push(help);
    onProgress(0.7 + (0.3 * offered.length) / OFFERED);
  }
  return offered;
}

/**
 * Places all over the display where a thing would lie wholly on it, clear of every building: on an even grid that is as
 * fine as MAX_PLACES allow, the nearest first.
 */
function placesFor(scene: Scene, relief: Relief, ref: EntityRef): Proposed[] {
  const own = placeIn(scene, ref.kind, ref.id);
  if (!own) return [];
  const plot = ref.kind === 'plot' ? scene.plot[ref.id] : undefined;
  const bounds = plot ? plotBounds(plot) : own;
  const others = listOf(scene, 'plot').flatMap((one) => (one === plot ? [] : [plotBounds(one)]));
  const isFree = (at: Rect) =>
    others.every((other) => intersection(at, other) === null) &&
    [at.x, at.x + at.w - 1].every((x) =>
      [at.y, at.y + at.d - 1].every((y) => groundAt(relief, indexAt(relief, x, y)) !== null),
    );
  let step = PLACE_STEP;
  while (Math.ceil(relief.w / step) * Math.ceil(relief.d / step) > MAX_PLACES) step += PLACE_STEP;
  const ways: { dx: number; dy: number }[] = [];
  for (let y = relief.y; y < relief.y + relief.d; y += step)
    for (let x = relief.x; x < relief.x + relief.w; x += step) {
      // Whole studs from where it is, so that what stands on half studs still does.
      const [dx, dy] = [Math.round(x - bounds.x), Math.round(y - bounds.y)];
      if ((dx !== 0 || dy !== 0) && isFree({ ...bounds, x: bounds.x + dx, y: bounds.y + dy }))
        ways.push({ dx, dy });
    }
  const name = labelOf(scene, ref.kind, ref.id);
  return ways
    .toSorted((a, b) => Math.hypot(a.dx, a.dy) - Math.hypot(b.dx, b.dy))
    .map(({ dx, dy }) => ({
      words: `Move ${name} ${wayWords(dx, dy)}`,
      changes: moveAll(scene, [ref], dx, dy),
      group: `${ref.id} anywhere`,
    }));
}

/** “96 studs east and 32 studs south”. */
function wayWords(dx: number, dy: number): string {
  const parts = [
    ...(dx === 0 ? [] : [`${countOf(Math.abs(dx), 'stud')} ${dx > 0 ? 'east' : 'west'}`]),
    ...(dy === 0 ? [] : [`${countOf(Math.abs(dy), 'stud')} ${dy > 0 ? 'south' : 'north'}`]),
  ];
  return parts.join(' and ');
}

/** Moves of a thing, turns of a building, lower trees. */
function changesOf(scene: Scene, ref: EntityRef): Proposed[] {
  const moves = MOVES.flatMap((by) =>
    COMPASS_WAYS.map((way) => ({ ...moveFix(scene, ref, by, way), group: `${ref.id} ${way}` })),
  );
  const plot = ref.kind === 'plot' ? scene.plot[ref.id] : undefined;
  const sign = ref.kind === 'signboard' ? scene.signboard[ref.id] : undefined;
  const tree = ref.kind === 'tree' ? scene.tree[ref.id] : undefined;
  const name = labelOf(scene, ref.kind, ref.id);
  return [
    ...moves,
    ...(plot ? turnFixes(plot).map((fix) => ({ ...fix, group: `${ref.id} turned` })) : []),
    ...(sign ? turnBoard(scene, sign).map((fix) => ({ ...fix, group: `${ref.id} turned` })) : []),
    ...(tree
      ? LOWER.map((share) => Math.max(1, Math.round(tree.height * share))).map((height) => ({
          words: `Make ${name} ${countOf(height, 'plate')} tall instead of ${tree.height}`,
          changes: [patch('tree', tree, { height })],
          group: `${ref.id} lower`,
        }))
      : []),
  ];
}
