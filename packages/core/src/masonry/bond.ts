import type { LayerPlan } from './fill.ts';
import { paintPieceIds } from './pieces.ts';
import type { Joints } from './tile.ts';

// How well layers are bonded: joints that the layer above bridges, and joints that run through.

/** A straight joint that no layer bridges: from (x, y) along its way, through layers from one height to another. */
export interface ThroughJoint {
  x: number;
  y: number;
  /** Along y instead of along x. */
  upright: boolean;
  length: number;
  /** Plates above the floor. */
  from: number;
  to: number;
}

export interface Bond {
  /** Studs of joint that another layer lies on, and how many of them it bridges. */
  joints: number;
  bridged: number;
  /** The longest joints through at least four layers, longest first. */
  through: ThroughJoint[];
}

/** A joint counts as running through from this many layers on. */
const LAYERS = 4;
const LISTED = 12;

/** Sees one layer after the other, from the floor up. */
export class BondWatch {
  /** The joints that are uppermost now, by how much they matter: through how many layers each has run, squared. */
  readonly open: Joints;
  /** The number of the piece that is uppermost on each stud; 0 for none. */
  private readonly under: Int32Array;
  private readonly top: Int16Array;
  private readonly fresh: Int32Array;
  /** Layers that the joint before each stud (to its west, to its north) has run through, and where it began. */
  private readonly runs: [Uint16Array, Uint16Array];
  private readonly began: [Int16Array, Int16Array];
  private readonly ended: [Int16Array, Int16Array];
  private readonly longest: [Uint16Array, Uint16Array];
  private next = 1;
  private joints = 0;
  private bridged = 0;

  constructor(
    private readonly w: number,
    private readonly d: number,
  ) {
    const n = w * d;
    this.under = new Int32Array(n);
    this.open = { west: new Uint8Array(n), north: new Uint8Array(n) };
    this.fresh = new Int32Array(n);
    this.top = new Int16Array(n);
    this.runs = [new Uint16Array(n), new Uint16Array(n)];
    this.longest = [new Uint16Array(n), new Uint16Array(n)];
    this.began = [new Int16Array(n), new Int16Array(n)];
    this.ended = [new Int16Array(n), new Int16Array(n)];
  }

  see({ laid, z, h }: LayerPlan): void {
    const { w, under, fresh, top } = this;
    paintPieceIds(laid, w, fresh, this.next);
    for (let p = 0; p < laid.length; p += 4)
      for (let y = laid[p + 1]; y < laid[p + 1] + laid[p + 3]; y++)
        for (let x = laid[p]; x < laid[p] + laid[p + 2]; x++) {
          const i = y * w + x;
          if (x > 0) this.joint(0, i, i - 1, z, h);
          if (y > 0) this.joint(1, i, i - w, z, h);
          // At the rim of a layer nothing can bridge.
          if (x < w - 1 && fresh[i + 1] === 0) this.open.west[i + 1] = 0;
          if (y < this.d - 1 && fresh[i + w] === 0) this.open.north[i + w] = 0;
        }
    for (let p = 0; p < laid.length; p += 4) {
      for (let y = laid[p + 1]; y < laid[p + 1] + laid[p + 3]; y++)
        for (let i = y * w + laid[p]; i < y * w + laid[p] + laid[p + 2]; i++) {
          under[i] = fresh[i];
          fresh[i] = 0;
          top[i] = z + h;
        }
    }
    this.next += laid.length / 4;
  }

  private joint(way: 0 | 1, i: number, j: number, z: number, h: number): void {
    const { under, fresh, top, runs, began, longest, ended } = this;
    const open = way === 0 ? this.open.west : this.open.north;
    if (fresh[j] === 0) {
      open[i] = 0;
      return;
    }
    const below = under[i] > 0 && under[j] > 0 && top[i] === z && top[j] === z && under[i] !== under[j];
    const here = fresh[i] !== fresh[j];
    if (below) {
      this.joints++;
      if (!here) this.bridged++;
    }
    if (!here) {
      runs[way][i] = open[i] = 0;
      return;
    }
    if (!below || runs[way][i] === 0) {
      runs[way][i] = 1;
      began[way][i] = z;
    } else runs[way][i]++;
    open[i] = Math.min(255, runs[way][i] ** 2);
    if (runs[way][i] > longest[way][i]) {
      longest[way][i] = runs[way][i];
      ended[way][i] = z + h;
    }
  }

  done(): Bond {
    const through: ThroughJoint[] = [];
    const { w, d } = this;
    for (const way of [0, 1] as const) {
      const { [way]: longest } = this.longest;
      const step = way === 0 ? w : 1;
      for (let a = 0; a < (way === 0 ? w : d); a++)
        for (let b = 0; b < (way === 0 ? d : w);) {
          const i = way === 0 ? b * w + a : a * w + b;
          let length = 0;
          let to = 0;
          const most = (way === 0 ? d : w) - b;
          while (length < most && longest[i + length * step] >= LAYERS) {
            to = Math.max(to, this.ended[way][i + length * step]);
            length++;
          }
          if (length > 0)
            through.push({
              ...{ x: i % w, y: Math.floor(i / w), upright: way === 0, length },
              ...{ from: this.began[way][i], to },
            });
          b += Math.max(1, length);
        }
    }
    through.sort((p, q) => q.length - p.length || p.y - q.y || p.x - q.x);
    return { joints: this.joints, bridged: this.bridged, through: through.slice(0, LISTED) };
  }
}
