/** Rounding and bevelling a corner. The corner itself stays as a point, so what is measured to it holds. */
import { SketchPen, type Place } from '../draw/pen.ts';
import {
  derivativeAt,
  distance,
  onRound,
  primitivesOfCurve,
  type Round,
  type Segment,
  type Vec2,
} from '../regions/primitives.ts';
import { endsOf, type SketchGeometry } from '../schema.ts';
import { carrierCrossings } from './carriers.ts';
import { ChangeRefused, onEnds } from './ends.ts';

interface Side {
  readonly curve: string;
  readonly primitive: Segment | Round;
  /** The corner is at its start. */
  readonly atStart: boolean;
}

/** Points that coincidence makes one with `point`. */
function samePlace(sketch: SketchGeometry, point: string): Set<string> {
  const same = new Set([point]);
  for (let grew = true; grew;) {
    grew = false;
    for (const c of Object.values(sketch.constraints)) {
      if (c.kind !== 'coincident' || !c.of.every((e) => e in sketch.points)) continue;
      if (c.of.some((e) => same.has(e)) && !c.of.every((e) => same.has(e))) {
        for (const e of c.of) same.add(e);
        grew = true;
      }
    }
  }
  return same;
}

/** The two lines or arcs that end in a corner. @throws ChangeRefused when there are not just two */
function sidesOf(sketch: SketchGeometry, corner: string): [Side, Side] {
  const same = samePlace(sketch, corner);
  const sides: Side[] = [];
  for (const [id, curve] of Object.entries(sketch.curves)) {
    if (curve.construction) continue;
    const ends = endsOf(curve);
    const which = ends?.findIndex((e) => same.has(e)) ?? -1;
    if (which < 0) continue;
    const [primitive] = primitivesOfCurve(sketch, id, curve);
    if (primitive?.kind === 'line' || primitive?.kind === 'arc')
      sides.push({ curve: id, primitive, atStart: which === 0 });
    else throw new ChangeRefused('Corners are rounded between lines and arcs only.');
  }
  if (sides.length !== 2) throw new ChangeRefused('Click a corner in which just two lines or arcs end.');
  return [sides[0]!, sides[1]!];
}

/** Unit direction in which a side leaves the corner. */
function leaving({ primitive, atStart }: Side): Vec2 {
  const [dx, dy] = derivativeAt(primitive, atStart ? 0 : 1, 1);
  const size = (Math.hypot(dx, dy) || 1) * (atStart ? 1 : -1);
  return [dx / size, dy / size];
}

/** The side's carrier moved by r towards a direction. */
function shifted(side: Side, r: number, towards: Vec2): Segment | Round {
  const p = side.primitive;
  if (p.kind === 'line') {
    const u = leaving(side);
    const n: Vec2 = [-u[1], u[0]];
    const s = n[0] * towards[0] + n[1] * towards[1] < 0 ? -r : r;
    return { ...p, from: [p.from[0] + s * n[0], p.from[1] + s * n[1]], to: [p.to[0] + s * n[0], p.to[1] + s * n[1]] };
  }
  const corner = onRound(p, side.atStart ? p.start : p.start + p.sweep);
  const out: Vec2 = [(corner[0] - p.center[0]) / p.radius, (corner[1] - p.center[1]) / p.radius];
  const outwards = out[0] * towards[0] + out[1] * towards[1] > 0;
  return { ...p, radius: p.radius + (outwards ? r : -r) };
}

function footOn(side: Side, from: Vec2): Vec2 {
  const p = side.primitive;
  if (p.kind === 'arc') {
    const angle = Math.atan2(from[1] - p.center[1], from[0] - p.center[0]);
    return onRound(p, angle);
  }
  const size = distance(p.from, p.to);
  const u: Vec2 = [(p.to[0] - p.from[0]) / size, (p.to[1] - p.from[1]) / size];
  const along = (from[0] - p.from[0]) * u[0] + (from[1] - p.from[1]) * u[1];
  return [p.from[0] + along * u[0], p.from[1] + along * u[1]];
}

/** End a side at a fresh point instead of in the corner; the corner stays on its carrier. */
function cutBack(pen: SketchPen, side: Side, at: Place, corner: string): string {
  const { sketch } = pen;
  const fresh = pen.point({ at });
  const curve = sketch.curves[side.curve]!;
  const [from, to] = endsOf(curve)!;
  sketch.curves[side.curve] = side.atStart ? onEnds(curve, fresh, to) : onEnds(curve, from, fresh);
  pen.constrain({ kind: 'coincident', of: [corner, side.curve] });
  return fresh;
}

