/**
 * How curves of any kind touch, meet and bend, by formulas over jets.
 *
 * A curve is followed by its place P and derivatives D₁, D₂ there:
 *   line     D₁ = b − a, D₂ = 0
 *   round    D₁ = (P − C) turned left, D₂ = C − P
 *   ellipse  with X, Y of P along its axes: D₁ = −m Y/b + n b X/a, D₂ = C − P
 *   spline   weighted sums of its points
 * Where the place of contact is not a point of the sketch, a parameter of its own is solved along.
 */
import { weightsAt } from '../curves/spline.ts';
import {
  DIRECTION_ARM,
  type EllipseSlots,
  type Equation,
  type LineSlots,
  type PointSlots,
  type RoundSlots,
  type SplineSlots,
} from '../solver/equation.ts';
import { cross, dotOf, Jet, jetEquation, length, minus, weighted, type JetVec } from '../solver/jet.ts';

export type CurveSlots =
  | ({ readonly kind: 'line' } & LineSlots)
  | ({ readonly kind: 'round' } & RoundSlots)
  | ({ readonly kind: 'ellipse' } & EllipseSlots)
  | ({ readonly kind: 'spline' } & SplineSlots);

/** A slot that says where along a curve a contact lies; the parameter is value / scale. */
export interface Along {
  readonly slot: number;
  readonly scale: number;
}

/** Where on a curve: at a point of the sketch that lies on it, at a fixed parameter, or at one that is solved for. */
export type PlaceOn =
  | { readonly at: 'point'; readonly point: PointSlots }
  | { readonly at: 'end'; readonly parameter: number }
  | { readonly at: 'along'; readonly along: Along };

const pair = (p: PointSlots) => [p.x, p.y];

function slotsOf(c: CurveSlots): number[] {
  if (c.kind === 'line') return [...pair(c.from), ...pair(c.to)];
  if (c.kind === 'round') return [...pair(c.center), c.radius];
  if (c.kind === 'ellipse') return [...pair(c.center), ...pair(c.major), c.minor];
  return c.points.flatMap(pair);
}

function slotsAt(place: PlaceOn): number[] {
  if (place.at === 'point') return pair(place.point);
  return place.at === 'along' ? [place.along.slot] : [];
}

interface Local {
  readonly p: JetVec;
  readonly d1: JetVec;
  readonly d2: JetVec;
}

const vec = (jets: readonly Jet[], i: number): JetVec => ({ x: jets[i]!, y: jets[i + 1]! });
const left = (v: JetVec): JetVec => ({ x: v.y.times(-1), y: v.x });
const plusVec = (a: JetVec, b: JetVec): JetVec => ({ x: a.x.add(b.x), y: a.y.add(b.y) });
const scaled = (a: JetVec, s: Jet): JetVec => ({ x: a.x.mul(s), y: a.y.mul(s) });

/** Jets of the curve's own slots come first, those of the place after them. */
function localOf(c: CurveSlots, place: PlaceOn, jets: readonly Jet[]): Local {
  const own = slotsOf(c).length;
  const point = place.at === 'point' ? vec(jets, own) : null;
  const parameter = place.at === 'along' ? jets[own]!.times(1 / place.along.scale) : null;
  const zero = jets[0]!.times(0);
  if (c.kind === 'line') {
    const d1 = minus(vec(jets, 2), vec(jets, 0));
    return { p: point ?? plusVec(vec(jets, 0), scaled(d1, parameter!)), d1, d2: { x: zero, y: zero } };
  }
  if (c.kind === 'round') {
    const center = vec(jets, 0);
    const r: JetVec = point ? minus(point, center) : scaled({ x: parameter!.cos(), y: parameter!.sin() }, jets[2]!);
    return { p: plusVec(center, r), d1: left(r), d2: { x: r.x.times(-1), y: r.y.times(-1) } };
  }
  if (c.kind === 'ellipse') {
    const center = vec(jets, 0);
    const m = minus(vec(jets, 2), center);
    const a = length(m);
    const n = scaled(left(m), jets[4]!.div(a));
    let cos: Jet;
    let sin: Jet;
    if (point) {
      const r = minus(point, center);
      cos = dotOf(r, m).div(a.mul(a));
      sin = dotOf(r, n).div(jets[4]!.mul(jets[4]!));
    } else {
      cos = parameter!.cos();
      sin = parameter!.sin();
    }
    const r = plusVec(scaled(m, cos), scaled(n, sin));
    return {
      p: plusVec(center, r),
      d1: plusVec(scaled(m, sin.times(-1)), scaled(n, cos)),
      d2: { x: r.x.times(-1), y: r.y.times(-1) },
    };
  }
  const points = c.points.map((_, i) => vec(jets, 2 * i));
  const t = parameter ? parameter.v : place.at === 'end' ? place.parameter : 0;
  const orders = [0, 1, 2, 3].map((k) => weighted(points, weightsAt(c.basis, t, k)));
  if (!parameter) return { p: orders[0]!, d1: orders[1]!, d2: orders[2]! };
  // The parameter moves too: each derivative's own slope along it is the next one.
  const withSlope = (value: JetVec, slope: JetVec): JetVec => ({
    x: value.x.add(parameter.plus(-t).times(slope.x.v)),
    y: value.y.add(parameter.plus(-t).times(slope.y.v)),
  });
  return {
    p: withSlope(orders[0]!, orders[1]!),
    d1: withSlope(orders[1]!, orders[2]!),
    d2: withSlope(orders[2]!, orders[3]!),
  };
}

