/** Which constraints and dimensions fit what is picked, and how a dimension would read now. */
import { BUILT_IN, type Constraint, type ConstraintKind, type SketchGeometry } from '../schema.ts';

/** A verb the picked things allow. Dimensions carry the value they would start with, mm or rad. */
export interface Reading {
  readonly kind: ConstraintKind;
  readonly label: string;
  readonly of: readonly string[];
  readonly value?: number;
}

type EntityKind = 'point' | 'line' | 'round';

function kindOf(sketch: SketchGeometry, id: string): EntityKind | null {
  if (id === BUILT_IN.origin || id in sketch.points) return 'point';
  if (id === BUILT_IN.xAxis || id === BUILT_IN.yAxis) return 'line';
  const curve = sketch.curves[id];
  if (!curve) return null;
  return curve.kind === 'line' ? 'line' : 'round';
}

type Ends = readonly [readonly [number, number], readonly [number, number]];

function place(sketch: SketchGeometry, id: string): readonly [number, number] {
  if (id === BUILT_IN.origin) return [0, 0];
  const curve = sketch.curves[id];
  const point = curve && curve.kind !== 'line' ? curve.center : id;
  return point === BUILT_IN.origin ? [0, 0] : (sketch.points[point] ?? [0, 0]);
}

function ends(sketch: SketchGeometry, id: string): Ends {
  if (id === BUILT_IN.xAxis) return [[0, 0], [1, 0]]; // prettier-ignore
  if (id === BUILT_IN.yAxis) return [[0, 0], [0, 1]]; // prettier-ignore
  const curve = sketch.curves[id];
  return curve?.kind === 'line' ? [place(sketch, curve.from), place(sketch, curve.to)] : [[0, 0], [1, 0]]; // prettier-ignore
}

function radiusOf(sketch: SketchGeometry, id: string): number {
  const curve = sketch.curves[id];
  if (curve?.kind === 'circle') return curve.radius;
  if (curve?.kind !== 'arc') return 0;
  const [cx, cy] = place(sketch, curve.center);
  const [x, y] = place(sketch, curve.from);
  return Math.hypot(x - cx, y - cy);
}

function offLine(p: readonly [number, number], [a, b]: Ends): number {
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  return Math.abs(dx * (p[1] - a[1]) - dy * (p[0] - a[0])) / Math.hypot(dx, dy);
}

/** All verbs that fit the picked entities, likeliest first. */
export function readingsFor(sketch: SketchGeometry, picked: readonly string[]): Reading[] {
  const kinds = picked.map((id) => kindOf(sketch, id));
  const fits = (...wanted: EntityKind[]) =>
    kinds.length === wanted.length && [...kinds].sort().join() === [...wanted].sort().join();
  const own = picked.every((id) => id in sketch.points || id in sketch.curves);
  if (fits('line') && own) return ofLine(sketch, picked[0]!);
  if (fits('round')) return ofRound(sketch, picked[0]!);
  if (fits('point') && own) return [{ kind: 'fixed', label: 'Fix', of: picked }];
  if (fits('point', 'point')) return ofPoints(sketch, picked);
  if (fits('line', 'line')) return ofLines(sketch, picked);
  if (fits('round', 'round')) return ofRounds(sketch, picked);
  if (fits('point', 'line')) return ofPointAndLine(sketch, picked, kinds);
  if (fits('point', 'round')) return ofPointAndRound(sketch, picked);
  if (fits('line', 'round')) return ofLineAndRound(sketch, picked, kinds);
  if (fits('point', 'point', 'line')) {
    const line = picked[kinds.indexOf('line')]!;
    return [{ kind: 'symmetric', label: 'Symmetric', of: [...picked.filter((p) => p !== line), line] }];
  }
  return [];
}

function ofLine(sketch: SketchGeometry, id: string): Reading[] {
  const [a, b] = ends(sketch, id);
  return [
    { kind: 'distance', label: 'Length', of: [id], value: Math.hypot(b[0] - a[0], b[1] - a[1]) },
    { kind: 'horizontal', label: 'Horizontal', of: [id] },
    { kind: 'vertical', label: 'Vertical', of: [id] },
    { kind: 'horizontal_distance', label: 'Width', of: [id], value: Math.abs(b[0] - a[0]) },
    { kind: 'vertical_distance', label: 'Height', of: [id], value: Math.abs(b[1] - a[1]) },
  ];
}

