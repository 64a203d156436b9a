import { displayKind } from './display.ts';
import { levelKind } from './level.ts';
import { footprintKind } from './footprint.ts';
import { tableKind } from './table.ts';
import { passageKind } from './passage.ts';
import { padKind } from './pad.ts';
import { plotKind } from './plot.ts';
import { personKind } from './person.ts';
import { sectionKind } from './section.ts';
import { baseTypeKind } from './baseType.ts';
import { moduleKind } from './module.ts';
import { seamKind } from './seam.ts';
import { acceptanceKind } from './acceptance.ts';
import { placeKind } from './place.ts';
import { openingKind } from './opening.ts';
import { obstacleKind } from './obstacle.ts';
import { socketKind } from './socket.ts';
import { barrierKind } from './barrier.ts';
import { requirementKind } from './requirement.ts';
import { milestoneKind } from './milestone.ts';
import { spaceKind } from './space.ts';
import { vehicleKind } from './vehicle.ts';
import { furnishingKind } from './furnishing.ts';
import { terrainKind } from './terrain.ts';
import { hillKind } from './hill.ts';
import { hollowKind } from './hollow.ts';
import { waterKind } from './water.ts';
import { streamKind } from './stream.ts';
import { wayKind } from './way.ts';
import { deckKind } from './deck.ts';
import { cavityKind } from './cavity.ts';
import { trackKind } from './track.ts';
import { runKind } from './run.ts';
import { repeatKind } from './repeat.ts';
import { plantingKind } from './planting.ts';
import { treeKind } from './tree.ts';
import { characterKind } from './character.ts';
import { figureKind } from './figure.ts';
import { flagKind } from './flag.ts';
import { signboardKind } from './signboard.ts';
import { markerKind } from './marker.ts';
import { reservedKind } from './reserved.ts';
import { noteKind } from './note.ts';
import { dimensionKind } from './dimension.ts';
import { pictureKind } from './picture.ts';
import { pieceKind } from './piece.ts';
import { partTypeKind } from './partType.ts';
import { customGroundKind } from './customGround.ts';
import { recipeKind } from './recipe.ts';
import { partListKind } from './partList.ts';
import { lotKind } from './lot.ts';
import { loanKind } from './loan.ts';
import { orderKind } from './order.ts';
import { placeholderKind } from './placeholder.ts';
import { substituteKind } from './substitute.ts';
import { promiseKind } from './promise.ts';
import { aliasKind } from './alias.ts';
import { threadKind } from './thread.ts';
import { replyKind } from './reply.ts';
import { reportKind } from './report.ts';
import { sessionKind } from './session.ts';
import { taskKind } from './task.ts';
import { calendarKind } from './calendar.ts';
import { photoKind } from './photo.ts';
import { photoSpotKind } from './photoSpot.ts';
import { slotKind } from './slot.ts';
import { crateKind } from './crate.ts';
import { cargoKind } from './cargo.ts';
import { handlingKind } from './handling.ts';
import { choreKind } from './chore.ts';
import { supplyKind } from './supply.ts';
import { circuitKind } from './circuit.ts';
import { deviceKind } from './device.ts';
import { extensionKind } from './extension.ts';
import { incidentKind } from './incident.ts';
import { plainKind } from './plain.ts';
import { swapKind } from './swap.ts';
import { differenceKind, versionKind } from './version.ts';

/** Every kind of entity, in the order of a display file. */
export const KINDS = {
  display: displayKind,
  level: levelKind,
  footprint: footprintKind,
  table: tableKind,
  passage: passageKind,
  pad: padKind,
  deck: deckKind,
  cavity: cavityKind,
  plot: plotKind,
  person: personKind,
  section: sectionKind,
  baseType: baseTypeKind,
  module: moduleKind,
  seam: seamKind,
  acceptance: acceptanceKind,
  place: placeKind,
  opening: openingKind,
  obstacle: obstacleKind,
  socket: socketKind,
  barrier: barrierKind,
  requirement: requirementKind,
  milestone: milestoneKind,
  space: spaceKind,
  vehicle: vehicleKind,
  furnishing: furnishingKind,
  terrain: terrainKind,
  hill: hillKind,
  hollow: hollowKind,
  water: waterKind,
  stream: streamKind,
  way: wayKind,
  track: trackKind,
  run: runKind,
  repeat: repeatKind,
  planting: plantingKind,
  tree: treeKind,
  character: characterKind,
  figure: figureKind,
  flag: flagKind,
  signboard: signboardKind,
  marker: markerKind,
  reserved: reservedKind,
  note: noteKind,
  photoSpot: photoSpotKind,
  dimension: dimensionKind,
  picture: pictureKind,
  piece: pieceKind,
  partType: partTypeKind,
  customGround: customGroundKind,
  recipe: recipeKind,
  partList: partListKind,
  lot: lotKind,
  loan: loanKind,
  order: orderKind,
  placeholder: placeholderKind,
  substitute: substituteKind,
  promise: promiseKind,
  alias: aliasKind,
  thread: threadKind,
  reply: replyKind,
  report: reportKind,
  session: sessionKind,
  task: taskKind,
  calendar: calendarKind,
  photo: photoKind,
  slot: slotKind,
  crate: crateKind,
  cargo: cargoKind,
  handling: handlingKind,
  chore: choreKind,
  supply: supplyKind,
  circuit: circuitKind,
  device: deviceKind,
  extension: extensionKind,
  incident: incidentKind,
  version: versionKind,
  difference: differenceKind,
  swap: swapKind,
  plain: plainKind,
};
