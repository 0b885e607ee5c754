/** Lines, chains with arcs, and rectangles. */
import { pointsOf } from '../schema.ts';
import { derivativeAt, primitivesOfCurve } from '../regions/primitives.ts';
import type { Anchor, Place, SketchPen } from './pen.ts';
import {
  distanceBetween, leftOf, movedTo, towards, type Chain, type DrawField, type DrawTool, type Stroke, type Typed,
} from './tool.ts'; // prettier-ignore

const lengthField: DrawField = { name: 'length', kind: 'length', measure: ([a], to) => distanceBetween(a!.at, to) };
const angleField: DrawField = {
  name: 'angle',
  kind: 'angle',
  measure: ([a], to) => Math.abs(Math.atan2(to[1] - a!.at[1], to[0] - a!.at[0])),
};

function placeLine([a]: readonly Anchor[], to: Anchor, typed: Typed): Anchor {
  if (!typed.length && !typed.angle) return to;
  const reach = typed.length?.value ?? distanceBetween(a!.at, to.at);
  if (!typed.angle) return movedTo(to, towards(a!.at, to.at, reach));
  const below = to.at[1] < a!.at[1] ? -1 : 1;
  const angle = below * typed.angle.value;
  return { at: [a!.at[0] + reach * Math.cos(angle), a!.at[1] + reach * Math.sin(angle)] };
}

export const lineTool: DrawTool = {
  name: 'line',
  key: 'l',
  clicks: 2,
  hints: ['Click where the line starts', 'Click where it ends; A goes on with an arc'],
  fields: (n) => (n === 1 ? [lengthField, angleField] : []),
  place: placeLine,
  draw({ pen, clicks, typed }) {
    const known = new Set(Object.keys(pen.sketch.points));
    const from = pen.point(clicks[0]!);
    const to = pen.point(clicks[1]!);
    const line = pen.line(from, to);
    const { inferred } = clicks[1]!;
    if (inferred && !typed.angle)
      pen.constrain({ kind: inferred.kind, of: 'to' in inferred ? [inferred.to, line] : [line] } as never);
    if (typed.length) pen.dimension('distance', [line], typed.length.expression);
    if (typed.angle) {
      const below = clicks[1]!.at[1] < clicks[0]!.at[1];
      pen.dimension('angle', below ? [line, 'x_axis'] : ['x_axis', line], typed.angle.expression);
    }
    return known.has(to) ? undefined : { point: to, curve: line };
  },
};

/** The direction in which a chain's last curve leaves its end. */
export function departing({ sketch }: SketchPen, chain: Chain): Place {
  const curve = sketch.curves[chain.curve]!;
  const [p] = primitivesOfCurve(sketch, chain.curve, curve);
  if (!p) return [1, 0];
  const atStart = pointsOf(curve).at(curve.kind === 'arc' || curve.kind === 'elliptical_arc' ? -2 : 0) === chain.point;
  const [dx, dy] = derivativeAt(p, atStart ? 0 : 1, 1);
  const size = Math.hypot(dx, dy) || 1;
  return atStart ? [-dx / size, -dy / size] : [dx / size, dy / size];
}

/** Centre and sense of the arc that leaves `from` along `direction` and ends at `to`; null where that is straight. */
export function arcAlong(from: Place, direction: Place, to: Place): { center: Place; left: boolean } | null {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const off = -direction[1] * dx + direction[0] * dy;
  if (Math.abs(off) < 1e-6 * Math.hypot(dx, dy)) return null;
  const r = (dx * dx + dy * dy) / (2 * off);
  return { center: [from[0] - direction[1] * r, from[1] + direction[0] * r], left: off > 0 };
}

