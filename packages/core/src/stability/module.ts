import { gramsOfPart, isStudded } from '../catalogue/index.ts';
import { countOf, intersection, type Rect } from '../grid/index.ts';
import { displayOf, labelOf, listOf, reduce, type Change, type Scene } from '../document/index.ts';
import {
  NO_SLAB,
  OUTSIDE,
  compile,
  eachStudOf,
  indexAt,
  loadsOf,
  loadsOn,
  type Compiled,
} from '../terrain/index.ts';
import { builtBlocks, pieceId, type Built } from '../masonry/index.ts';
import { judge, type JudgeOptions, type GroupStanding } from './judge.ts';
import type { PieceGroup, PieceOwner, StandingPiece, StudLoad } from './joints.ts';
import { mendsOf, trialsWithin, worstPieces, type Mend } from './mend.ts';

/** A joint that needs some of its hold, in words. Places in studs, heights in plates above datum. */
export interface WeakJoint extends Rect {
  z: number;
  /** Share of its hold that it needs: over 1 it comes apart; Infinity: a piece that nothing ties to the base. */
  share: number;
  /** Parts that meet there; `lower` null: the base, or the ground it is let into. */
  upper: string;
  lower: string | null;
  /** What the upper piece belongs to; null: the ground. */
  of: (PieceOwner & { name: string }) | null;
  /** The counting block that the upper piece is laid in; null: of none. */
  block: string | null;
}

/** What can be changed in the plan so that it stands, tried on the whole of it. */
export interface PlanMend {
  words: string;
  changes: Change[];
  used: number;
}

/** What is judged by its pieces: modules, and decks that lift off. */
export interface JudgedRef {
  kind: 'module' | 'deck';
  id: string;
}

/** Everything in a scene that is judged by its pieces: its modules, then the decks that lift off. */
export const judgedThings = (scene: Scene): JudgedRef[] => [
  ...listOf(scene, 'module').map(({ id }) => ({ kind: 'module' as const, id })),
  ...listOf(scene, 'deck').flatMap(({ id, loose }) => (loose ? [{ kind: 'deck' as const, id }] : [])),
];

/** How a module, or a deck that lifts off, stands. */
export interface CarriedStanding extends JudgedRef, Omit<GroupStanding, 'weakest' | 'loose'> {
  name: string;
  /** Pieces that nothing ties to the base. */
  loose: number;
  weakest: WeakJoint[];
  /** With pieces added; and with the plan changed. Empty where it stands. */
  mends: Mend[];
  planMends: PlanMend[];
}

/** How it is with one: forces that balance it were found; it is proven that there are none; neither in the time there was. */
export type Verdict = 'stands' | 'falls' | 'open';
export const verdictOf = ({ used, bound }: Pick<GroupStanding, 'used' | 'bound'>): Verdict =>
  used <= 1 ? 'stands' : bound > 1 ? 'falls' : 'open';

/**
 * Judges a module, or a deck that lifts off, by its counted pieces, and where it falls looks for what mends it.
 * @returns null for one there is none of, and when it was ended
 */
export function judgeCarried(
  scene: Scene,
  compiled: Compiled,
  ref: JudgedRef,
  options: Omit<JudgeOptions, 'hold'>,
): CarriedStanding | null {
  const group = piecesOf(scene, compiled, ref);
  const all = { ...options, hold: displayOf(scene).studHold };
  const standing = group && judge(group, all);
  if (!standing) return null;
  const falls = verdictOf(standing) === 'falls';
  const { loose, weakest, ...rest } = standing;
  const fallen = loose.map((piece) => weakJoint(scene, group, piece, null, Infinity));
  return {
    ...{ ...ref, name: scene[ref.kind][ref.id].name, ...rest, loose: loose.length },
    weakest: [
      ...fallen.slice(0, MAX_FALLEN),
      ...weakest.map((joint) => weakJoint(scene, group, joint.upper, joint, joint.share)),
    ],
    mends: falls ? mendsOf(group, standing, all) : [],
    planMends: falls ? planMends(scene, ref, group, standing, all) : [],
  };
}

/** How many pieces that fall are listed. */
const MAX_FALLEN = 6;

