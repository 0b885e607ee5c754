/** All drawing tools, in the order they are offered. */
import {
  lineTool,
  rectangleTool,
  centredRectangleTool,
  slantedRectangleTool,
  squareArcTool,
  tangentArcTool,
} from './lines.ts';
import {
  arcTool, centreArcTool, circleTool, diameterCircleTool, ellipseTool, ellipticalArcTool, tangentCircleTool, threePointCircleTool,
} from './rounds.ts'; // prettier-ignore
import {
  arcSlotTool, centredSlotTool, controlSplineTool, pointTool, polygonTool, roundPolygonTool, slotTool, splineTool, textTool,
} from './shapes.ts'; // prettier-ignore
import type { DrawTool } from './tool.ts';

/** By family: the first of each stands in the verb line, the others behind it. */
export const TOOL_FAMILIES: readonly (readonly DrawTool[])[] = [
  [lineTool],
  [arcTool, centreArcTool, tangentArcTool, squareArcTool],
  [rectangleTool, centredRectangleTool, slantedRectangleTool],
  [circleTool, diameterCircleTool, threePointCircleTool, tangentCircleTool],
  [slotTool, centredSlotTool, arcSlotTool],
  [polygonTool, roundPolygonTool],
  [ellipseTool, ellipticalArcTool],
  [splineTool, controlSplineTool],
  [textTool],
  [pointTool],
];

export const DRAW_TOOLS: readonly DrawTool[] = TOOL_FAMILIES.flat();

export function toolNamed(name: string): DrawTool | undefined {
  return DRAW_TOOLS.find((t) => t.name === name);
}
