export * from './drawing.ts';
export * from './surveyDrawing.ts';
export { writeSvg } from './svg.ts';
export { writeDxf } from './dxf.ts';
export { houseRules, type RuleGroup } from './houseRules.ts';
export { planDrawing } from './planDrawing.ts';
export { readOutlines, type Outline } from './outlines.ts';
export { readAsc, readPgm, samplesOf, writeAsc, type HeightGrid, type HeightReading } from './heights.ts';
export { EDGE_DEPTH, edgeRelief, seamCsv, seamJson, seamLines, seamStrip } from './seam.ts';
