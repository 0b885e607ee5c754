/** The drawing tools' marks: the shape drawn in 20 × 20, with dots where one clicks. */
export interface ToolIcon {
  readonly paths: readonly string[];
  readonly dots: readonly (readonly [number, number])[];
}

const ICONS: Readonly<Record<string, ToolIcon>> = {
  line: { paths: ['M4 15 L16 5'], dots: [[4, 15], [16, 5]] },
  arc: { paths: ['M3 14 A 8.5 8.5 0 0 1 17 14'], dots: [[3, 14], [10, 7], [17, 14]] },
  'arc about a centre': { paths: ['M16 14 A 11 11 0 0 0 5 4'], dots: [[5, 15], [16, 14]] },
  'tangent arc': { paths: ['M3 5 H9 A 6 6 0 0 1 15 17'], dots: [[9, 5], [15, 17]] },
  'square arc': { paths: ['M3 15 H10', 'M10 15 A 7 7 0 0 1 17 6'], dots: [[10, 15], [17, 6]] },
  rectangle: { paths: ['M3 5 H17 V15 H3 Z'], dots: [[3, 15], [17, 5]] },
  'centred rectangle': { paths: ['M3 5 H17 V15 H3 Z'], dots: [[10, 10], [17, 5]] },
  'slanted rectangle': { paths: ['M3 12 L12 4 L17 9 L8 17 Z'], dots: [[3, 12], [12, 4], [17, 9]] },
  circle: { paths: ['M17 10 A7 7 0 1 1 3 10 A7 7 0 1 1 17 10'], dots: [[10, 10]] },
  'circle by two points': { paths: ['M17 10 A7 7 0 1 1 3 10 A7 7 0 1 1 17 10'], dots: [[3, 10], [17, 10]] },
  'circle by three points': { paths: ['M17 10 A7 7 0 1 1 3 10 A7 7 0 1 1 17 10'], dots: [[3, 10], [13.5, 4], [13.5, 16]] },
  'circle tangent to three': { paths: ['M2 17 H18', 'M2 17 L10 2', 'M18 17 L10 2', 'M14.4 12.6 A4.4 4.4 0 1 1 5.6 12.6 A4.4 4.4 0 1 1 14.4 12.6'], dots: [] },
  slot: { paths: ['M6 6 H14 A4 4 0 0 1 14 14 H6 A4 4 0 0 1 6 6 Z'], dots: [[6, 10], [14, 10]] },
  'centred slot': { paths: ['M6 6 H14 A4 4 0 0 1 14 14 H6 A4 4 0 0 1 6 6 Z'], dots: [[10, 10], [14, 10]] },
  'arc slot': { paths: ['M3 15 A 12 12 0 0 1 15 3 A2.2 2.2 0 0 1 15 8 A 7.4 7.4 0 0 0 8 15 A2.2 2.2 0 0 1 3 15 Z'], dots: [[5.5, 15], [15, 5.5]] },
  polygon: { paths: ['M17 10 L13.5 16 H6.5 L3 10 L6.5 4 H13.5 Z'], dots: [[10, 10], [17, 10]] },
  'polygon round a circle': { paths: ['M17 10 L13.5 16 H6.5 L3 10 L6.5 4 H13.5 Z', 'M14.4 10 A4.4 4.4 0 1 1 5.6 10 A4.4 4.4 0 1 1 14.4 10'], dots: [[10, 10]] },
  ellipse: { paths: ['M18 10 A8 5 0 1 1 2 10 A8 5 0 1 1 18 10'], dots: [[10, 10], [18, 10]] },
  'elliptical arc': { paths: ['M18 10 A8 5 0 1 0 6 5.7'], dots: [[18, 10], [6, 5.7]] },
  spline: { paths: ['M2 14 C5 4 8 4 10 10 S 15 16 18 6'], dots: [[2, 14], [10, 10], [18, 6]] },
  'spline by control points': { paths: ['M2 15 C6 1 13 19 18 5', 'M2 15 L6 3 L13 17 L18 5'], dots: [[6, 3], [13, 17]] },
  text: { paths: ['M4 17 L9.5 4 H10.5 L16 17', 'M6.2 12.5 H13.8'], dots: [] },
  point: { paths: ['M10 4 V16', 'M4 10 H16'], dots: [[10, 10]] },
}; // prettier-ignore

export const iconOf = (tool: string): ToolIcon => ICONS[tool] ?? { paths: [], dots: [] };
