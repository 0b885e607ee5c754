/** Copies: mirrored and live, repeated and live, moved, turned, scaled, carried to another sketch. */
import { SketchPen, type Place } from '../draw/pen.ts';
import {
  BUILT_IN, isDimension, onPoints, PATTERN_DIMENSIONS, pointsOf,
  type Constraint, type Curve, type SketchGeometry,
} from '../schema.ts'; // prettier-ignore
import { ChangeRefused } from './ends.ts';

/** The curves among these, and all points they or it name. */
export function wholeSelection(sketch: SketchGeometry, ids: readonly string[]): { curves: string[]; points: string[] } {
  const curves = ids.filter((id) => id in sketch.curves);
  const points = new Set(ids.filter((id) => id in sketch.points));
  for (const c of curves) for (const p of pointsOf(sketch.curves[c]!)) if (p in sketch.points) points.add(p);
  return { curves, points: [...points] };
}

type Ends = readonly [Place, Place];

export function axisEnds(sketch: SketchGeometry, axis: string): Ends {
  if (axis === BUILT_IN.xAxis) return [[0, 0], [1, 0]]; // prettier-ignore
  if (axis === BUILT_IN.yAxis) return [[0, 0], [0, 1]]; // prettier-ignore
  const line = sketch.curves[axis];
  if (line?.kind !== 'line') throw new ChangeRefused('Pick the line to mirror across.');
  const at = (p: string): Place => sketch.points[p] ?? [0, 0];
  return [at(line.from), at(line.to)];
}

function mirrored([a, b]: Ends, p: Place): [number, number] {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const t = ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy);
  return [2 * (a[0] + t * dx) - p[0], 2 * (a[1] + t * dy) - p[1]];
}

/** Mirror curves and points across a line; each copy stays symmetric to its original. Returns the copies. */
export function mirror(sketch: SketchGeometry, ids: readonly string[], axis: string): string[] {
  const ends = axisEnds(sketch, axis);
  const { curves, points } = wholeSelection(
    sketch,
    ids.filter((id) => id !== axis),
  );
  if (curves.length + points.length === 0)
    throw new ChangeRefused('Pick what to mirror, and then the line to mirror across.');
  const pen = new SketchPen(sketch);
  const copyOf = new Map<string, string>();
  for (const p of points) {
    const at = sketch.points[p]!;
    const image = mirrored(ends, at);
    const onAxis = Math.hypot(image[0] - at[0], image[1] - at[1]) < 1e-7;
    if (onAxis) {
      const held = Object.values(sketch.constraints).some(
        (c) => c.kind === 'coincident' && c.of.includes(p) && (c.of.includes(axis) || c.of.includes(BUILT_IN.origin)),
      );
      const own = sketch.curves[axis];
      if (!held && !(own && pointsOf(own).includes(p))) pen.constrain({ kind: 'coincident', of: [p, axis] });
    }
    copyOf.set(p, onAxis ? p : pen.point({ at: image }));
  }
  const made = curves.map((id) => {
    const copy = pen.curve(
      id.slice(0, 1),
      mirroredCurve(sketch.curves[id]!, (p) => copyOf.get(p) ?? p),
    );
    pen.constrain({ kind: 'symmetric', of: [id, copy, axis] });
    return copy;
  });
  // Points on their own, not at the end of a mirrored curve.
  const ofCurves = new Set(curves.flatMap((id) => pointsOf(sketch.curves[id]!)));
  for (const p of points)
    if (!ofCurves.has(p) && copyOf.get(p) !== p) pen.constrain({ kind: 'symmetric', of: [p, copyOf.get(p)!, axis] });
  return made;
}

/** Mirrored, an arc that ran counter-clockwise runs clockwise: its ends change places. */
function mirroredCurve(curve: Curve, to: (p: string) => string): Curve {
  if (curve.kind === 'text')
    throw new ChangeRefused('Lettering would read backwards; mirror the other curves without it.');
  const copy = onPoints(curve, to);
  return copy.kind === 'arc' || copy.kind === 'elliptical_arc' ? { ...copy, from: copy.to, to: copy.from } : copy;
}

