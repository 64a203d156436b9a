import { MM_PER_STUD } from '@quarry/core/grid';
import { runsEast, type Side } from '@quarry/core/document';
import type { Viewpoint, Watcher } from '@quarry/core/visibility';

/** A place from which one looks, studs east, up and south of the footprint's corner and the datum. */
export interface ViewStance {
  eye: [number, number, number];
  target: [number, number, number];
}

/** Where somebody stands before the display, and whose eyes look. */
export interface Standpoint {
  side: Side;
  /** mm from the west or north end of the side, and from the scene. */
  along: number;
  off: number;
  who: Watcher;
}

/** Nearest and farthest that one stands, mm. */
export const OFF = { min: 150, max: 4000 } as const;
/** Steps of walking, mm. */
export const STEP = { along: 200, off: 100 } as const;

export const sideLengthOf = ({ w, d }: { w: number; d: number }, side: Side): number =>
  (runsEast(side) ? w : d) * MM_PER_STUD;

/**
 * Where the eye is and what it looks at, studs east, up and south of the footprint's corner and the datum.
 * @param above the eye over the table, mm
 */
export function eyeAndTarget(
  { side, along, off }: Standpoint,
  { w, d }: { w: number; d: number },
  above: number,
): ViewStance {
  const at = along / MM_PER_STUD;
  const [near, up] = [off / MM_PER_STUD, above / MM_PER_STUD];
  // Somewhat into the display, where the scene is, on the line square to the side.
  const deep = 0.35;
  const place = {
    s: { eye: [at, up, d + near], target: [at, 0, d * (1 - deep)] },
    n: { eye: [at, up, -near], target: [at, 0, d * deep] },
    e: { eye: [w + near, up, at], target: [w * (1 - deep), 0, at] },
    w: { eye: [-near, up, at], target: [w * deep, 0, at] },
  } as const;
  const { eye, target } = place[side];
  return { eye: [...eye], target: [...target] };
}

/** At a door or where photos are taken, with an adult's eyes: one looks where the photo does, else at the middle of the display. */
export function standingAt({ eye, bearing }: Viewpoint, { w, d }: { w: number; d: number }): ViewStance {
  const [x, z] = [eye.x, d - eye.y];
  const up = eye.z / MM_PER_STUD;
  if (bearing === null) return { eye: [x, up, z], target: [w / 2, 0, d / 2] };
  const angle = (bearing * Math.PI) / 180;
  // Down to the ground half way over the display.
  const far = Math.max(1, Math.hypot(w / 2 - x, d / 2 - z));
  return { eye: [x, up, z], target: [x + Math.sin(angle) * far, 0, z - Math.cos(angle) * far] };
}

/** How far a head is turned from what it looks at, radians; what follows it hears of each turn. */
export class HeadTurn {
  yaw = 0;
  pitch = 0;
  private readonly listeners = new Set<() => void>();

  /** Turns it further: to the left and up where positive. */
  turn(yaw: number, pitch: number): void {
    this.yaw += yaw;
    this.pitch += pitch;
    for (const hear of this.listeners) hear();
  }

  /** Looks straight ahead again; nobody hears of it. */
  reset(): void {
    [this.yaw, this.pitch] = [0, 0];
  }

  /** @returns what ends it */
  listen(hear: () => void): () => void {
    this.listeners.add(hear);
    return () => this.listeners.delete(hear);
  }
}
