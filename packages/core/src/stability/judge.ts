import type { Highs } from 'highs';
import { ForceList, balance, type Assembly, type Equilibrium } from './equilibrium.ts';
import { JointGraph, LEAST_SHARE, type LoadedJoint } from './graph.ts';
import {
  addWeight,
  groundedOf,
  inMm,
  jointsOf,
  weightsOf,
  type Joint,
  type PieceGroup,
  type Weight,
} from './joints.ts';
import { settle } from './settle.ts';

// Whether a group of placed pieces stands. What is borne straight down counts as one with the base; what hangs on a
// single joint is folded into its neighbour; what rests passes its weight down by pushes; only what is left goes to the
// equilibrium program, with as much around it as it needs. Forces that balance everything prove that it stands; the
// program with the rest held fast proves what a part needs at least.

/** The judgement of a group of pieces. */
export interface GroupStanding {
  pieces: number;
  /** Pieces that are not borne straight down, and of these the ones that the equilibrium program solved. */
  free: number;
  solved: number;
  /** Indices of pieces that no joint ties to the base, even over others. */
  loose: number[];
  /** Share of the holds with which forces were found that balance everything; Infinity: none were found. */
  used: number;
  /** Share that is proven to be needed at least; Infinity: it falls whatever the hold. */
  bound: number;
  /** The joints that need most, the most loaded first. */
  weakest: LoadedJoint[];
}

export interface JudgeOptions {
  highs: Highs;
  /** What one stud holds, grams. */
  hold: number;
  /** What it may take, s, by a clock in ms; left out: as long as it needs. */
  time?: { seconds: number; now: () => number };
  /** Receives progress (pieces balanced, pieces to be balanced); returning false ends it. */
  onProgress?: (done: number, of: number) => boolean;
  /** How many joints are listed. */
  listed?: number;
}

/** The most pieces that one program solves: some seconds. */
const MAX_PART = 1200;

/**
 * Judges a group of pieces. Its cost is about that of counting them, and some milliseconds for each part that does not
 * simply rest.
 * @returns null when it was ended
 */
export function judge(group: PieceGroup, options: JudgeOptions): GroupStanding | null {
  const { pieces } = group;
  const { hold, listed = 12 } = options;
  const joints = jointsOf(group);
  const grounded = groundedOf(pieces, joints);
  const loose = looseOf(pieces.length, joints, grounded);
  const falls = new Set(loose);
  const graph = new JointGraph(pieces.length, joints, grounded, (piece) => falls.has(piece));
  const weights = weightsOf(group);
  const folded = graph.fold(weights, hold);
  const balanced = new Balancing(group, graph, weights, options).run();
  if (!balanced) return null;
  const loaded = [...folded, ...balanced.loaded];
  const shares = folded.map(({ share }) => share);
  const worst = loose.length > 0 ? Infinity : 0;
  return {
    pieces: pieces.length,
    free: grounded.reduce((sum, one) => sum + 1 - one, 0),
    ...{ solved: balanced.solved, loose },
    used: Math.max(worst, balanced.used, ...shares),
    bound: Math.max(worst, balanced.bound, ...shares),
    weakest: loaded.toSorted((a, b) => b.share - a.share).slice(0, listed),
  };
}

interface Balanced {
  used: number;
  bound: number;
  solved: number;
  loaded: LoadedJoint[];
}

/** Balances the pieces of a graph: from the top down by pushes, and in parts by the program where those do not do. */
class Balancing {
  /** Pieces that the program solves. */
  private readonly hard = new Set<number>();
  private readonly order: readonly number[];
  private readonly steps: Float64Array;
  private rounds = 0;
  /** Answers by the pieces of a part and what they bear: most parts stay the same from one round to the next. */
  private readonly known = new Map<string, Solved>();

  constructor(
    private readonly group: PieceGroup,
    private readonly graph: JointGraph,
    private readonly weights: readonly Weight[],
    private readonly options: JudgeOptions,
  ) {
    const { pieces } = group;
    this.steps = graph.stepsDown();
    this.order = graph.left.toSorted((a, b) => pieces[b].z - pieces[a].z);
  }

