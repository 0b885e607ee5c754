/** Trimming to the nearest crossings, extending to the nearest curve, splitting at a place. */
import { SketchPen, type Place } from '../draw/pen.ts';
import { meetings } from '../regions/intersect.ts';
import {
  distance, isWhole, lengthOf, nearestOn, pointAt, primitivesOfCurve, spansOf, TAU, type Primitive, type Vec2, type Wave,
} from '../regions/primitives.ts'; // prettier-ignore
import { endsOf, type Constraint, type Curve, type CurveOf, type SketchGeometry } from '../schema.ts';
import { ChangeRefused, dropLength, onEnds, ownEnd, removeCurve } from './ends.ts';

/** A place where another curve crosses the one being changed. */
interface Cut {
  readonly t: number;
  readonly at: Vec2;
  /** The curve that crosses there. */
  readonly by: string;
}

const REACH = 1e-7;

function whole(sketch: SketchGeometry, id: string): Primitive {
  const curve = sketch.curves[id];
  if (!curve) throw new ChangeRefused('This curve is no longer there.');
  if (curve.kind === 'text')
    throw new ChangeRefused('Lettering cannot be trimmed, extended or split; draw curves over it instead.');
  const [p] = primitivesOfCurve(sketch, id, curve);
  if (!p) throw new ChangeRefused('This curve has no size yet; drag its ends apart first.');
  return p;
}

function crossings(sketch: SketchGeometry, id: string, own: Primitive): Cut[] {
  const tolerance = REACH * (1 + lengthOf(own));
  const cuts: Cut[] = [];
  for (const [other, curve] of Object.entries(sketch.curves)) {
    if (other === id) continue;
    for (const p of primitivesOfCurve(sketch, other, curve)) {
      for (const m of meetings(own, p, tolerance)) {
        if (!cuts.some((c) => distance(c.at, m.at) < tolerance * 10)) cuts.push({ t: m.onFirst, at: m.at, by: other });
      }
    }
  }
  return cuts.sort((a, b) => a.t - b.t);
}

/**
 * Take away the piece of a curve around `at`, up to where other curves cross
 * it on either side; all of it when none does. What the rest can still hold stays.
 * @returns the constraints that could not be kept
 */
export function trim(sketch: SketchGeometry, id: string, at: Place): Constraint[] {
  const own = whole(sketch, id);
  const t = nearestOn(own, at).t;
  const slack = (REACH * 20 * (1 + lengthOf(own))) / lengthOf(own);
  const closed = isWhole(own);
  const cuts = crossings(sketch, id, own).filter((c) => closed || (c.t > slack && c.t < 1 - slack));
  if (cuts.length === 0 || (closed && cuts.length === 1)) return removeCurve(sketch, id);
  const pen = new SketchPen(sketch);
  if (closed) {
    const before = cuts.findLast((c) => c.t <= t) ?? cuts.at(-1)!;
    const after = cuts.find((c) => c.t > t) ?? cuts[0]!;
    const [from, to] = [cutPoint(pen, after), cutPoint(pen, before)];
    const curve = sketch.curves[id] as Closed;
    sketch.curves[id] = opened(curve, from, to);
    return [];
  }
  const before = cuts.findLast((c) => c.t <= t);
  const after = cuts.find((c) => c.t > t);
  if (sketch.curves[id]!.kind === 'spline') return trimSpline(pen, id, own as Wave, before, after);
  const dropped = dropLength(sketch, id);
  const [from, to] = endsOf(sketch.curves[id]!)!;
  if (before && after) {
    const second = pen.curve('l', onEnds(sketch.curves[id]!, cutPoint(pen, after), to));
    sketch.curves[id] = onEnds(sketch.curves[id]!, from, cutPoint(pen, before));
    joinCarriers(pen, id, second);
  } else if (after) endAt(pen, id, from, after);
  else if (before) endAt(pen, id, to, before);
  return dropped;
}

/** A fresh point on the curve that cuts. */
const cutPoint = (pen: SketchPen, cut: Cut): string => pen.point({ at: cut.at, on: cut.by });

/** Move one end of a curve onto the curve that cuts it, and hold it there. */
function endAt(pen: SketchPen, id: string, end: string, cut: Cut): void {
  const moved = ownEnd(pen, id, end, cut.at);
  pen.constrain({ kind: 'coincident', of: [moved, cut.by] });
}

type Closed = CurveOf<'circle'> | CurveOf<'ellipse'> | CurveOf<'arc'> | CurveOf<'elliptical_arc'>;

/** A closed curve between two of its places; an arc whose ends lie in one place is closed as well. */
function opened(curve: Closed, from: string, to: string): Curve {
  const construction = curve.construction ? { construction: true } : {};
  if (curve.kind === 'circle' || curve.kind === 'arc')
    return { kind: 'arc', center: curve.center, from, to, ...construction };
  return {
    kind: 'elliptical_arc',
    center: curve.center,
    major: curve.major,
    minor: curve.minor,
    from,
    to,
    ...construction,
  };
}

/** Two parts of what was one curve stay on one carrier. */
function joinCarriers(pen: SketchPen, one: string, other: string): void {
  const { kind } = pen.sketch.curves[one]!;
  if (kind === 'line') pen.constrain({ kind: 'collinear', of: [one, other] });
  // They share their centre (and first axis); their sizes stay one.
  else pen.constrain({ kind: 'equal', of: [one, other] });
}