function ofRound(sketch: SketchGeometry, id: string): Reading[] {
  const radius = radiusOf(sketch, id);
  const diameter: Reading = { kind: 'diameter', label: 'Diameter', of: [id], value: radius * 2 };
  const asRadius: Reading = { kind: 'radius', label: 'Radius', of: [id], value: radius };
  return sketch.curves[id]?.kind === 'circle' ? [diameter, asRadius] : [asRadius, diameter];
}

function axisDistances(a: readonly [number, number], b: readonly [number, number], of: readonly string[]): Reading[] {
  return [
    { kind: 'horizontal_distance', label: 'Horizontal distance', of, value: Math.abs(b[0] - a[0]) },
    { kind: 'vertical_distance', label: 'Vertical distance', of, value: Math.abs(b[1] - a[1]) },
  ];
}

function ofPoints(sketch: SketchGeometry, of: readonly string[]): Reading[] {
  const [a, b] = [place(sketch, of[0]!), place(sketch, of[1]!)];
  return [
    { kind: 'distance', label: 'Distance', of, value: Math.hypot(b[0] - a[0], b[1] - a[1]) },
    ...axisDistances(a, b, of),
    { kind: 'coincident', label: 'Coincident', of },
    { kind: 'horizontal', label: 'Horizontal', of },
    { kind: 'vertical', label: 'Vertical', of },
  ];
}

function ofLines(sketch: SketchGeometry, of: readonly string[]): Reading[] {
  const [one, other] = [ends(sketch, of[0]!), ends(sketch, of[1]!)];
  const d = (l: Ends) => [l[1][0] - l[0][0], l[1][1] - l[0][1]] as const;
  const [u, v] = [d(one), d(other)];
  const angle = Math.atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1]);
  const readings: Reading[] = [
    { kind: 'parallel', label: 'Parallel', of },
    { kind: 'perpendicular', label: 'Perpendicular', of },
    { kind: 'equal', label: 'Equal', of },
    { kind: 'angle', label: 'Angle', of: angle < 0 ? [...of].reverse() : of, value: Math.abs(angle) },
  ];
  if (Math.abs(Math.sin(angle)) < 1e-6) {
    readings.unshift({ kind: 'distance', label: 'Distance', of, value: offLine(other[0], one) });
  }
  return readings;
}

function ofRounds(sketch: SketchGeometry, of: readonly string[]): Reading[] {
  const [a, b] = [place(sketch, of[0]!), place(sketch, of[1]!)];
  return [
    { kind: 'distance', label: 'Centre distance', of, value: Math.hypot(b[0] - a[0], b[1] - a[1]) },
    { kind: 'equal', label: 'Equal', of },
    { kind: 'concentric', label: 'Concentric', of },
    { kind: 'tangent', label: 'Tangent', of },
    ...axisDistances(a, b, of),
    { kind: 'horizontal', label: 'Horizontal', of },
    { kind: 'vertical', label: 'Vertical', of },
  ];
}

function ofPointAndLine(
  sketch: SketchGeometry,
  picked: readonly string[],
  kinds: readonly (EntityKind | null)[],
): Reading[] {
  const line = picked[kinds.indexOf('line')]!;
  const point = picked.find((p) => p !== line)!;
  const of = [point, line];
  return [
    { kind: 'distance', label: 'Distance', of, value: offLine(place(sketch, point), ends(sketch, line)) },
    { kind: 'coincident', label: 'On line', of },
    { kind: 'midpoint', label: 'Midpoint', of },
  ];
}

function ofPointAndRound(sketch: SketchGeometry, of: readonly string[]): Reading[] {
  const [a, b] = [place(sketch, of[0]!), place(sketch, of[1]!)];
  return [
    { kind: 'distance', label: 'Distance to centre', of, value: Math.hypot(b[0] - a[0], b[1] - a[1]) },
    ...axisDistances(a, b, of),
    { kind: 'coincident', label: 'On curve', of },
  ];
}

function ofLineAndRound(
  sketch: SketchGeometry,
  picked: readonly string[],
  kinds: readonly (EntityKind | null)[],
): Reading[] {
  const line = picked[kinds.indexOf('line')]!;
  const round = picked.find((p) => p !== line)!;
  return [
    {
      kind: 'distance',
      label: 'Distance to centre',
      of: [round, line],
      value: offLine(place(sketch, round), ends(sketch, line)),
    },
    { kind: 'tangent', label: 'Tangent', of: [line, round] },
  ];
}

/** Turn a chosen reading into a constraint; `value` is the dimension's expression. */
export function constraintOf(reading: Reading, value?: string): Constraint {
  const base = { kind: reading.kind, of: [...reading.of] };
  return (value === undefined ? base : { ...base, value }) as Constraint;
}