  run(): Balanced | null {
    const { onProgress = () => true, time } = this.options;
    const until = time ? time.now() + 1000 * time.seconds : Infinity;
    for (;;) {
      if (!onProgress(0, this.order.length)) return null;
      this.close();
      const weights = this.weights.map((weight) => ({ ...weight }));
      const after = this.graph.reach(this.hard, this.graph.below);
      if (this.add(this.rest(weights, (piece) => !after.has(piece)))) continue;
      const parts = this.graph.parts(this.hard);
      const answers: Solved[] = [];
      let grown = false;
      for (const part of parts) {
        const seconds = time ? (until - time.now()) / 1000 : Infinity;
        const answer = seconds > 0 ? this.solve(part, weights, seconds) : null;
        if (!answer) return { ...summed(answers), used: Infinity };
        answers.push(answer);
        grown ||= answer.answer.used > 1 && this.widen(part, answer.bound);
        if (!onProgress(this.order.length - this.hard.size + part.length, this.order.length)) return null;
      }
      // What is proven to come apart needs no more: what lies under it is not asked.
      if (answers.some(({ bound }) => bound > 1)) return { ...summed(answers), used: Infinity };
      if (grown) continue;
      if (this.add(this.rest(weights, (piece) => after.has(piece)))) continue;
      // Of a module that stands the bound of the part that needs most is told.
      const worst = answers.reduce((a, b) => (b.answer.used > a.answer.used ? b : a), answers[0]);
      const seconds = time ? Math.max(0.1, (until - time.now()) / 1000) : Infinity;
      return summed(answers.map((one) => (one === worst ? this.bounded(one, seconds) : one)));
    }
  }

  /** What lies both over and under what the program solves is solved with it, so that the rest has an order. */
  private close(): void {
    const { graph, hard } = this;
    const above = graph.reach(hard, graph.above);
    for (const piece of graph.reach(hard, graph.below)) if (above.has(piece)) hard.add(piece);
  }

  /** Lets pieces rest from the top down. @returns those whose weight is not within what they rest on */
  private rest(weights: readonly Weight[], isMeant: (piece: number) => boolean): number[] {
    const { graph, hard, steps } = this;
    const stepsOf = (piece: number) => (piece < 0 ? 0 : steps[piece]);
    return this.order.filter(
      (piece) =>
        !hard.has(piece) &&
        isMeant(piece) &&
        !settle(weights[piece], graph.under(piece), stepsOf, (lower, weight) =>
          addWeight(weights[lower], weight),
        ),
    );
  }

  /** Gives pieces to the program, with those around them, the more the longer it goes on. @returns whether there were any */
  private add(pieces: readonly number[]): boolean {
    if (pieces.length === 0) return false;
    this.rounds++;
    let ring: readonly number[] = pieces;
    for (let far = 0; far <= this.rounds / 4; far++) {
      for (const piece of ring) this.hard.add(piece);
      ring = [...new Set(ring.flatMap(this.graph.neighbours))].filter((piece) => !this.hard.has(piece));
    }
    for (const piece of ring) this.hard.add(piece);
    return true;
  }

  /** Takes in what touches a part that does not hold by itself, unless nothing would help or it becomes too large. */
  private widen(part: readonly number[], bound: number): boolean {
    if (bound > 1) return false;
    const wide = new Set(part);
    // Half as large again at least: each program takes longer than the one before.
    for (let last = 0; wide.size < 1.5 * part.length && wide.size > last;) {
      last = wide.size;
      for (const piece of [...wide]) for (const other of this.graph.neighbours(piece)) wide.add(other);
    }
    if (wide.size === part.length || wide.size > MAX_PART) return false;
    for (const piece of wide) this.hard.add(piece);
    return true;
  }

  /** Solves one part, and burdens what lies under it. @returns null when no answer was found */
  private solve(part: number[], weights: readonly Weight[], seconds: number): Solved | null {
    const bears = part.map(
      (piece) => `${piece} ${weights[piece].grams} ${weights[piece].mx} ${weights[piece].my}`,
    );
    const key = bears.join();
    const solved = this.known.get(key) ?? this.solved(part, weights, seconds);
    if (!solved) return null;
    this.known.set(key, solved);
    const own = new Set(part);
    let force = 0;
    for (const { lower, x, y, w, d, studs } of solved.joints) {
      const isOutside = lower >= 0 && !own.has(lower) && !this.graph.isGround(lower);
      for (const [fx, fy, sign] of forcesOf(studs)) {
        const grams = sign * (solved.answer.force[force++] ?? 0);
        if (isOutside)
          addWeight(weights[lower], { grams, mx: grams * (x + fx * w), my: grams * (y + fy * d) });
      }
    }
    return solved;
  }