function weakJoint(
  scene: Scene,
  { pieces }: PieceGroup,
  piece: number,
  joint: { x: number; y: number; w: number; d: number; z: number; lower: number } | null,
  share: number,
): WeakJoint {
  const upper = pieces[piece];
  const { x, y, w, d, z } = joint ?? upper;
  const lower = joint && joint.lower >= 0 ? pieces[joint.lower].part : null;
  const of = upper.of ? { ...upper.of, name: labelOf(scene, upper.of.kind, upper.of.id) } : null;
  return { x, y, w, d, z, share, upper: upper.part, lower, of, block: upper.block ?? null };
}

/** Tries what can be changed in the decks, bridges and roofs that the worst pieces belong to. */
function planMends(
  scene: Scene,
  ref: JudgedRef,
  { pieces }: PieceGroup,
  standing: GroupStanding,
  options: JudgeOptions,
): PlanMend[] {
  const owners = new Map(
    worstPieces(standing).flatMap((piece) => {
      const { of } = pieces[piece];
      return of ? [[`${of.kind} ${of.id}`, of] as const] : [];
    }),
  );
  const trial = trialsWithin(options);
  return [...owners.values()].flatMap((owner) => {
    // Of each kind of change the smallest that does.
    const found = new Map<string, PlanMend>();
    for (const { what, words, changes } of changesOf(scene, owner)) {
      if (found.has(what)) continue;
      const after = reduce(scene, changes);
      if (!after.ok) continue;
      const group = piecesOf(after.scene, compile(after.scene), ref);
      const used = group ? trial(group) : Infinity;
      if (used <= 1) found.set(what, { words, changes, used });
    }
    return [...found.values()];
  });
}

/** Changes of what lies over air that may make it stand, by kind of change, the smallest first. */
function* changesOf(
  scene: Scene,
  { kind, id }: PieceOwner,
): Generator<{ what: string; words: string; changes: Change[] }> {
  const name = labelOf(scene, kind, id);
  if (kind === 'deck') {
    const deck = scene.deck[id];
    const patch = (what: string, words: string, to: Partial<typeof deck>) => ({
      ...{ what, words },
      changes: [{ op: 'patch' as const, kind, id, v: deck.v, set: to }],
    });
    for (const thick of [1, 2, 3].map((more) => deck.thick + more))
      yield patch('thick', `Make “${name}” ${thick} plates thick`, { thick });
    for (const spacing of [0.75, 0.5, 0.25].map((share) => Math.max(2, Math.round(deck.spacing * share))))
      if (spacing < deck.spacing)
        yield patch(
          'spacing',
          `Carry “${name}” by ${deck.support === 'ends' ? 'pillars' : deck.support} each ${spacing} studs`,
          {
            spacing,
            support: deck.support === 'ends' ? 'pillars' : deck.support,
          },
        );
    if (deck.support !== 'walls') yield patch('walls', `Carry “${name}” by walls`, { support: 'walls' });
    return;
  }
  if (kind === 'cavity') {
    const cavity = scene.cavity[id];
    for (const by of [1, 2, 3].filter((less) => less < cavity.clear))
      yield {
        ...{ what: 'clear', words: `Make “${name}” ${countOf(by, 'plate')} lower inside` },
        changes: [{ op: 'patch', kind, id, v: cavity.v, set: { clear: cavity.clear - by } }],
      };
    return;
  }
  const over = scene[kind][id];
  const patch = (what: string, words: string, set: { bridgeThick: number } | { pierEvery: number }) => ({
    ...{ what, words },
    changes: [{ op: 'patch' as const, kind, id, v: over.v, set }],
  });
  for (const bridgeThick of [1, 2, 3].map((more) => over.bridgeThick + more))
    yield patch('thick', `Make the bridge of “${name}” ${bridgeThick} plates thick`, { bridgeThick });
  for (const pierEvery of [0.75, 0.5, 0.25].map((share) => Math.max(2, Math.round(over.pierEvery * share))))
    if (pierEvery < over.pierEvery)
      yield patch('piers', `Stand a pier of “${name}” each ${pierEvery} studs`, { pierEvery });
}

const piecesOf = (scene: Scene, compiled: Compiled, { kind, id }: JudgedRef): PieceGroup | null =>
  kind === 'module' ? piecesOfModule(scene, compiled, id) : piecesOfDeck(scene, compiled, id);

// A module as it stands: the pieces of its ground, its share of decks and bridges, and what presses on them.

/**
 * The pieces of a module with what presses on them; null for a module there is none of. What lies over several modules
 * because it lifts off is a load on them. Its cost is that of counting the module.
 */
