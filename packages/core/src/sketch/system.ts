/** Turns a sketch and its dimensions' values into variables and equations. */
import { basisOf } from './curves/spline.ts';
import { ConstraintEquations } from './equations.ts';
import { ConstraintMisfit } from './constraints/misfit.ts';
import { pointOnEllipse } from './constraints/contact.ts';
import { pointOnRound } from './constraints/tangent.ts';
import { patternEquations, patternLinks } from './pattern/equations.ts';
import { BUILT_IN, isDimension, type Constraint, type SketchGeometry } from './schema.ts';
import type { EllipseSlots, Equation, LineSlots, PointSlots, RoundSlots, SplineSlots } from './solver/equation.ts';
import type { SketchSlots } from './solver/slots.ts';
import { SlotMerger, type MergeOutcome } from './solver/merge.ts';
import { STEP_ARM } from './constraints/spacing.ts';

/** The size of a curve: between two points, or a radius. */
export interface Extent {
  readonly drawn: number;
  readonly of: LineSlots | { readonly radius: number };
}

export interface System extends SketchSlots {
  /** Values by slot; merged slots are read through `root`. */
  readonly values: Float64Array;
  readonly merger: SlotMerger;
  readonly equations: readonly Equation[];
  /** Patterns that fill a whole turn: their step is no unknown. */
  readonly wholeTurns: ReadonlySet<string>;
  /** Unknowns that are no one's place or size: where curves touch. */
  readonly contacts: readonly number[];
  /** Lines, circles and arcs with their size as drawn, mm; what had one must not come to nothing. */
  readonly extents: readonly Extent[];
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

class SystemBuilder {
  private readonly merger = new SlotMerger();
  private readonly points = new Map<string, PointSlots>();
  private readonly lines = new Map<string, LineSlots>();
  private readonly rounds = new Map<string, RoundSlots>();
  private readonly ellipses = new Map<string, EllipseSlots>();
  private readonly splines = new Map<string, SplineSlots>();
  private readonly steps = new Map<string, readonly [number, number]>();
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
    for (const [, c] of this.constraints) if (c.kind === 'symmetric') this.follow(c.of[1]!, c.of[0]!);
    const waiting = this.constraints.filter(([id, c]) => !this.mergeAway(id, c));
    const slots = this.rootedSlots();
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
    const make = new ConstraintEquations(slots, drawn, this.constraints, this.sketch, this.dimension, newContact);
    for (const [id, constraint] of waiting) equations.push(...make.of(id, constraint));
    return {
      ...slots,
      values: merger.values(),
      merger,
      equations,
      extents: this.extents(slots, drawnFirst),
      contacts,
      wholeTurns: new Set(
        Object.entries(this.sketch.patterns ?? {}).flatMap(([id, p]) => (p.kind === 'circular' && p.whole ? [id] : [])),
      ),
      redundant: [...this.redundant],
      clashing: [...this.clashing],
    };
  }