/** An arc that goes on from a chain: tangent to its last curve, or square to its last line. */
function chainArc(square: boolean): DrawTool['draw'] {
  return ({ pen, clicks, typed, chain }: Stroke) => {
    const start = chain ?? chainAt(pen, clicks[0]!);
    if (!start) return undefined;
    const along = departing(pen, start);
    const end = clicks[1]!.at;
    const from = pen.at(start.point);
    const left: Place = [-along[1], along[0]];
    const side = leftOf(from, [from[0] + along[0], from[1] + along[1]], end) < 0 ? -1 : 1;
    const direction: Place = square ? [left[0] * side, left[1] * side] : along;
    const found = arcAlong(from, direction, end);
    if (!found) return undefined;
    const known = new Set(Object.keys(pen.sketch.points));
    const to = pen.point(clicks[1]!);
    const center = pen.point({ at: found.center });
    const arc = pen.arc(center, start.point, to, found.left);
    const line = pen.sketch.curves[start.curve]?.kind === 'line';
    if (square && line) pen.constrain({ kind: 'coincident', of: [center, start.curve] });
    else if (!square) pen.constrain({ kind: 'tangent', of: [start.curve, arc] });
    if (typed.radius) pen.dimension('radius', [arc], typed.radius.expression);
    return known.has(to) ? undefined : { point: to, curve: arc };
  };
}

/** The curve that ends at an existing point, to go on from. */
export function chainAt({ sketch }: SketchPen, anchor: Anchor): Chain | undefined {
  const { point } = anchor;
  if (point === undefined) return undefined;
  const same = new Set([point]);
  for (const c of Object.values(sketch.constraints))
    if (c.kind === 'coincident' && c.of.includes(point)) for (const e of c.of) same.add(e);
  for (const [id, c] of Object.entries(sketch.curves)) {
    const ends =
      c.kind === 'line'
        ? [c.from, c.to]
        : c.kind === 'arc'
          ? [c.from, c.to]
          : c.kind === 'spline'
            ? [c.points[0]!, c.points.at(-1)!]
            : [];
    const end = ends.find((e) => same.has(e));
    if (end) return { point: end, curve: id };
  }
  return undefined;
}

const radiusField: DrawField = { name: 'radius', kind: 'length' };

export const tangentArcTool: DrawTool = {
  name: 'tangent arc',
  clicks: 2,
  hints: ['Click the end of a line or arc', 'Click where the arc ends'],
  fields: (n) => (n === 1 ? [radiusField] : []),
  draw: chainArc(false),
};

export const squareArcTool: DrawTool = {
  name: 'square arc',
  clicks: 2,
  hints: ['Click the end of a line', 'Click where the arc ends'],
  fields: (n) => (n === 1 ? [radiusField] : []),
  draw: chainArc(true),
};

const sizes = (times: number): DrawField[] => [
  { name: 'width', kind: 'length', measure: ([a], to) => Math.abs(to[0] - a!.at[0]) * times },
  { name: 'height', kind: 'length', measure: ([a], to) => Math.abs(to[1] - a!.at[1]) * times },
];

const placeCorner =
  (share: number): NonNullable<DrawTool['place']> =>
  ([a], to, typed) => {
    if (!typed.width && !typed.height) return to;
    const [dx, dy] = [to.at[0] - a!.at[0], to.at[1] - a!.at[1]];
    const w = typed.width ? typed.width.value * share : Math.abs(dx);
    const h = typed.height ? typed.height.value * share : Math.abs(dy);
    return { at: [a!.at[0] + (dx < 0 ? -w : w), a!.at[1] + (dy < 0 ? -h : h)] };
  };

type Four = [string, string, string, string];

/** Four lines round four corners, in order. */
function quadrilateral(pen: SketchPen, corners: Four): Four {
  return corners.map((c, i) => pen.line(c, corners[(i + 1) % 4]!)) as Four;
}

function level(pen: SketchPen, lines: Four): void {
  lines.forEach((line, i) => pen.constrain({ kind: i % 2 === 0 ? 'horizontal' : 'vertical', of: [line] }));
}

function nameSizes(pen: SketchPen, lines: Four, typed: Typed): void {
  if (typed.width) pen.dimension('distance', [lines[0]], typed.width.expression, 'width');
  if (typed.height) pen.dimension('distance', [lines[1]], typed.height.expression, 'height');
}