export function piecesOfModule(scene: Scene, compiled: Compiled, id: string): PieceGroup | null {
  const module = Object.hasOwn(scene.module, id) ? scene.module[id] : undefined;
  if (!module) return null;
  const pieces: StandingPiece[] = [];
  const loads: StudLoad[] = [];
  let floor = 0;
  for (const built of builtBlocks(
    scene,
    compiled,
    (block) => block.id === id || (block.part?.module === id && !block.part.loose),
  )) {
    if (!built.ground.block.part) floor = built.ground.floor;
    addPieces(built, scene, pieces, loads);
  }
  addLoads(scene, compiled, module, loads);
  return { pieces, loads, floor, sockets: socketsOf(compiled, module) };
}

/**
 * The pieces of a deck that lifts off, on feet that bear it and do not hold it, with the buildings that are pinned to it
 * or stand on it; null for a deck that does not lift off. Trees, figures and what else stands on it are left out.
 */
export function piecesOfDeck(scene: Scene, compiled: Compiled, id: string): PieceGroup | null {
  const deck = Object.hasOwn(scene.deck, id) ? scene.deck[id] : undefined;
  if (!deck?.loose) return null;
  const pieces: StandingPiece[] = [];
  const loads: StudLoad[] = [];
  for (const built of builtBlocks(scene, compiled, ({ part }) => part?.kind === 'deck' && part.thing === id))
    addPieces(built, scene, pieces, loads);
  const { relief } = compiled;
  for (const load of loadsOn(scene, relief, { kind: 'deck', id })) loads.push(load);
  const sockets: { x: number; y: number; z: number }[] = [];
  for (const slab of relief.slabs)
    if (slab.kind === 'deck' && slab.id === id)
      eachStudOf(slab, (k, x, y) => {
        if (slab.foot[k] !== NO_SLAB) sockets.push({ x, y, z: slab.foot[k] });
        else if (slab.borne[k]) sockets.push({ x, y, z: slab.under[k] });
      });
  const floor = sockets.reduce((least, { z }) => Math.min(least, z), Infinity);
  return { pieces, loads, floor: Number.isFinite(floor) ? floor : 0, sockets, isLoose: true };
}

function addPieces(
  { ground, masonry, accents }: Built,
  scene: Scene,
  pieces: StandingPiece[],
  loads: StudLoad[],
): void {
  const { block, floor } = ground;
  const of = block.part ? { kind: block.part.kind, id: block.part.thing } : undefined;
  for (const layer of masonry.layers) {
    const { laid, z, h } = layer;
    for (let p = 0; p < laid.length; p += 4) {
      const [x, y, w, d] = [laid[p], laid[p + 1], laid[p + 2], laid[p + 3]];
      const part = pieceId(layer, w, d);
      pieces.push({
        ...{ x: block.x + x, y: block.y + y, w, d, z: floor + z, h, part },
        ...{ grams: gramsOfPart(part, scene.partType), studded: isStudded(part), block: block.id },
        ...(of ? { of } : {}),
      });
    }
  }
  for (const { part, x, y, z } of accents)
    loads.push({
      ...{ x: block.x + x + 0.5, y: block.y + y + 0.5, z: floor + z },
      grams: gramsOfPart(part, scene.partType),
    });
}

/** What stands on a module, stud by stud; what stands over another at one stud presses at the height of both. */
function addLoads(scene: Scene, { relief }: Compiled, module: Rect, loads: StudLoad[]): void {
  const { fixed, loose } = loadsOf(scene, relief);
  const on = intersection(module, relief);
  if (!on) return;
  for (let y = on.y; y < on.y + on.d; y++)
    for (let x = on.x; x < on.x + on.w; x++) {
      const i = indexAt(relief, x, y);
      const grams = fixed.grams[i] + loose.grams[i];
      if (grams > 0 && relief.ground[i] !== OUTSIDE)
        loads.push({ x: x + 0.5, y: y + 0.5, z: (fixed.moment[i] + loose.moment[i]) / grams, grams });
    }
}

/** Studs of roofs and bridges that are carried by solid ground beside them. */
function socketsOf({ relief }: Compiled, module: Rect): PieceGroup['sockets'] {
  const sockets: { x: number; y: number; z: number }[] = [];
  for (const slab of relief.slabs) {
    if (slab.kind === 'deck' || !intersection(slab, module)) continue;
    eachStudOf(slab, (k, x, y) => {
      if (slab.borne[k] && slab.foot[k] === NO_SLAB) sockets.push({ x, y, z: slab.under[k] });
    });
  }
  return sockets;
}
