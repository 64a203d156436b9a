export * from './drawing.ts';
export * from './surveyDrawing.ts';
export { writeSvg } from './svg.ts';
export { writeDxf } from './dxf.ts';
export { houseRules, type RuleGroup } from './houseRules.ts';