export const rectangleTool: DrawTool = {
  name: 'rectangle',
  key: 'r',
  clicks: 2,
  hints: ['Click a corner', 'Click the opposite corner'],
  fields: (n) => (n === 1 ? sizes(1) : []),
  place: placeCorner(1),
  draw({ pen, clicks, typed }) {
    const [[x0, y0], [x1, y1]] = [clicks[0]!.at, clicks[1]!.at];
    const a = pen.point(clicks[0]!);
    const b = pen.point({ at: [x1, y0] });
    const c = pen.point(clicks[1]!);
    const lines = quadrilateral(pen, [a, b, c, pen.point({ at: [x0, y1] })]);
    level(pen, lines);
    nameSizes(pen, lines, typed);
    return undefined;
  },
};

/** It stays about its centre: a construction diagonal has its middle there. */
export const centredRectangleTool: DrawTool = {
  name: 'centred rectangle',
  key: 'R',
  clicks: 2,
  hints: ['Click the centre', 'Click a corner'],
  fields: (n) => (n === 1 ? sizes(2) : []),
  place: placeCorner(0.5),
  draw({ pen, clicks, typed }) {
    const [[cx, cy], [x, y]] = [clicks[0]!.at, clicks[1]!.at];
    const a = pen.point({ at: [2 * cx - x, 2 * cy - y] });
    const b = pen.point({ at: [x, 2 * cy - y] });
    const c = pen.point(clicks[1]!);
    const lines = quadrilateral(pen, [a, b, c, pen.point({ at: [2 * cx - x, y] })]);
    level(pen, lines);
    const center = clicks[0]!.point ?? pen.point(clicks[0]!);
    pen.constrain({ kind: 'midpoint', of: [center, pen.line(a, c, true)] });
    nameSizes(pen, lines, typed);
    return undefined;
  },
};

/** At any slant: one side, then how far the other side lies. */
export const slantedRectangleTool: DrawTool = {
  name: 'slanted rectangle',
  clicks: 3,
  hints: ['Click a corner', 'Click the next corner', 'Click how far the opposite side lies'],
  fields: (n) => {
    if (n === 1) return [{ ...lengthField, name: 'width' }];
    return n === 2
      ? [{ name: 'height', kind: 'length', measure: ([a, b], to) => Math.abs(leftOf(a!.at, b!.at, to)) }]
      : [];
  },
  place(clicks, to, typed) {
    if (clicks.length === 1) return typed.width ? movedTo(to, towards(clicks[0]!.at, to.at, typed.width.value)) : to;
    return to;
  },
  draw({ pen, clicks, typed }) {
    const [a, b] = [clicks[0]!.at, clicks[1]!.at];
    const off = leftOf(a, b, clicks[2]!.at);
    const h = typed.height ? Math.sign(off || 1) * typed.height.value : off;
    const size = distanceBetween(a, b) || 1;
    const n: Place = [(-(b[1] - a[1]) / size) * h, ((b[0] - a[0]) / size) * h];
    const corners: Four = [
      pen.point(clicks[0]!),
      pen.point(clicks[1]!),
      pen.point({ at: [b[0] + n[0], b[1] + n[1]] }),
      pen.point({ at: [a[0] + n[0], a[1] + n[1]] }),
    ];
    const lines = quadrilateral(pen, corners);
    if (clicks[1]!.inferred) pen.constrain({ kind: clicks[1]!.inferred.kind, of: 'to' in clicks[1]!.inferred ? [clicks[1]!.inferred.to, lines[0]] : [lines[0]] } as never); // prettier-ignore
    pen.constrain({ kind: 'perpendicular', of: [lines[0], lines[1]] });
    pen.constrain({ kind: 'parallel', of: [lines[0], lines[2]] });
    pen.constrain({ kind: 'parallel', of: [lines[1], lines[3]] });
    nameSizes(pen, lines, typed);
    return undefined;
  },
};