/** A cut spline goes on as exact cubic pieces with a smooth joint between each. */
function trimSpline(pen: SketchPen, id: string, wave: Wave, before?: Cut, after?: Cut): Constraint[] {
  const { sketch } = pen;
  const ranges: { from: number; to: number; start?: Cut; end?: Cut }[] = [];
  if (before) ranges.push({ from: 0, to: before.t, end: before });
  if (after) ranges.push({ from: after.t, to: 1, start: after });
  const [first, last] = endsOf(sketch.curves[id]!)!;
  for (const { from, to, start, end } of ranges)
    bezierChain(pen, wave, from, to, start ? cutPoint(pen, start) : first, end ? cutPoint(pen, end) : last);
  return removeCurve(sketch, id);
}

function bezierChain(pen: SketchPen, wave: Wave, from: number, to: number, first: string, last: string): void {
  const parts = spansOf(wave).flatMap((span) => {
    const width = span.to - span.from;
    const a = Math.max(0, (from - span.from) / width);
    const b = Math.min(1, (to - span.from) / width);
    return b - a > 1e-9 ? [clipped(span.control, a, b)] : [];
  });
  let start = first;
  let before: string | null = null;
  parts.forEach((control, i) => {
    const end = i === parts.length - 1 ? last : pen.point({ at: control.at(-1)! });
    const points = [start, ...control.slice(1, -1).map((at) => pen.point({ at })), end];
    const curve = pen.curve('b', { kind: 'spline', fit: 'control', points });
    if (before) pen.constrain({ kind: 'smooth', of: [before, curve] });
    before = curve;
    start = end;
  });
}

/** The part of a Bézier curve between two parameters (de Casteljau, twice). */
function clipped(control: readonly Vec2[], a: number, b: number): Vec2[] {
  const mix = (p: Vec2, q: Vec2, s: number): Vec2 => [p[0] + s * (q[0] - p[0]), p[1] + s * (q[1] - p[1])];
  const cutAt = (points: readonly Vec2[], s: number): [Vec2[], Vec2[]] => {
    const left: Vec2[] = [];
    const right: Vec2[] = [];
    for (let row = [...points]; row.length > 0; row = row.slice(1).map((q, i) => mix(row[i]!, q, s))) {
      left.push(row[0]!);
      right.unshift(row.at(-1)!);
    }
    return [left, right];
  };
  const [upTo] = cutAt(control, b);
  return cutAt(upTo, a / b)[1];
}

/** Splits a curve in two at the place nearest to `at`; a circle or ellipse also at the place opposite. */
export function split(sketch: SketchGeometry, id: string, at: Place): Constraint[] {
  const own = whole(sketch, id);
  const { t, point } = nearestOn(own, at);
  const pen = new SketchPen(sketch);
  const curve = sketch.curves[id]!;
  if (isWhole(own)) {
    const [p, q] = [pen.point({ at: point }), pen.point({ at: pointAt(own, t + 0.5) })];
    const closed = curve as Closed;
    sketch.curves[id] = opened(closed, p, q);
    joinCarriers(pen, id, pen.curve('a', opened(closed, q, p)));
    return [];
  }
  if (t < 1e-6 || t > 1 - 1e-6) throw new ChangeRefused('Click between the ends of a curve to split it there.');
  const [from, to] = endsOf(curve)!;
  const middle = pen.point({ at: point });
  if (curve.kind === 'spline') {
    bezierChain(pen, own as Wave, 0, t, from, middle);
    const start = Object.keys(sketch.curves).at(-1)!;
    bezierChain(pen, own as Wave, t, 1, middle, to);
    const chain = Object.keys(sketch.curves);
    pen.constrain({ kind: 'smooth', of: [start, chain[chain.indexOf(start) + 1]!] });
    return removeCurve(sketch, id);
  }
  const dropped = dropLength(sketch, id);
  const second = pen.curve(curve.kind === 'line' ? 'l' : 'a', onEnds(curve, middle, to));
  sketch.curves[id] = onEnds(curve, from, middle);
  joinCarriers(pen, id, second);
  return dropped;
}

/** Lengthen a curve, from its end nearer to `at`, to the next curve it meets. */
export function extend(sketch: SketchGeometry, id: string, at: Place): Constraint[] {
  const own = whole(sketch, id);
  const curve = sketch.curves[id]!;
  if (own.kind === 'spline' || isWhole(own))
    throw new ChangeRefused('Only lines and arcs can be extended; drag the end of a spline instead.');
  const atStart = nearestOn(own, at).t < 0.5;
  const longer = lengthened(own, sketch, atStart);
  const end = pointAt(own, atStart ? 0 : 1);
  const beyond = crossings(sketch, id, longer).filter((c) => distance(c.at, end) > REACH * 100 * (1 + lengthOf(own)));
  const next = atStart ? beyond.at(-1) : beyond[0];
  if (!next) throw new ChangeRefused('There is nothing to extend this to in that direction.');
  const dropped = dropLength(sketch, id);
  endAt(new SketchPen(sketch), id, endsOf(curve)![atStart ? 0 : 1], next);
  return dropped;
}

/** Only the part beyond the end: of a line far out, of an arc round to its other end. */
function lengthened(p: Exclude<Primitive, Wave>, sketch: SketchGeometry, atStart: boolean): Primitive {
  if (p.kind === 'line') {
    const reach = 10 * Math.max(lengthOf(p), ...Object.values(sketch.points).map(([x, y]) => Math.hypot(x, y)));
    const u = [(p.to[0] - p.from[0]) / lengthOf(p), (p.to[1] - p.from[1]) / lengthOf(p)] as const;
    const far = (q: Vec2, s: number): Vec2 => [q[0] + s * reach * u[0], q[1] + s * reach * u[1]];
    return atStart ? { ...p, from: far(p.from, -1), to: p.from } : { ...p, from: p.to, to: far(p.to, 1) };
  }
  return { ...p, start: p.start + p.sweep, sweep: Math.max(TAU - p.sweep, 1e-6) };
}
