import type { Highs } from 'highs';

// Equilibrium of rigid bodies as a linear program: rigid-block limit analysis (Livesley 1978). A structure stands when
// forces exist at its joints that balance every body and keep to what each joint can bear (the static theorem).

/** Forces that may act at joints, one entry a force; lengths in mm, forces in gram-force. */
export interface JointForces {
  /** The body a force acts on along its direction, and the one it acts on against it; −1: the ground, which bears all. */
  on: Int32Array;
  from: Int32Array;
  /** Three numbers a force: where it acts, and its direction. */
  at: Float64Array;
  along: Float64Array;
  /** Most that it can bear; Infinity: a push has no limit. */
  hold: Float64Array;
  /** 1 where it may also act the other way: sideways, in studs that lock. */
  free: Uint8Array;
  /** The joint that each force belongs to. */
  joint: Int32Array;
}

/** Rigid bodies, their loads, and the joints between them. */
export interface Assembly {
  /** Three numbers a body: the point that its moments are about, mm. */
  centre: Float64Array;
  /** Six numbers a body: the load's force and its moment about the centre, gram-force and gram-force mm. */
  load: Float64Array;
  joints: number;
  forces: JointForces;
}

/** What an assembly asks of its joints. */
export interface Equilibrium {
  /** Whether forces exist that balance it, whatever the holds. */
  stands: boolean;
  /** The share of the holds it needs at the joint that needs most: over 1 it comes apart; Infinity: it falls. */
  used: number;
  /** The same of each joint. */
  share: Float64Array;
  /** Each force, gram-force; empty when it falls. */
  force: Float64Array;
}

/** Collects forces before their number is known. */
export class ForceList {
  private readonly on: number[] = [];
  private readonly from: number[] = [];
  private readonly at: number[] = [];
  private readonly along: number[] = [];
  private readonly hold: number[] = [];
  private readonly free: number[] = [];
  private readonly joint: number[] = [];

  /**
   * Adds a force at a point.
   * @param bodies the body it acts on along `along`, and the one it acts on against it; −1: the ground
   * @param hold most that it bears, gram-force; Infinity: no limit
   * @param free whether it may act the other way too
   */
  add(
    joint: number,
    [on, from]: readonly [number, number],
    at: readonly [number, number, number],
    along: readonly [number, number, number],
    hold = Infinity,
    free = false,
  ): void {
    this.joint.push(joint);
    this.on.push(on);
    this.from.push(from);
    this.at.push(...at);
    this.along.push(...along);
    this.hold.push(hold);
    this.free.push(free ? 1 : 0);
  }

  done(): JointForces {
    return {
      on: Int32Array.from(this.on),
      from: Int32Array.from(this.from),
      at: Float64Array.from(this.at),
      along: Float64Array.from(this.along),
      hold: Float64Array.from(this.hold),
      free: Uint8Array.from(this.free),
      joint: Int32Array.from(this.joint),
    };
  }
}

/** Six numbers: a force of one gram along a direction at a point, and its moment about a centre. */
function wrenchOf({ forces, centre }: Assembly, force: number, body: number, into: Float64Array): void {
  const { at, along } = forces;
  const [x, y, z] = [0, 1, 2].map((k) => at[3 * force + k] - centre[3 * body + k]);
  const [fx, fy, fz] = [along[3 * force], along[3 * force + 1], along[3 * force + 2]];
  into[0] = fx;
  into[1] = fy;
  into[2] = fz;
  into[3] = y * fz - z * fy;
  into[4] = z * fx - x * fz;
  into[5] = x * fy - y * fx;
}

/** Weight of the sum of all holds beside that of the largest share: of equal answers the one that pulls least. */
const TIDY = 1e-4;
/** Moments are taken per stud, so that rows are of one size. */
const LEVER = 8;

/**
 * The least share of its holds that an assembly can stand with. Its cost grows steeply with its bodies: a thousand take
 * seconds.
 * @param seconds after which it gives up
 * @returns null when no answer was found in time
 */
