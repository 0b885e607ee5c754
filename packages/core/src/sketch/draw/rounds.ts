/** Circles, arcs, ellipses. */
import { ovalAngle } from '../regions/primitives.ts';
import type { Anchor, Place, SketchPen } from './pen.ts';
import { distanceBetween, leftOf, movedTo, towards, type DrawField, type DrawTool, type Typed } from './tool.ts';

const diameterField: DrawField = {
  name: 'diameter',
  kind: 'length',
  measure: ([a], to) => 2 * distanceBetween(a!.at, to),
};

/** The circle through three points; null when they lie in line. */
export function circleThrough(a: Place, b: Place, c: Place): { center: Place; radius: number } | null {
  const d = 2 * (a[0] * (b[1] - c[1]) + b[0] * (c[1] - a[1]) + c[0] * (a[1] - b[1]));
  const size = distanceBetween(a, b) * distanceBetween(b, c);
  if (Math.abs(d) < 1e-9 * (size || 1)) return null;
  const [qa, qb, qc] = [a, b, c].map((p) => p[0] ** 2 + p[1] ** 2) as [number, number, number];
  const center: Place = [
    (qa * (b[1] - c[1]) + qb * (c[1] - a[1]) + qc * (a[1] - b[1])) / d,
    (qa * (c[0] - b[0]) + qb * (a[0] - c[0]) + qc * (b[0] - a[0])) / d,
  ];
  return { center, radius: distanceBetween(center, a) };
}

export const circleTool: DrawTool = {
  name: 'circle',
  key: 'c',
  clicks: 2,
  hints: ['Click the centre', 'Click a point on the rim'],
  fields: (n) => (n === 1 ? [diameterField] : []),
  place: ([a], to, typed) => (typed.diameter ? movedTo(to, towards(a!.at, to.at, typed.diameter.value / 2)) : to),
  draw({ pen, clicks, typed }) {
    const circle = pen.circle(pen.point(clicks[0]!), distanceBetween(clicks[0]!.at, clicks[1]!.at));
    if (typed.diameter) pen.dimension('diameter', [circle], typed.diameter.expression);
    else if (clicks[1]!.point) pen.constrain({ kind: 'coincident', of: [clicks[1]!.point, circle] });
    return undefined;
  },
};

/** Rim points that exist are held on the circle; others only place it. */
function holdOnRim(pen: SketchPen, circle: string, clicks: readonly Anchor[]): void {
  for (const click of clicks) {
    if (click.point) pen.constrain({ kind: 'coincident', of: [click.point, circle] });
    else if (click.on) pen.constrain({ kind: 'coincident', of: [pen.point(click), circle] });
  }
}

export const diameterCircleTool: DrawTool = {
  name: 'circle by two points',
  clicks: 2,
  hints: ['Click a point on the rim', 'Click the point opposite'],
  fields: (n) =>
    n === 1 ? [{ name: 'diameter', kind: 'length', measure: ([a], to) => distanceBetween(a!.at, to) }] : [],
  place: ([a], to, typed) => (typed.diameter ? movedTo(to, towards(a!.at, to.at, typed.diameter.value)) : to),
  draw({ pen, clicks, typed }) {
    const [a, b] = [clicks[0]!.at, clicks[1]!.at];
    const center = pen.point({ at: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] });
    const circle = pen.circle(center, distanceBetween(a, b) / 2);
    holdOnRim(pen, circle, clicks);
    if (typed.diameter) pen.dimension('diameter', [circle], typed.diameter.expression);
    return undefined;
  },
};

export const threePointCircleTool: DrawTool = {
  name: 'circle by three points',
  clicks: 3,
  hints: ['Click a point on the rim', 'Click a second point', 'Click a third point'],
  fields: () => [],
  draw({ pen, clicks }) {
    const found = circleThrough(clicks[0]!.at, clicks[1]!.at, clicks[2]!.at);
    if (!found) return undefined;
    holdOnRim(pen, pen.circle(pen.point({ at: found.center }), found.radius), clicks);
    return undefined;
  },
};