function overTwo(
  owner: string,
  one: CurveSlots,
  atOne: PlaceOn,
  other: CurveSlots,
  atOther: PlaceOn,
  formula: (a: Local, b: Local) => Jet,
): Equation {
  const first = [...slotsOf(one), ...slotsAt(atOne)];
  const second = [...slotsOf(other), ...slotsAt(atOther)];
  return jetEquation(owner, [...first, ...second], (jets) =>
    formula(localOf(one, atOne, jets.slice(0, first.length)), localOf(other, atOther, jets.slice(first.length))),
  );
}

const sineBetween = (a: JetVec, b: JetVec): Jet => cross(a, b).div(length(a).mul(length(b)).plus(1e-12));

/** Directions agree at a place on both. */
export function sameDirection(
  owner: string,
  one: CurveSlots,
  atOne: PlaceOn,
  other: CurveSlots,
  atOther: PlaceOn,
): Equation {
  return overTwo(owner, one, atOne, other, atOther, (a, b) => sineBetween(a.d1, b.d1).times(DIRECTION_ARM));
}

const curvatureOf = ({ d1, d2 }: Local): JetVec => {
  const square = dotOf(d1, d1).plus(1e-12);
  return scaled(minus(d2, scaled(d1, dotOf(d2, d1).div(square))), square.times(0).plus(1).div(square));
};

/** Curvature vectors agree at a place on both; they do not depend on which way either curve runs. */
export function sameBend(
  owner: string,
  one: CurveSlots,
  atOne: PlaceOn,
  other: CurveSlots,
  atOther: PlaceOn,
): Equation {
  return overTwo(owner, one, atOne, other, atOther, (a, b) => {
    const n = left(a.d1);
    const difference = minus(curvatureOf(a), curvatureOf(b));
    return dotOf(difference, n)
      .div(length(n).plus(1e-12))
      .times(DIRECTION_ARM * DIRECTION_ARM);
  });
}

/** Two curves touch somewhere: the places are one, the directions agree. */
export function touching(
  owner: string,
  one: CurveSlots,
  atOne: PlaceOn,
  other: CurveSlots,
  atOther: PlaceOn,
): Equation[] {
  return [
    overTwo(owner, one, atOne, other, atOther, (a, b) => a.p.x.sub(b.p.x)),
    overTwo(owner, one, atOne, other, atOther, (a, b) => a.p.y.sub(b.p.y)),
    sameDirection(owner, one, atOne, other, atOther),
  ];
}

/** A point lies on a spline at a parameter that is solved along. */
export function pointOnSpline(owner: string, point: PointSlots, spline: SplineSlots, along: Along): Equation[] {
  const curve: CurveSlots = { kind: 'spline', ...spline };
  const place: PlaceOn = { at: 'along', along };
  const slots = [...slotsOf(curve), along.slot, ...pair(point)];
  const at = (jets: readonly Jet[]) => localOf(curve, place, jets.slice(0, -2)).p;
  return [
    jetEquation(owner, slots, (jets) => at(jets).x.sub(jets.at(-2)!)),
    jetEquation(owner, slots, (jets) => at(jets).y.sub(jets.at(-1)!)),
  ];
}

/**
 * A point lies on an ellipse: r = √(X² + (Y a/b)²) − a in its own axes, with a and b the half axes.
 * Degenerates at the centre.
 */
export function pointOnEllipse(owner: string, point: PointSlots, ellipse: EllipseSlots): Equation {
  const slots = [...pair(ellipse.center), ...pair(ellipse.major), ellipse.minor, ...pair(point)];
  return jetEquation(owner, slots, (jets) => {
    const m = minus(vec(jets, 2), vec(jets, 0));
    const r = minus(vec(jets, 5), vec(jets, 0));
    const a = length(m);
    const x = dotOf(r, m).div(a);
    const y = cross(m, r).div(jets[4]!);
    return length({ x, y }).sub(a);
  });
}

/** First half axis of an ellipse as a length, and its second, are given elsewhere as a distance and a slot. */
export function arcLength(owner: string, arc: RoundSlots, value: number): Equation {
  const [from, to] = arc.ends as [PointSlots, PointSlots];
  const slots = [...pair(arc.center), arc.radius, ...pair(from), ...pair(to)];
  return jetEquation(owner, slots, (jets) => {
    const a = minus(vec(jets, 3), vec(jets, 0));
    const b = minus(vec(jets, 5), vec(jets, 0));
    let sweep = cross(a, b).atan2(dotOf(a, b));
    if (sweep.v <= 0) sweep = sweep.plus(2 * Math.PI);
    return sweep.mul(jets[2]!).plus(-value);
  });
}
