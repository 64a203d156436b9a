import { displayOf, type Scene } from '../document/index.ts';
import { carriedPieces, type CarriedPiece } from '../cut/index.ts';
import { buildUp, type BuildUp } from '../assembly/index.ts';
import { reachOf, type Reach } from '../reach/index.ts';
import type { Relief } from '../terrain/index.ts';
import { withPlace } from '../venue/index.ts';
import { isAtHome, type ShowPhase } from './phases.ts';
import { shipmentOf, type Shipment } from './shipment.ts';
import { showTasks, type ShowTask } from './showTasks.ts';

/** The display at its show: in that place, in which order it is built up there, and what is brought. */
export interface Show {
  scene: Scene;
  order: BuildUp;
  shipment: Shipment;
}

/** The scene in the place of the show; where none is chosen, where it stands now. */
export const sceneAtShow = (scene: Scene): Scene =>
  withPlace(scene, displayOf(scene).showPlace ?? displayOf(scene).place);

/** What a show is worked out from where that is known already, of the place where the display stands now. */
interface KnownHere {
  reach: () => Reach;
  carried: () => readonly CarriedPiece[];
}

/** The tasks of a phase, at the show or at home. @param here as in `showOf` */
export function tasksOfPhase(
  scene: Scene,
  relief: Relief,
  show: Show,
  phase: ShowPhase,
  here?: KnownHere,
): ShowTask[] {
  if (!isAtHome(phase)) return showTasks(show.scene, show.shipment, show.order, phase);
  const order = buildUp(scene, relief, here ? here.reach() : reachOf(scene, relief));
  return showTasks(scene, show.shipment, order, phase);
}

/** The display at its show. @param here left out: all is worked out */
export function showOf(scene: Scene, relief: Relief, here?: KnownHere): Show {
  const there = sceneAtShow(scene);
  const isHere = there === scene;
  const reach = isHere && here ? here.reach() : reachOf(there, relief);
  const carried = isHere && here ? here.carried() : carriedPieces(there, relief);
  const order = buildUp(there, relief, reach);
  return { scene: there, order, shipment: shipmentOf(there, carried, order) };
}