  /** What lies on the part presses; what lies under it and is not of it counts as ground. */
  private solved(part: number[], weights: readonly Weight[], seconds: number): Solved | null {
    const { graph, group, options } = this;
    const { highs, hold } = options;
    const own = new Set(part);
    const all = graph.jointsOf(part);
    const joints = all.filter(({ upper }) => own.has(upper));
    const answer = balance(highs, assemblyOf(group, part, joints, weights, hold), { seconds });
    if (!answer) return null;
    const isAlone = answer.used <= LEAST_SHARE || joints.length === all.length;
    const solved = { part, joints, answer, bound: isAlone ? answer.used : 0 };
    return answer.used > 1 ? this.bounded(solved, seconds) : solved;
  }

  /** Works out what a part needs at least, with all that touches it held fast, where that is not known yet. */
  private bounded(solved: Solved, seconds: number): Solved {
    const { graph, group, options } = this;
    const { part, bound } = solved;
    if (bound > 0) return solved;
    const all = assemblyOf(group, part, graph.jointsOf(part), this.weights, options.hold);
    return { ...solved, bound: balance(options.highs, all, { seconds })?.used ?? 0 };
  }
}

interface Solved {
  part: number[];
  /** The joints under its pieces. */
  joints: Joint[];
  answer: Equilibrium;
  /** What it needs at least, however all around it stands. */
  bound: number;
}

function summed(answers: readonly Solved[]): Balanced {
  const loaded = answers.flatMap(({ joints, answer }) =>
    joints.flatMap((joint, k) =>
      answer.share[k] > LEAST_SHARE ? [{ ...joint, share: answer.share[k] }] : [],
    ),
  );
  const most = (shares: readonly number[]) => {
    const share = Math.max(0, ...shares);
    return share < LEAST_SHARE ? 0 : share;
  };
  return {
    used: most(answers.map(({ answer }) => answer.used)),
    bound: most(answers.map(({ bound }) => bound)),
    solved: answers.reduce((sum, { part }) => sum + part.length, 0),
    loaded,
  };
}

/**
 * Pushes at the corners of a joint and the pull of all its studs in its middle, as shares of its sides, with the sign.
 * A joint opens with no corner going in, so a pull spread over its studs is worth as much as one in its middle.
 */
function forcesOf(studs: number): (readonly [number, number, 1 | -1])[] {
  const pushes = [0, 1].flatMap((fx) => [0, 1].map((fy) => [fx, fy, 1] as const));
  return studs > 0 ? [...pushes, [0.5, 0.5, -1]] : pushes;
}

/** Bodies, loads and forces of one part; joints with pieces that are not of it are joints with the ground. */
function assemblyOf(
  { pieces }: Pick<PieceGroup, 'pieces'>,
  part: readonly number[],
  joints: readonly Joint[],
  weights: readonly Weight[],
  hold: number,
): Assembly {
  const bodyOf = new Map(part.map((piece, body) => [piece, body]));
  const centre = new Float64Array(3 * part.length);
  const load = new Float64Array(6 * part.length);
  part.forEach((piece, body) => {
    const { grams, mx, my } = weights[piece];
    const { x, y, w, d, z, h } = pieces[piece];
    // What weighs nothing has no centre of mass.
    const at = grams > 0 ? [mx / grams, my / grams] : [x + w / 2, y + d / 2];
    centre.set(inMm(at[0], at[1], z + h / 2), 3 * body);
    load[6 * body + 2] = -grams;
  });
  const list = new ForceList();
  joints.forEach(({ upper, lower, x, y, w, d, z, studs }, joint) => {
    const bodies = [bodyOf.get(upper) ?? -1, bodyOf.get(lower) ?? -1] as const;
    for (const [fx, fy, sign] of forcesOf(studs))
      list.add(
        joint,
        bodies,
        inMm(x + fx * w, y + fy * d, z),
        [0, 0, sign],
        sign > 0 ? Infinity : hold * studs,
      );
  });
  return { centre, load, joints: joints.length, forces: list.done() };
}

/** Pieces from which no chain of joints leads to what is grounded. */
function looseOf(count: number, joints: readonly Joint[], grounded: Uint8Array): number[] {
  const tied = grounded.slice();
  const near = Array.from({ length: count }, (): number[] => []);
  const queue: number[] = [];
  const tie = (piece: number) => {
    if (tied[piece]) return;
    tied[piece] = 1;
    queue.push(piece);
  };
  for (const { upper, lower } of joints) {
    if (lower < 0 || grounded[lower]) tie(upper);
    if (lower >= 0 && grounded[upper]) tie(lower);
    if (lower < 0) continue;
    near[upper].push(lower);
    near[lower].push(upper);
  }
  for (let head = 0; head < queue.length; head++) near[queue[head]].forEach(tie);
  return Array.from(tied.keys()).filter((piece) => !tied[piece]);
}
