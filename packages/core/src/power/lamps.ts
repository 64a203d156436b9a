import { MM_PER_STUD } from '../grid/index.ts';
import { listOf, type Scene } from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import { heightOf } from './circuits.ts';

/** A light where it shines. */
export interface Lamp {
  id: string;
  /** Studs east and south of the relief's corner, and up from the datum. */
  x: number;
  y: number;
  z: number;
  /** Its circuit hangs on a supply. */
  isLit: boolean;
}

/** All lights of a display; those that stand in a building are where its ground is. */
export const lampsOf = (scene: Scene, relief: Relief): Lamp[] =>
  listOf(scene, 'device')
    .filter(({ use }) => use === 'light')
    .map((device) => {
      const circuit = device.circuit === null ? undefined : scene.circuit[device.circuit];
      return {
        ...{ id: device.id, x: device.x - relief.x, y: device.y - relief.y },
        z: heightOf(scene, relief, device) / MM_PER_STUD,
        isLit: circuit !== undefined && circuit.supply !== null,
      };
    });
