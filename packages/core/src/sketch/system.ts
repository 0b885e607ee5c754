/** Turns a sketch and its dimensions' values into variables and equations. */
import { basisOf } from './curves/spline.ts';
import { Equating, Merging } from './constraints/operands.ts';
import { constraintKind } from './constraints/register.ts';
import { pointOnEllipse } from './equations/contact.ts';
import { STEP_ARM } from './equations/spacing.ts';
import { pointOnRound } from './equations/tangent.ts';
import { patternEquations, patternLinks } from './pattern/equations.ts';
import { BUILT_IN, isDimension, type Constraint, type SketchGeometry } from './schema.ts';
import type { EllipseSlots, Equation, LineSlots, PointSlots, RoundSlots, SplineSlots } from './solver/equation.ts';
import type { SketchSlots } from './solver/slots.ts';
import { SlotMerger } from './solver/merge.ts';

export interface System extends SketchSlots {
  /** Values by slot; merged slots are read through `root`. */
  readonly values: Float64Array;
  readonly merger: SlotMerger;
  readonly equations: readonly Equation[];
  /** Patterns that fill a whole turn: their step is no unknown. */
  readonly wholeTurns: ReadonlySet<string>;
  /** Unknowns that are no one's place or size: where curves touch. */
  readonly contacts: readonly number[];
  /** The sketch whose curves must not come to nothing. */
  readonly drawn: SketchGeometry;
  /** Constraints that found their slots already one, or pinned apart. */
  readonly redundant: readonly string[];
  readonly clashing: readonly string[];
}

/**
 * @param dimension the value of each dimension constraint by id, mm or rad
 * @param skip constraints to leave out
 * @param drawn the sketch whose curves must not come to nothing, where it is not this one
 */
export function buildSystem(
  sketch: SketchGeometry,
  dimension: (constraintId: string) => number,
  skip: ReadonlySet<string> = new Set(),
  drawn: SketchGeometry = sketch,
): System {
  return new SystemBuilder(sketch, dimension, skip).build(drawn);
}

type Written<T> = { -readonly [K in keyof T]: T[K] };

class SystemBuilder implements SketchSlots {
  private readonly merger = new SlotMerger();
  readonly points = new Map<string, PointSlots>();
  readonly lines = new Map<string, LineSlots>();
  readonly rounds = new Map<string, RoundSlots>();
  readonly ellipses = new Map<string, EllipseSlots>();
  readonly splines = new Map<string, SplineSlots>();
  readonly steps = new Map<string, readonly [number, number]>();
  private readonly redundant = new Set<string>();
  private readonly clashing = new Set<string>();
  /** Arcs whose shape follows from another's: nothing of their own keeps their ends on them. */
  private readonly following = new Set<string>();
  private readonly constraints: readonly (readonly [string, Constraint])[];

  constructor(
    private readonly sketch: SketchGeometry,
    private readonly dimension: (id: string) => number,
    skip: ReadonlySet<string>,
  ) {
    this.constraints = Object.entries(sketch.constraints).filter(
      ([id, c]) => !skip.has(id) && !(isDimension(c) && c.driven),
    );
    const point = (x: number, y: number, fixed: boolean) => ({
      x: this.merger.add(x, fixed),
      y: this.merger.add(y, fixed),
    });
    const origin = point(0, 0, true);
    this.points.set(BUILT_IN.origin, origin);
    this.lines.set(BUILT_IN.xAxis, { from: origin, to: point(1, 0, true) });
    this.lines.set(BUILT_IN.yAxis, { from: origin, to: point(0, 1, true) });
    const borrowed = new Set(Object.values(sketch.borrowed ?? {}).flatMap((b) => b.of));
    for (const [id, [x, y]] of Object.entries(sketch.points)) this.points.set(id, point(x, y, borrowed.has(id)));
    for (const id of Object.keys(sketch.curves)) this.addCurve(id, borrowed.has(id));
    for (const [id, { steps, kind }] of Object.entries(sketch.patterns ?? {})) {
      const arm = kind === 'circular' ? STEP_ARM : 1;
      this.steps.set(id, [
        this.merger.add((steps[0] ?? 0) * arm, false),
        this.merger.add(steps[1] ?? 0, steps.length < 2),
      ]);
    }
  }

  private addCurve(id: string, fixed: boolean): void {
    const curve = this.sketch.curves[id]!;
    const at = (p: string) => this.points.get(p)!;
    if (fixed) this.following.add(id);
    switch (curve.kind) {
      case 'line':
      case 'text':
        this.lines.set(id, { from: at(curve.from), to: at(curve.to) });
        break;
      case 'circle':
        this.rounds.set(id, { center: at(curve.center), radius: this.merger.add(curve.radius, fixed), ends: [] });
        break;
      case 'arc':
        this.rounds.set(id, {
          center: at(curve.center),
          radius: this.merger.add(this.drawnRadius(curve.center, curve.from), fixed),
          ends: [at(curve.from), at(curve.to)],
        });
        break;
      case 'spline':
        this.splines.set(id, { points: curve.points.map(at), basis: basisOf(curve) });
        break;
      default:
        this.ellipses.set(id, {
          center: at(curve.center),
          major: at(curve.major),
          minor: this.merger.add(curve.minor, fixed),
          ends: curve.kind === 'ellipse' ? [] : [at(curve.from), at(curve.to)],
        });
    }
  }

  private drawnRadius(center: string, end: string): number {
    const [cx, cy] = this.sketch.points[center] ?? [0, 0];
    const [ex, ey] = this.sketch.points[end] ?? [0, 0];
    return Math.hypot(ex - cx, ey - cy);
  }

