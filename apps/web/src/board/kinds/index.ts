import type { Rect } from '@quarry/core/grid';
import { KINDS, PLAN_KINDS, listOf, type Scene } from '@quarry/core/document';
import type { Tool } from '../../data/view.ts';
import { capital } from '../../ui/words.ts';
import { tableBoard } from './table.ts';
import { footprintBoard } from './footprint.ts';
import { sectionBoard } from './section.ts';
import { moduleBoard } from './module.ts';
import { padBoard } from './pad.ts';
import { hillBoard } from './hill.ts';
import { hollowBoard } from './hollow.ts';
import { waterBoard } from './water.ts';
import { streamBoard } from './stream.ts';
import { terrainBoard } from './terrain.ts';
import { wayBoard } from './way.ts';
import { trackBoard } from './track.ts';
import { deckBoard } from './deck.ts';
import { cavityBoard } from './cavity.ts';
import { plotBoard } from './plot.ts';
import { runBoard } from './run.ts';
import { repeatBoard } from './repeat.ts';
import { plantingBoard } from './planting.ts';
import { treeBoard } from './tree.ts';
import { figureBoard } from './figure.ts';
import { flagBoard } from './flag.ts';
import { signboardBoard } from './signboard.ts';
import { markerBoard } from './marker.ts';
import { reservedBoard } from './reserved.ts';
import { noteBoard } from './note.ts';
import { photoSpotBoard } from './photoSpot.ts';
import { dimensionBoard } from './dimension.ts';
import { pictureBoard } from './picture.ts';
import { deviceBoard } from './device.ts';
import { supplyBoard } from './supply.ts';
import type { BoardKind, BoardKinds, DrawingPass, DrawnThing, KindTool, Placed } from './kind.ts';

export type { Placed } from './kind.ts';

/** Each kind that stands on the board: adding one is adding its file and its line here. */
export const BOARD_KINDS: BoardKinds = {
  table: tableBoard,
  footprint: footprintBoard,
  section: sectionBoard,
  module: moduleBoard,
  pad: padBoard,
  hill: hillBoard,
  hollow: hollowBoard,
  water: waterBoard,
  stream: streamBoard,
  terrain: terrainBoard,
  way: wayBoard,
  track: trackBoard,
  deck: deckBoard,
  cavity: cavityBoard,
  plot: plotBoard,
  run: runBoard,
  repeat: repeatBoard,
  planting: plantingBoard,
  tree: treeBoard,
  figure: figureBoard,
  flag: flagBoard,
  signboard: signboardBoard,
  marker: markerBoard,
  reserved: reservedBoard,
  note: noteBoard,
  photoSpot: photoSpotBoard,
  dimension: dimensionBoard,
  picture: pictureBoard,
  device: deviceBoard,
  supply: supplyBoard,
};

/** Kinds that stand on the board, in the order of the outline. */
export const PLACED: readonly Placed[] = ['table', ...PLAN_KINDS];
export const isPlaced = (kind: string): kind is Placed => Object.hasOwn(BOARD_KINDS, kind);

/** What the board knows of a kind; null for one that does not stand on it. */
export const boardKindOf = (kind: string): BoardKind | null => (isPlaced(kind) ? BOARD_KINDS[kind] : null);
/** The tool that draws a kind; null for what none draws. */
export const toolOf = (kind: string): KindTool | null => boardKindOf(kind)?.tool ?? null;

/** All drawings from the lowest to the highest. */
export const DRAWINGS: readonly DrawingPass[] = Object.values<BoardKind>(BOARD_KINDS)
  .flatMap(({ drawings = [], layer }) => drawings.map((pass) => ({ layer, ...pass })))
  .sort((a, b) => a.rank - b.rank);

/** Kinds as the pointer finds them, the nearest first. */
export const PICK_ORDER: readonly Placed[] = PLACED.toSorted(
  (a, b) => BOARD_KINDS[a].picked - BOARD_KINDS[b].picked,
);

/** What a tool has drawn: studs. */
export type DrawnShape =
  | { draws: 'area'; rect: Rect }
  | { draws: 'line'; points: readonly Point[] }
  | { draws: 'spot'; at: Point };
type Point = { x: number; y: number };

/** The entity that a drawn shape becomes, with default fields; null where its kind is drawn otherwise. */
export function thingFrom(scene: Scene, kind: Placed, shape: DrawnShape): DrawnThing | null {
  const tool = toolOf(kind);
  const name = (words: string) => `${words} ${listOf(scene, kind).length + 1}`;
  if (tool?.draws === 'area' && shape.draws === 'area') return tool.make(scene, shape.rect, name);
  if (tool?.draws === 'line' && shape.draws === 'line') return tool.make(scene, shape.points, name);
  return tool?.draws === 'spot' && shape.draws === 'spot' ? tool.make(scene, shape.at, name) : null;
}

/** The shape that a tool draws without a pointer: about a place, studs. @param rect of a usual area there */
export function shapeAt(draws: KindTool['draws'], rect: Rect): DrawnShape {
  const { x, y } = rect;
  if (draws === 'area') return { draws, rect };
  if (draws === 'spot') return { draws, at: { x, y } };
  return {
    draws,
    points: [
      { x: x - 16, y },
      { x: x + 16, y },
    ],
  };
}

/** The tools of the plan in the order of their bar. */
export const TOOLS: readonly { id: Tool; word: string; key: string; more?: boolean; planners?: boolean }[] = [
  { id: 'pick', word: 'Pick', key: 's' },
  ...PLACED.flatMap((kind) => {
    const tool = toolOf(kind);
    return tool ? [{ id: kind, ...tool, word: capital(tool.word ?? KINDS[kind].word) }] : [];
  }),
  { id: 'measure', word: 'Measure', key: 'm' },
  { id: 'profile', word: 'Section cut', key: 'd' },
];