export interface PatternNumbers {
  readonly count: string;
  /** mm, or rad for a circular one; left out: spread over the whole turn */
  readonly step?: { readonly value: number; readonly expression: string };
  readonly rows?: { readonly count: string; readonly step: { readonly value: number; readonly expression: string } };
}

/** Repeat along a line, in rows if asked. The members themselves are made when the edit is finished. */
export function linearPattern(
  sketch: SketchGeometry,
  ids: readonly string[],
  along: string,
  numbers: PatternNumbers,
): string {
  axisEnds(sketch, along);
  const of = patternMembers(sketch, ids, [along]);
  const id = new SketchPen(sketch).fresh('q');
  const steps = [numbers.step!.value, ...(numbers.rows ? [numbers.rows.step.value] : [])];
  sketch.patterns = { ...sketch.patterns, [id]: { kind: 'linear', of, along, steps } };
  const pen = new SketchPen(sketch);
  pen.dimension('count', [id], numbers.count, 'count');
  pen.dimension('spacing', [id], numbers.step!.expression, 'spacing');
  if (numbers.rows) {
    pen.dimension('count_across', [id], numbers.rows.count, 'rows');
    pen.dimension('spacing_across', [id], numbers.rows.step.expression, 'row_spacing');
  }
  return id;
}

/** Repeat about a point. */
export function circularPattern(
  sketch: SketchGeometry,
  ids: readonly string[],
  around: string,
  numbers: PatternNumbers,
): string {
  if (around !== BUILT_IN.origin && !(around in sketch.points))
    throw new ChangeRefused('Pick the point to repeat about.');
  const of = patternMembers(sketch, ids, [around]);
  const id = new SketchPen(sketch).fresh('q');
  sketch.patterns = {
    ...sketch.patterns,
    [id]: {
      kind: 'circular',
      of,
      around,
      steps: [numbers.step?.value ?? 0],
      ...(numbers.step ? {} : { whole: true as const }),
    },
  };
  const pen = new SketchPen(sketch);
  pen.dimension('count', [id], numbers.count, 'count');
  if (numbers.step) pen.dimension('step_angle', [id], numbers.step.expression, 'step_angle');
  return id;
}

function patternMembers(sketch: SketchGeometry, ids: readonly string[], except: readonly string[]): string[] {
  const curves = ids.filter((id) => id in sketch.curves && !except.includes(id));
  const covered = new Set(curves.flatMap((c) => pointsOf(sketch.curves[c]!)));
  const points = ids.filter((id) => id in sketch.points && !except.includes(id) && !covered.has(id));
  if (curves.length + points.length === 0) throw new ChangeRefused('Pick what to repeat first.');
  return [...curves, ...points];
}

/** A plain movement of the plane: turn and scale about a centre, then shift. */
export interface Placement {
  readonly about: Place;
  /** rad, counter-clockwise */
  readonly turn: number;
  readonly scale: number;
  readonly shift: Place;
}

export function placed({ about, turn, scale, shift }: Placement, [x, y]: Place): [number, number] {
  const [c, s] = [Math.cos(turn) * scale, Math.sin(turn) * scale];
  const [dx, dy] = [x - about[0], y - about[1]];
  return [about[0] + c * dx - s * dy + shift[0], about[1] + s * dx + c * dy + shift[1]];
}

/**
 * Move, turn or scale what is picked. Dimensions among it are scaled along; level
 * and upright lines that are turned keep their angles to each other instead.
 * @returns constraints that no longer can hold and were dropped
 */
export function transform(sketch: SketchGeometry, ids: readonly string[], placement: Placement): Constraint[] {
  const { curves, points } = wholeSelection(sketch, ids);
  for (const p of points) sketch.points[p] = placed(placement, sketch.points[p]!);
  for (const id of curves) {
    const c = sketch.curves[id]!;
    if (c.kind === 'circle') c.radius *= placement.scale;
    if (c.kind === 'ellipse' || c.kind === 'elliptical_arc') c.minor *= placement.scale;
  }
  const own = new Set([...curves, ...points]);
  scaleDimensions(sketch, own, placement.scale);
  return Math.abs(placement.turn) > 1e-9 ? turnLevels(sketch, own) : [];
}