export function balance(
  highs: Highs,
  assembly: Assembly,
  { seconds = Infinity }: { seconds?: number } = {},
): Equilibrium | null {
  const { forces, load } = assembly;
  const bodies = load.length / 6;
  const count = forces.on.length;
  const wrench = new Float64Array(6);
  const entries: [row: number, value: number][][] = [];
  const used = new Uint8Array(6 * bodies);
  const columns: number[] = [];
  for (let f = 0; f < count; f++) {
    const [on, from] = [forces.on[f], forces.from[f]];
    if (on < 0 && from < 0) continue;
    const column: [number, number][] = [];
    for (const [body, sign] of [
      [on, 1],
      [from, -1],
    ] as const) {
      if (body < 0) continue;
      wrenchOf(assembly, f, body, wrench);
      for (let k = 0; k < 6; k++) {
        const value = (sign * wrench[k]) / (k < 3 ? 1 : LEVER);
        if (Math.abs(value) < 1e-9) continue;
        column.push([6 * body + k, value]);
        used[6 * body + k] = 1;
      }
    }
    columns.push(f);
    entries.push(column);
  }
  // A row that no force reaches holds only when it has no load.
  const rowOf = new Int32Array(6 * bodies).fill(-1);
  const right: number[] = [];
  for (let row = 0; row < 6 * bodies; row++) {
    const value = -load[row] / (row % 6 < 3 ? 1 : LEVER);
    if (used[row]) rowOf[row] = right.push(value) - 1;
    else if (Math.abs(value) > 1e-6) return fallen(assembly);
  }
  const rowLower = right.slice();
  const rowUpper = right.slice();
  const starts = [0];
  const indices: number[] = [];
  const values: number[] = [];
  const colLower: number[] = [];
  const cost: number[] = [];
  const shares: number[] = [];
  const holds = columns.reduce((sum, f) => sum + (Number.isFinite(forces.hold[f]) ? 1 : 0), 0);
  entries.forEach((column, index) => {
    const f = columns[index];
    for (const [row, value] of column) {
      indices.push(rowOf[row]);
      values.push(value);
    }
    const hold = forces.hold[f];
    if (Number.isFinite(hold)) {
      // force − hold × t ≤ 0
      const row = rowLower.push(-highs.infinity) - 1;
      rowUpper.push(0);
      indices.push(row);
      values.push(1);
      shares.push(row, hold);
    }
    starts.push(indices.length);
    colLower.push(forces.free[f] ? -highs.infinity : 0);
    cost.push(Number.isFinite(hold) && hold > 0 ? TIDY / (hold * holds) : 0);
  });
  for (let k = 0; k < shares.length; k += 2) {
    indices.push(shares[k]);
    values.push(-shares[k + 1]);
  }
  starts.push(indices.length);
  colLower.push(0);
  cost.push(1);
  const [numCols, numRows] = [cost.length, rowLower.length];
  const model = highs.createModel({
    ...{ numCols, numRows, rowLower, rowUpper, colLower },
    colCost: cost,
    colUpper: cost.map(() => highs.infinity),
    matrix: {
      ...{ format: 'csc', numRows, numCols },
      starts: Int32Array.from(starts),
      indices: Int32Array.from(indices),
      values: Float64Array.from(values),
    },
  });
  try {
    model.options.set({ output_flag: false, ...(Number.isFinite(seconds) ? { time_limit: seconds } : {}) });
    model.run();
    const status = model.getModelStatus();
    const { modelStatus } = highs.constants;
    if (status === modelStatus.infeasible || status === modelStatus.unboundedOrInfeasible)
      return fallen(assembly);
    if (status !== modelStatus.optimal) return null;
    const { colValue } = model.getSolution();
    const force = new Float64Array(count);
    columns.forEach((f, column) => (force[f] = colValue[column]));
    return { stands: true, used: colValue[numCols - 1], force, share: sharesOf(assembly, force) };
  } finally {
    model.dispose();
  }
}

/** The share of its hold that each joint is asked for by given forces. */
function sharesOf({ forces, joints }: Assembly, force: Float64Array): Float64Array {
  const share = new Float64Array(joints);
  for (let f = 0; f < force.length; f++) {
    const hold = forces.hold[f];
    if (!Number.isFinite(hold) || force[f] <= 1e-9) continue;
    share[forces.joint[f]] = Math.max(share[forces.joint[f]], hold > 0 ? force[f] / hold : Infinity);
  }
  return share;
}

const fallen = ({ joints }: Assembly): Equilibrium => ({
  ...{ stands: false, used: Infinity, force: new Float64Array(0) },
  share: new Float64Array(joints),
});
