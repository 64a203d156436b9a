import type { Scene } from '../document/index.ts';
import { carriedPieces } from '../cut/index.ts';
import { reachOf } from '../reach/index.ts';
import type { Relief } from '../terrain/index.ts';
import { powerOf, type Power } from '../power/index.ts';
import { sceneAtShow, showOf, type Show } from '../transport/index.ts';
import { showCautions, type Caution } from './cautions.ts';
import { showKit, type KitItem } from './kit.ts';

/** Everything that is worked out for a show, each from the same plan in the same place. */
export interface ShowBook {
  show: Show;
  power: Power;
  kit: KitItem[];
  cautions: Caution[];
}

/** @param relief of the scene, with its counted mass where that is known */
export function showBook(scene: Scene, relief: Relief): ShowBook {
  const there = sceneAtShow(scene);
  const reach = reachOf(there, relief);
  const carried = carriedPieces(there, relief);
  const show = showOf(there, relief, { reach: () => reach, carried: () => carried });
  const power = powerOf(there, relief);
  const known = { shipment: show.shipment, reach, power };
  return {
    ...{ show, power },
    kit: showKit(there, known),
    cautions: showCautions(there, relief, { ...known, carried }),
  };
}