/** Starts about the middle of the three places clicked; the tangencies then place it. */
export const tangentCircleTool: DrawTool = {
  name: 'circle tangent to three',
  clicks: 3,
  picksCurves: true,
  hints: ['Click a line, circle or arc', 'Click a second one', 'Click a third one'],
  fields: () => [],
  draw({ pen, clicks }) {
    if (clicks.length < 3 || clicks.some((c) => !c.on)) return undefined;
    const [a, b, c] = clicks.map((k) => k.at) as [Place, Place, Place];
    const found = circleThrough(a, b, c);
    const center = found?.center ?? [(a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3];
    const circle = pen.circle(pen.point({ at: center }), found?.radius ?? distanceBetween(center, a));
    for (const click of clicks) pen.constrain({ kind: 'tangent', of: [click.on!, circle] });
    return undefined;
  },
};

export const arcTool: DrawTool = {
  name: 'arc',
  key: 'a',
  clicks: 3,
  hints: ['Click where the arc starts', 'Click where it ends', 'Click a point it passes'],
  fields: (n) =>
    n === 2
      ? [{ name: 'radius', kind: 'length', measure: ([a, b], to) => circleThrough(a!.at, b!.at, to)?.radius ?? 0 }]
      : [],
  draw({ pen, clicks, typed }) {
    const [a, b, through] = [clicks[0]!.at, clicks[1]!.at, clicks[2]!.at];
    const bulge = leftOf(a, b, through);
    const found = typed.radius ? arcOfRadius(a, b, typed.radius.value, bulge) : circleThrough(a, b, through);
    if (!found) return undefined;
    const [from, to] = [pen.point(clicks[0]!), pen.point(clicks[1]!)];
    const arc = pen.arc(pen.point({ at: found.center }), from, to, bulge < 0);
    if (typed.radius) pen.dimension('radius', [arc], typed.radius.expression);
    else if (clicks[2]!.point) pen.constrain({ kind: 'coincident', of: [clicks[2]!.point, arc] });
    return undefined;
  },
};

/** The flatter arc of a given radius between two points, bulging left (positive) or right. */
function arcOfRadius(a: Place, b: Place, radius: number, bulge: number): { center: Place } | null {
  const half = distanceBetween(a, b) / 2;
  if (radius < half || half === 0) return null;
  const off = Math.sqrt(radius ** 2 - half ** 2) * (bulge > 0 ? -1 : 1);
  const n: Place = [-(b[1] - a[1]) / (2 * half), (b[0] - a[0]) / (2 * half)];
  return { center: [(a[0] + b[0]) / 2 + n[0] * off, (a[1] + b[1]) / 2 + n[1] * off] };
}

export const centreArcTool: DrawTool = {
  name: 'arc about a centre',
  clicks: 3,
  hints: ['Click the centre', 'Click where the arc starts', 'Click where it ends, counter-clockwise'],
  fields: (n) =>
    n === 1 ? [{ name: 'radius', kind: 'length', measure: ([a], to) => distanceBetween(a!.at, to) }] : [],
  place: (clicks, to, typed) => placeOnArc(clicks, to, typed),
  draw({ pen, clicks, typed }) {
    const center = pen.point(clicks[0]!);
    const [from, to] = [pen.point(clicks[1]!), pen.point(placeOnArc(clicks.slice(0, 2), clicks[2]!, {}))];
    const arc = pen.arc(center, from, to, true);
    if (typed.radius) pen.dimension('radius', [arc], typed.radius.expression);
    return undefined;
  },
};

function placeOnArc(clicks: readonly Anchor[], to: Anchor, typed: Typed): Anchor {
  const center = clicks[0]!.at;
  if (clicks.length === 1) return typed.radius ? movedTo(to, towards(center, to.at, typed.radius.value)) : to;
  const radius = distanceBetween(center, clicks[1]!.at);
  const at = towards(center, to.at, radius);
  return distanceBetween(at, to.at) < 1e-9 ? to : { at };
}

const axisFields = (n: number): DrawField[] => {
  if (n === 1) return [{ name: 'major', kind: 'length', measure: ([a], to) => distanceBetween(a!.at, to) }];
  return n === 2
    ? [{ name: 'minor', kind: 'length', measure: ([a, b], to) => Math.abs(leftOf(a!.at, b!.at, to)) }]
    : [];
};

function placeAxis(clicks: readonly Anchor[], to: Anchor, typed: Typed): Anchor {
  return clicks.length === 1 && typed.major ? movedTo(to, towards(clicks[0]!.at, to.at, typed.major.value)) : to;
}

function nameAxes(pen: SketchPen, ellipse: string, typed: Typed): void {
  if (typed.major) pen.dimension('major_radius', [ellipse], typed.major.expression);
  if (typed.minor) pen.dimension('minor_radius', [ellipse], typed.minor.expression);
}

const minorOf = (clicks: readonly Anchor[], typed: Typed): number =>
  Math.max(typed.minor?.value ?? Math.abs(leftOf(clicks[0]!.at, clicks[1]!.at, clicks[2]!.at)), 1e-3);

export const ellipseTool: DrawTool = {
  name: 'ellipse',
  key: 'e',
  clicks: 3,
  hints: ['Click the centre', 'Click the end of its first half axis', 'Click how far the second reaches'],
  fields: axisFields,
  place: placeAxis,
  draw({ pen, clicks, typed }) {
    const [center, major] = [pen.point(clicks[0]!), pen.point(clicks[1]!)];
    const ellipse = pen.curve('e', { kind: 'ellipse', center, major, minor: minorOf(clicks, typed) });
    levelAxis(pen, center, major, clicks[1]!);
    nameAxes(pen, ellipse, typed);
    return undefined;
  },
};

function levelAxis(pen: SketchPen, center: string, major: string, { inferred }: Anchor): void {
  if (inferred?.kind === 'horizontal' || inferred?.kind === 'vertical')
    pen.constrain({ kind: inferred.kind, of: [center, major] });
}

export const ellipticalArcTool: DrawTool = {
  name: 'elliptical arc',
  clicks: 5,
  hints: [
    'Click the centre',
    'Click the end of its first half axis',
    'Click how far the second reaches',
    'Click where the arc starts',
    'Click where it ends, counter-clockwise',
  ],
  fields: axisFields,
  place: placeAxis,
  draw({ pen, clicks, typed }) {
    const [center, major] = [pen.point(clicks[0]!), pen.point(clicks[1]!)];
    const minor = minorOf(clicks, typed);
    const [c, m] = [clicks[0]!.at, clicks[1]!.at];
    const axis: Place = [m[0] - c[0], m[1] - c[1]];
    const long = Math.hypot(...axis) || 1;
    const other: Place = [(-axis[1] / long) * minor, (axis[0] / long) * minor];
    const onOval = ({ at }: Anchor): Place => {
      const t = ovalAngle({ center: c, major: axis, minor: other }, at);
      return [
        c[0] + axis[0] * Math.cos(t) + other[0] * Math.sin(t),
        c[1] + axis[1] * Math.cos(t) + other[1] * Math.sin(t),
      ];
    };
    const [from, to] = [clicks[3]!, clicks[4]!].map((k) => pen.point(k.point ? k : { at: onOval(k) })) as [
      string,
      string,
    ];
    const ellipse = pen.curve('e', { kind: 'elliptical_arc', center, major, minor, from, to });
    levelAxis(pen, center, major, clicks[1]!);
    nameAxes(pen, ellipse, typed);
    return undefined;
  },
};
