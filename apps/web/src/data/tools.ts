import type { Kind } from '@quarry/core/document';

/** Tools that draw an area, a line point by point, or set one spot. */
export const AREA_TOOLS = [
  'footprint',
  'section',
  'table',
  'pad',
  'hill',
  'hollow',
  'water',
  'plot',
  'planting',
  'marker',
  'reserved',
] as const satisfies readonly Kind[];
export const LINE_TOOLS = ['stream', 'way', 'run', 'repeat'] as const satisfies readonly Kind[];
export const SPOT_TOOLS = ['track', 'tree', 'figure', 'flag', 'note'] as const satisfies readonly Kind[];
export type AreaTool = (typeof AREA_TOOLS)[number];
export type LineTool = (typeof LINE_TOOLS)[number];
export type SpotTool = (typeof SPOT_TOOLS)[number];
/** `measure` measures, `profile` lays the section cut along a line. */
export type Tool = 'pick' | AreaTool | LineTool | SpotTool | 'measure' | 'profile';
export const isAreaTool = (tool: Tool): tool is AreaTool => AREA_TOOLS.some((one) => one === tool);
export const isLineTool = (tool: Tool): tool is LineTool => LINE_TOOLS.some((one) => one === tool);
export const isSpotTool = (tool: Tool): tool is SpotTool => SPOT_TOOLS.some((one) => one === tool);