  private extents(slots: SketchSlots, first: SketchGeometry): Extent[] {
    const at = (point: string) => first.points[point] ?? ([0, 0] as const);
    return Object.entries(first.curves).flatMap(([id, curve]): Extent[] => {
      if (curve.kind === 'line' || curve.kind === 'text') {
        const [a, b] = [at(curve.from), at(curve.to)];
        return [{ drawn: Math.hypot(b[0] - a[0], b[1] - a[1]), of: slots.lines.get(id)! }];
      }
      if (curve.kind === 'circle') return [{ drawn: curve.radius, of: slots.rounds.get(id)! }];
      if (curve.kind === 'arc') {
        const [m, p] = [at(curve.center), at(curve.from)];
        return [{ drawn: Math.hypot(p[0] - m[0], p[1] - m[1]), of: slots.rounds.get(id)! }];
      }
      return [];
    });
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

  private rootedSlots(): SketchSlots {
    const { merger } = this;
    const rooted = (p: PointSlots): PointSlots => ({ x: merger.root(p.x), y: merger.root(p.y) });
    const map = <T>(from: ReadonlyMap<string, T>, change: (item: T) => T) =>
      new Map([...from].map(([id, item]) => [id, change(item)]));
    return {
      points: map(this.points, rooted),
      lines: map(this.lines, (l) => ({ from: rooted(l.from), to: rooted(l.to) })),
      rounds: map(this.rounds, (r) => ({
        center: rooted(r.center),
        radius: merger.root(r.radius),
        ends: r.ends.map(rooted),
      })),
      ellipses: map(this.ellipses, (e) => ({
        center: rooted(e.center),
        major: rooted(e.major),
        minor: merger.root(e.minor),
        ends: e.ends.map(rooted),
      })),
      splines: map(this.splines, (s) => ({ points: s.points.map(rooted), basis: s.basis })),
      steps: map(this.steps, ([a, b]) => [merger.root(a), merger.root(b)]),
    };
  }

  private note(id: string, outcomes: readonly MergeOutcome[]): true {
    if (outcomes.includes('clash')) this.clashing.add(id);
    else if (outcomes.every((o) => o === 'redundant')) this.redundant.add(id);
    return true;
  }

  /** Handle a constraint by merging or pinning variables; false if it needs an equation. */
  private mergeAway(id: string, c: Constraint): boolean {
    const { merger } = this;
    switch (c.kind) {
      case 'coincident': {
        const [p, q] = c.of.map((e) => this.points.get(e));
        if (!p || !q) return false;
        return this.note(id, [merger.merge(p.x, q.x), merger.merge(p.y, q.y)]);
      }
      case 'horizontal':
      case 'vertical': {
        const [p, q] = this.twoPoints(c);
        return this.note(id, [c.kind === 'horizontal' ? merger.merge(p.y, q.y) : merger.merge(p.x, q.x)]);
      }
      case 'concentric': {
        const [a, b] = c.of.map((e) => this.center(e) ?? refuse('Concentric needs two circles, arcs or ellipses.'));
        return this.note(id, [merger.merge(a!.x, b!.x), merger.merge(a!.y, b!.y)]);
      }
      case 'equal': {
        const [a, b] = c.of.map((e) => this.rounds.get(e)?.radius ?? this.ellipses.get(e)?.minor);
        if (a === undefined || b === undefined) return false;
        return this.note(id, [merger.merge(a, b)]);
      }
      case 'fixed':
        return this.note(id, this.pinWhole(c.of[0]!));
      case 'radius':
      case 'diameter': {
        const round = this.rounds.get(c.of[0]!) ?? refuse(`A ${c.kind} needs a circle or an arc.`);
        return this.note(id, [merger.pin(round.radius, this.size(id, c.kind) / (c.kind === 'radius' ? 1 : 2))]);
      }
      case 'minor_radius': {
        const ellipse = this.ellipses.get(c.of[0]!) ?? refuse('A minor radius needs an ellipse.');
        return this.note(id, [merger.pin(ellipse.minor, this.size(id, 'radius'))]);
      }
      case 'spacing':
      case 'spacing_across':
      case 'step_angle': {
        const steps = this.steps.get(c.of[0]!) ?? refuse('A spacing needs a pattern.');
        const value = this.dimension(id) * (c.kind === 'step_angle' ? STEP_ARM : 1);
        return this.note(id, [merger.pin(steps[c.kind === 'spacing_across' ? 1 : 0], value)]);
      }
      case 'count':
      case 'count_across':
        return true;
      default:
        return false;
    }
  }

  private size(id: string, what: string): number {
    const value = this.dimension(id);
    return value > 0 ? value : refuse(`A ${what} must be more than zero.`);
  }

  /** Pin a point, or all of a curve, where it is drawn. */
  private pinWhole(id: string): MergeOutcome[] {
    const { merger } = this;
    const values = (slots: readonly number[]) => slots.map((s) => merger.pin(s, merger.valueAt(s)));
    const point = this.points.get(id);
    if (point) return values([point.x, point.y]);
    const ends = (p: PointSlots) => [p.x, p.y];
    const line = this.lines.get(id);
    if (line) return values([...ends(line.from), ...ends(line.to)]);
    const round = this.rounds.get(id);
    if (round)
      return values([...ends(round.center), ...(round.ends.length > 0 ? round.ends.flatMap(ends) : [round.radius])]);
    const ellipse = this.ellipses.get(id);
    if (ellipse) return values([...ends(ellipse.center), ...ends(ellipse.major), ellipse.minor]);
    const spline = this.splines.get(id);
    return spline ? values(spline.points.flatMap(ends)) : refuse('Only a point or a curve can be fixed.');
  }

  private twoPoints(c: Constraint): [PointSlots, PointSlots] {
    const what = c.kind === 'horizontal' ? 'Horizontal' : 'Vertical';
    const message = `${what} needs a line or two points.`;
    if (c.of.length === 1) {
      const { from, to } = this.lines.get(c.of[0]!) ?? refuse(message);
      return [from, to];
    }
    const [p, q] = c.of.map((e) => this.points.get(e) ?? this.center(e));
    return p && q ? [p, q] : refuse(message);
  }

  private center(id: string): PointSlots | undefined {
    return (this.rounds.get(id) ?? this.ellipses.get(id))?.center;
  }
}

function refuse(message: string): never {
  throw new ConstraintMisfit(message);
}

/** Read the solved geometry back: positions of points, sizes of curves, steps of patterns. */
export function readGeometry(sketch: SketchGeometry, system: System): SketchGeometry {
  const v = system.values;
  const points: SketchGeometry['points'] = {};
  for (const id of Object.keys(sketch.points)) {
    const p = system.points.get(id)!;
    points[id] = [v[p.x]!, v[p.y]!];
  }
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
