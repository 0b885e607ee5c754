/** The drawing tools as small state machines: what the clicks so far mean, and what the next one makes. */
import { SketchPen, type Place, type SketchGeometry } from '@helb/core';
import type { Tool } from '../design/session.ts';
import type { Snap } from './hit.ts';

/** Numbers that can be typed while drawing, by tool. */
export const DRAW_FIELDS: Readonly<Record<Tool, readonly string[]>> = {
  line: ['length'],
  rectangle: ['width', 'height'],
  'centred rectangle': ['width', 'height'],
  point: [],
  circle: ['diameter'],
};

export interface TypedNumber {
  /** As typed: becomes the dimension's expression. */
  readonly expression: string;
  /** mm */
  readonly value: number;
}

export type Typed = Readonly<Partial<Record<string, TypedNumber>>>;

/** Where the second click lands once typed numbers have their say. */
export function placeWithTyped(tool: Tool, start: Place, to: Place, typed: Typed): Place {
  const dx = to[0] - start[0];
  const dy = to[1] - start[1];
  if (tool === 'rectangle' || tool === 'centred rectangle') {
    const share = tool === 'rectangle' ? 1 : 0.5;
    const w = typed.width ? typed.width.value * share : Math.abs(dx);
    const h = typed.height ? typed.height.value * share : Math.abs(dy);
    return [start[0] + (dx < 0 ? -w : w), start[1] + (dy < 0 ? -h : h)];
  }
  const wanted = tool === 'line' ? typed.length?.value : typed.diameter && typed.diameter.value / 2;
  if (wanted === undefined) return to;
  const reach = Math.hypot(dx, dy);
  if (reach < 1e-9) return [start[0] + wanted, start[1]];
  return [start[0] + (dx / reach) * wanted, start[1] + (dy / reach) * wanted];
}

/** What a finished stroke does to the sketch; returns the id of the point a chain goes on from. */
export function drawStroke(
  sketch: SketchGeometry,
  tool: Tool,
  start: Snap,
  end: Snap,
  typed: Typed,
): { chainFrom?: string; closed?: boolean } {
  const pen = new SketchPen(sketch);
  const hasTyped = Object.values(typed).some((t) => t !== undefined);
  // A typed size decides where the end is, so it cannot also land on something.
  const target: Snap = hasTyped
    ? { at: placeWithTyped(tool, start.at, end.at, typed), ...(end.level ? { level: end.level } : {}) }
    : end;
  if (tool === 'circle') {
    const center = pen.point(start);
    const radius = Math.hypot(target.at[0] - start.at[0], target.at[1] - start.at[1]);
    const circle = pen.circle(center, radius);
    if (typed.diameter) pen.constrain({ kind: 'diameter', of: [circle], value: typed.diameter.expression });
    else if (end.point) pen.constrain({ kind: 'coincident', of: [end.point, circle] });
    return {};
  }
  if (tool === 'point') {
    pen.point(end);
    return {};
  }
  if (tool === 'rectangle' || tool === 'centred rectangle') {
    const { lines } = tool === 'rectangle' ? pen.rectangle(start, target) : pen.centredRectangle(start, target);
    if (typed.width)
      pen.constrain({
        kind: 'distance',
        of: [lines[0]],
        value: typed.width.expression,
        name: freeName(sketch, 'width'),
      });
    if (typed.height)
      pen.constrain({
        kind: 'distance',
        of: [lines[1]],
        value: typed.height.expression,
        name: freeName(sketch, 'height'),
      });
    return {};
  }
  const known = new Set(Object.keys(sketch.points));
  const from = pen.point(start);
  const to = pen.point(target);
  const line = pen.line(from, to);
  if (target.level) pen.constrain({ kind: target.level, of: [line] });
  if (typed.length) pen.constrain({ kind: 'distance', of: [line], value: typed.length.expression });
  return known.has(to) ? { closed: true } : { chainFrom: to };
}

function freeName(sketch: SketchGeometry, base: string): string {
  const taken = new Set(Object.values(sketch.constraints).map((c) => ('value' in c ? c.name : undefined)));
  let name = base;
  for (let n = 2; taken.has(name); n++) name = `${base}_${n}`;
  return name;
}
