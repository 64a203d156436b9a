export * from './drawing.ts';
export * from './surveyDrawing.ts';
export { escapeMarks, writeSvg } from './svg.ts';
export { writeDxf } from './dxf.ts';
export { houseRules, type RuleGroup } from './houseRules.ts';
export { groundLooks, groundRuns, writePagePlan, type GroundLook } from './pagePlan.ts';
export { placeLabels, type Label, type PlacedLabel } from './labels.ts';
export { planDrawing } from './planDrawing.ts';
export { readOutlines, type Outline } from './outlines.ts';
export {
  countGrid,
  gridRect,
  readAsc,
  readPgm,
  terrainParts,
  writeAsc,
  type GridCount,
  type HeightGrid,
  type HeightReading,
  type HeightsAs,
} from './heights.ts';
export { EDGE_DEPTH, edgeRelief, seamCsv, seamJson, seamLines, seamStrip } from './seam.ts';
export { PAPERS, PAPER_NAMES, PLAN_SHEET, keyPlace, planScales, type Paper } from './planLayout.ts';
export { ARCHIVED_DISPLAY, archivedPhoto, fileName } from './fileName.ts';
export * from './enlarged.ts';
export { writeCsv } from './csv.ts';
export { writeAgenda } from './agendaIcal.ts';