function scaleDimensions(sketch: SketchGeometry, own: ReadonlySet<string>, scale: number): void {
  if (Math.abs(scale - 1) < 1e-12) return;
  for (const c of Object.values(sketch.constraints)) {
    if (!isDimension(c) || c.kind === 'angle' || PATTERN_DIMENSIONS.has(c.kind) || !c.of.every((e) => own.has(e)))
      continue;
    c.value = /^[\w.]+( ?[a-z]+)?$/i.test(c.value) ? `${c.value} * ${scale}` : `(${c.value}) * ${scale}`;
  }
}

/** Level and upright lines inside what is turned become parallel and square to the first of them. */
function turnLevels(sketch: SketchGeometry, own: ReadonlySet<string>): Constraint[] {
  const dropped: Constraint[] = [];
  let first: { line: string; kind: string } | null = null;
  for (const [id, c] of Object.entries(sketch.constraints)) {
    const isLevel = c.kind === 'horizontal' || c.kind === 'vertical';
    const measured = c.kind === 'horizontal_distance' || c.kind === 'vertical_distance';
    if ((!isLevel && !measured) || !c.of.every((e) => own.has(e))) continue;
    delete sketch.constraints[id];
    if (!isLevel || c.of.length > 1) dropped.push(c);
    else if (!first) first = { line: c.of[0]!, kind: c.kind };
    else
      sketch.constraints[id] = {
        kind: first.kind === c.kind ? 'parallel' : 'perpendicular',
        of: [first.line, c.of[0]!],
      };
  }
  return dropped;
}

/** Part of a sketch, to be put elsewhere: whole curves with their points and what holds among them. */
export interface SketchClip {
  readonly points: SketchGeometry['points'];
  readonly curves: SketchGeometry['curves'];
  readonly constraints: SketchGeometry['constraints'];
}

export function clip(sketch: SketchGeometry, ids: readonly string[]): SketchClip {
  const { curves, points } = wholeSelection(sketch, ids);
  const own = new Set([...curves, ...points]);
  const pick = <T>(map: Record<string, T>, keys: Iterable<string>) =>
    Object.fromEntries([...keys].map((k) => [k, map[k]!]));
  const kept = Object.entries(sketch.constraints).filter(
    ([, c]) => c.of.every((e) => own.has(e)) && !PATTERN_DIMENSIONS.has(c.kind),
  );
  return JSON.parse(
    JSON.stringify({
      points: pick(sketch.points, points),
      curves: pick(sketch.curves, curves),
      constraints: Object.fromEntries(kept),
    }),
  ) as SketchClip;
}

/** Put a clip into a sketch under fresh ids. Returns the curves and points made. */
export function paste(sketch: SketchGeometry, what: SketchClip, placement: Placement): string[] {
  const pen = new SketchPen(sketch);
  const to = new Map<string, string>();
  for (const [id, at] of Object.entries(what.points)) to.set(id, pen.point({ at: placed(placement, at) }));
  for (const [id, curve] of Object.entries(what.curves)) {
    const copy = onPoints(JSON.parse(JSON.stringify(curve)) as Curve, (p) => to.get(p) ?? pen.point({ at: [0, 0] }));
    if (copy.kind === 'circle') copy.radius *= placement.scale;
    if (copy.kind === 'ellipse' || copy.kind === 'elliptical_arc') copy.minor *= placement.scale;
    to.set(id, pen.curve(id.slice(0, 1), copy));
  }
  for (const c of Object.values(what.constraints)) {
    const copy = JSON.parse(JSON.stringify(c)) as Constraint;
    copy.of = c.of.map((e) => to.get(e)!) as never;
    if (isDimension(copy)) {
      delete copy.name;
      if (copy.label) copy.label = placed(placement, copy.label);
    }
    pen.constrain(copy);
  }
  const own = new Set(to.values());
  scaleDimensions(sketch, own, placement.scale);
  if (Math.abs(placement.turn) > 1e-9) turnLevels(sketch, own);
  return [...own];
}
