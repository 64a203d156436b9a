import { addWeight, shareOfJoint, type Joint, type Weight } from './joints.ts';

/** A joint with the share of its studs' hold that it needs. */
export interface LoadedJoint extends Joint {
  /** 1: all the hold there is; over 1: it comes apart. */
  share: number;
}

/** Shares below this are of no account: figures of the solver. */
export const LEAST_SHARE = 1e-3;

/** The joints of pieces that do not count as ground, while they are folded and taken apart. */
export class JointGraph {
  private readonly at: Set<Joint>[];

  /**
   * @param joints all of the pieces; those between grounded pieces are left out
   * @param isLeftOut pieces that nothing ties to the base
   */
  constructor(
    count: number,
    joints: readonly Joint[],
    private readonly grounded: Uint8Array,
    isLeftOut: (piece: number) => boolean,
  ) {
    this.at = Array.from({ length: count }, () => new Set<Joint>());
    for (const joint of joints) {
      const ends = this.ends(joint);
      if (ends.some(isLeftOut)) continue;
      for (const piece of ends) this.at[piece].add(joint);
    }
  }

  isGround = (piece: number): boolean => piece < 0 || this.grounded[piece] === 1;

  /** The pieces of a joint that do not count as ground. */
  private ends({ upper, lower }: Joint): number[] {
    return [upper, lower].filter((piece) => !this.isGround(piece));
  }

  /**
   * Folds each piece that has a single joint into its neighbour, as long as there are such: its joint needs what it
   * needs, however the rest stands.
   * @param weights of all pieces; those of neighbours grow
   * @returns the joints that need some hold
   */
  fold(weights: readonly Weight[], hold: number): LoadedJoint[] {
    const loaded: LoadedJoint[] = [];
    const queue = Array.from(this.at.keys()).filter((piece) => this.at[piece].size === 1);
    for (let head = 0; head < queue.length; head++) {
      const piece = queue[head];
      const [joint] = this.at[piece];
      if (!joint) continue;
      const own = weights[piece];
      const pressed = joint.lower === piece ? { grams: -own.grams, mx: -own.mx, my: -own.my } : own;
      const share = shareOfJoint(joint, pressed, hold);
      if (share > LEAST_SHARE) loaded.push({ ...joint, share });
      this.at[piece].delete(joint);
      for (const other of this.ends(joint)) {
        if (other === piece) continue;
        addWeight(weights[other], own);
        this.at[other].delete(joint);
        if (this.at[other].size === 1) queue.push(other);
      }
    }
    return loaded;
  }

  /** Pieces that still have joints. */
  get left(): number[] {
    return Array.from(this.at.keys()).filter((piece) => this.at[piece].size > 0);
  }

  /** The joints under a piece. */
  under = (piece: number): Joint[] => [...this.at[piece]].filter(({ upper }) => upper === piece);

  /** The pieces that lie on it, and those under it that do not count as ground. */
  above = (piece: number): number[] =>
    [...this.at[piece]].flatMap(({ upper, lower }) =>
      lower === piece && !this.isGround(upper) ? [upper] : [],
    );
  below = (piece: number): number[] =>
    [...this.at[piece]].flatMap(({ upper, lower }) =>
      upper === piece && !this.isGround(lower) ? [lower] : [],
    );
  neighbours = (piece: number): number[] => [...this.above(piece), ...this.below(piece)];

  /** Over how many pieces each piece leads down to the ground: 0 counts as ground, Infinity leads nowhere. */
  stepsDown(): Float64Array {
    const steps = Float64Array.from(this.at, (_, piece) => (this.isGround(piece) ? 0 : Infinity));
    let ring = this.left.filter((piece) => this.under(piece).some(({ lower }) => this.isGround(lower)));
    for (let step = 1; ring.length > 0; step++) {
      for (const piece of ring) steps[piece] = Math.min(steps[piece], step);
      ring = [...new Set(ring.flatMap(this.above))].filter((piece) => steps[piece] === Infinity);
    }
    return steps;
  }

  /** Everything that a walk from some pieces reaches, without them. */
  reach(from: ReadonlySet<number>, next: (piece: number) => readonly number[]): Set<number> {
    const reached = new Set<number>();
    const queue = [...from];
    for (let head = 0; head < queue.length; head++)
      for (const other of next(queue[head]))
        if (!reached.has(other) && !from.has(other)) {
          reached.add(other);
          queue.push(other);
        }
    return reached;
  }

  /** A set of pieces in connected parts: pieces of different parts meet outside of it only. */
  parts(set: ReadonlySet<number>): number[][] {
    const seen = new Set<number>();
    return [...set].flatMap((first) => {
      if (seen.has(first)) return [];
      const part = [first];
      seen.add(first);
      for (let head = 0; head < part.length; head++)
        for (const other of this.neighbours(part[head]))
          if (set.has(other) && !seen.has(other)) {
            seen.add(other);
            part.push(other);
          }
      return [part];
    });
  }

  /** The joints of some pieces. */
  jointsOf(pieces: readonly number[]): Joint[] {
    return [...new Set(pieces.flatMap((piece) => [...this.at[piece]]))];
  }
}