/** The point that stays as the corner. */
function cornerPoint(sketch: SketchGeometry, [side]: readonly [Side, Side]): string {
  return endsOf(sketch.curves[side.curve]!)![side.atStart ? 0 : 1];
}

/** What is put on the length of a side now holds to the corner: [corner, other end] in place of the line. */
function keepLengths(sketch: SketchGeometry, sides: readonly Side[], corner: string): void {
  for (const side of sides) {
    const [from, to] = endsOf(sketch.curves[side.curve]!)!;
    for (const c of Object.values(sketch.constraints)) {
      const measures = c.kind === 'distance' || c.kind === 'horizontal_distance' || c.kind === 'vertical_distance';
      if (measures && c.of.length === 1 && c.of[0] === side.curve) c.of = side.atStart ? [corner, to] : [from, corner];
    }
  }
}

/**
 * Round a corner with an arc tangent to both its sides.
 * @param value its radius now, mm; `expression` is what holds it
 */
export function fillet(sketch: SketchGeometry, corner: string, value: number, expression: string): string {
  const sides = sidesOf(sketch, corner);
  const point = cornerPoint(sketch, sides);
  const at = sketch.points[point] ?? ([0, 0] as Vec2);
  const [u, v] = [leaving(sides[0]), leaving(sides[1])];
  const inside: Vec2 = [u[0] + v[0], u[1] + v[1]];
  if (Math.hypot(...inside) < 1e-6 || Math.abs(u[0] * v[1] - u[1] * v[0]) < 1e-6)
    throw new ChangeRefused('These two run straight into each other; there is no corner to round.');
  const places = carrierCrossings(shifted(sides[0], value, inside), shifted(sides[1], value, inside));
  const center = places.sort((p, q) => distance(p, at) - distance(q, at))[0];
  const feet = center && sides.map((s) => footOn(s, center));
  if (!center || !feet || !feet.every((f, i) => staysOn(sides[i]!, f, at)))
    throw new ChangeRefused(
      `A radius of ${Number(value.toFixed(3))} mm does not fit in this corner; take a smaller one.`,
    );
  const pen = new SketchPen(sketch);
  keepLengths(sketch, sides, point);
  const [a, b] = sides.map((s, i) => cutBack(pen, s, feet[i]!, point)) as [string, string];
  const [fa, fb] = feet as [Vec2, Vec2];
  const left = (fa[0] - center[0]) * (fb[1] - center[1]) - (fa[1] - center[1]) * (fb[0] - center[0]) > 0;
  const arc = pen.arc(pen.point({ at: center }), a, b, left);
  for (const side of sides) pen.constrain({ kind: 'tangent', of: [side.curve, arc] });
  return pen.dimension('radius', [arc], expression);
}

/** The cut-back end lies between the corner and the side's other end. */
function staysOn({ primitive: p, atStart }: Side, foot: Vec2, corner: Vec2): boolean {
  if (p.kind === 'line') {
    const other = atStart ? p.to : p.from;
    return (
      distance(foot, corner) + distance(foot, other) < distance(corner, other) * (1 + 1e-9) &&
      distance(foot, other) > 1e-9
    );
  }
  return distance(foot, corner) < 2 * p.radius * Math.sin(Math.min(p.sweep, Math.PI) / 2);
}

/**
 * Cut a corner off straight, the same length from it along both sides.
 * @param expression the length; `again` is how the second side repeats it, given the first's constraint id
 */
export function chamfer(
  sketch: SketchGeometry,
  corner: string,
  value: number,
  expression: string,
  again: (first: string) => string,
): string {
  const sides = sidesOf(sketch, corner);
  if (sides.some((s) => s.primitive.kind !== 'line'))
    throw new ChangeRefused('A corner is bevelled between two lines.');
  const point = cornerPoint(sketch, sides);
  const at = sketch.points[point] ?? ([0, 0] as Vec2);
  const feet = sides.map((s): Vec2 => {
    const u = leaving(s);
    return [at[0] + u[0] * value, at[1] + u[1] * value];
  });
  if (!feet.every((f, i) => staysOn(sides[i]!, f, at)))
    throw new ChangeRefused(`${Number(value.toFixed(3))} mm is longer than a side of this corner; take less.`);
  const pen = new SketchPen(sketch);
  keepLengths(sketch, sides, point);
  const [a, b] = sides.map((s, i) => cutBack(pen, s, feet[i]!, point)) as [string, string];
  pen.line(a, b);
  const first = pen.dimension('distance', [point, a], expression);
  pen.dimension('distance', [point, b], again(first));
  return first;
}