  build(drawnFirst: SketchGeometry): System {
    const { merger } = this;
    for (const { curve, of } of patternLinks(this.sketch)) this.follow(curve, of);
    for (const [, c] of this.constraints) {
      const follows = constraintKind(c.kind).follows?.(c);
      if (follows) this.follow(...follows);
    }
    const merging = new Merging(this.sketch, this, this.dimension, merger);
    const waiting = this.constraints.filter(([id, c]) => !this.mergeAway(id, c, merging));
    this.takeRoots();
    const { points, lines, rounds, ellipses, splines, steps } = this;
    const slots: SketchSlots = { points, lines, rounds, ellipses, splines, steps };
    const contacts: number[] = [];
    // Contacts are added while equations are made; their start values come from the drawing.
    const drawn = merger.values();
    const newContact = (value: number) => {
      const slot = merger.add(value, false);
      contacts.push(slot);
      return slot;
    };
    const equations: Equation[] = [];
    for (const [id, round] of slots.rounds) {
      if (this.following.has(id)) continue;
      for (const end of round.ends) equations.push(pointOnRound(id, end, round));
    }
    for (const [id, ellipse] of slots.ellipses) {
      if (this.following.has(id)) continue;
      for (const end of ellipse.ends) equations.push(pointOnEllipse(id, end, ellipse));
    }
    equations.push(...patternEquations(this.sketch, slots, this.wholeStep));
    const equating = new Equating(this.sketch, slots, this.dimension, drawn, this.constraints, newContact);
    for (const [id, c] of waiting) equations.push(...(constraintKind(c.kind).equations?.(id, c, equating) ?? []));
    return {
      ...slots,
      values: merger.values(),
      merger,
      equations,
      drawn: drawnFirst,
      contacts,
      wholeTurns: new Set(
        Object.entries(this.sketch.patterns ?? {}).flatMap(([id, p]) => (p.kind === 'circular' && p.whole ? [id] : [])),
      ),
      redundant: [...this.redundant],
      clashing: [...this.clashing],
    };
  }

  /** The step of a pattern that fills a whole turn, rad. */
  private readonly wholeStep = (pattern: string): number => {
    const count = this.constraints.find(([, c]) => c.kind === 'count' && c.of[0] === pattern)?.[0];
    return (2 * Math.PI) / Math.max(1, count === undefined ? 1 : Math.round(this.dimension(count)));
  };

  /** A curve whose shape is another's: their sizes are one. */
  private follow(curve: string, original: string): void {
    const [a, b] = [this.rounds.get(original), this.rounds.get(curve)];
    const [e, f] = [this.ellipses.get(original), this.ellipses.get(curve)];
    if (a && b) this.merger.merge(a.radius, b.radius);
    if (e && f) this.merger.merge(e.minor, f.minor);
    if ((a && b) || (e && f)) this.following.add(curve);
  }

  /** From here on, unknowns that were made one have one slot; points are shared, so each is told once. */
  private takeRoots(): void {
    const { merger } = this;
    const root = (p: Written<PointSlots>) => {
      p.x = merger.root(p.x);
      p.y = merger.root(p.y);
    };
    for (const p of this.points.values()) root(p);
    for (const line of [BUILT_IN.xAxis, BUILT_IN.yAxis]) root(this.lines.get(line)!.to);
    for (const r of this.rounds.values()) (r as Written<RoundSlots>).radius = merger.root(r.radius);
    for (const e of this.ellipses.values()) (e as Written<EllipseSlots>).minor = merger.root(e.minor);
    for (const [id, [a, b]] of this.steps) this.steps.set(id, [merger.root(a), merger.root(b)]);
  }

  /** Handle a constraint by merging or pinning variables; false if it needs equations. */
  private mergeAway(id: string, c: Constraint, on: Merging): boolean {
    const outcomes = constraintKind(c.kind).merge?.(id, c, on);
    if (!outcomes) return false;
    if (outcomes.includes('clash')) this.clashing.add(id);
    else if (outcomes.length > 0 && outcomes.every((o) => o === 'redundant')) this.redundant.add(id);
    return true;
  }
}

/** Read the solved geometry back: positions of points, sizes of curves, steps of patterns. */
export function readGeometry(sketch: SketchGeometry, system: System): SketchGeometry {
  const v = system.values;
  const points: SketchGeometry['points'] = {};
  for (const [id, p] of system.points) if (id !== BUILT_IN.origin) points[id] = [v[p.x]!, v[p.y]!];
  const curves: SketchGeometry['curves'] = {};
  for (const [id, curve] of Object.entries(sketch.curves)) {
    if (curve.kind === 'circle') curves[id] = { ...curve, radius: v[system.rounds.get(id)!.radius]! };
    else if (curve.kind === 'ellipse' || curve.kind === 'elliptical_arc')
      curves[id] = { ...curve, minor: v[system.ellipses.get(id)!.minor]! };
    else curves[id] = curve;
  }
  const { patterns, borrowed, constraints } = sketch;
  if (!patterns) return { points, curves, constraints, ...(borrowed ? { borrowed } : {}) };
  const solved = Object.entries(patterns).map(([id, pattern]) => {
    const [along, across] = system.steps.get(id)!;
    const arm = pattern.kind === 'circular' ? STEP_ARM : 1;
    const steps = pattern.steps.length > 1 ? [v[along]! / arm, v[across]!] : [v[along]! / arm];
    return [id, { ...pattern, steps }];
  });
  return {
    points,
    curves,
    constraints,
    patterns: Object.fromEntries(solved) as NonNullable<SketchGeometry['patterns']>,
    ...(borrowed ? { borrowed } : {}),
  };
}
