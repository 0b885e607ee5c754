/** Turns a sketch and its dimensions' values into variables and equations. */
import { slotDifference } from './constraints/axis-distance.ts';
import { angleBetween, parallel, perpendicular } from './constraints/direction.ts';
import { pointDistance, pointLineDistance, sideOf } from './constraints/distance.ts';
import { equalLength } from './constraints/equal-length.ts';
import { midpoint, symmetric } from './constraints/midpoint.ts';
import { pointOnRound, tangentLineRound, tangentRounds } from './constraints/tangent.ts';
import { BUILT_IN, pointsOf, type Constraint, type SketchGeometry } from './schema.ts';
import type { Equation, LineSlots, PointSlots, RoundSlots } from './solver/equation.ts';
import { SlotMerger, type MergeOutcome } from './solver/merge.ts';

/** A constraint put on things it cannot hold for; the message is for the user. */
export class ConstraintMisfit extends Error {}

export interface System {
  /** Values by slot; merged slots are read through `root`. */
  readonly values: Float64Array;
  readonly merger: SlotMerger;
  readonly equations: readonly Equation[];
  readonly points: ReadonlyMap<string, PointSlots>;
  readonly lines: ReadonlyMap<string, LineSlots>;
  readonly rounds: ReadonlyMap<string, RoundSlots>;
  /** Constraints that found their slots already one, or pinned apart. */
  readonly redundant: readonly string[];
  readonly clashing: readonly string[];
}

/**
 * @param dimension the value of each dimension constraint by id, mm or rad
 * @param skip constraints to leave out
 */
export function buildSystem(
  sketch: SketchGeometry,
  dimension: (constraintId: string) => number,
  skip: ReadonlySet<string> = new Set(),
): System {
  return new SystemBuilder(sketch, dimension, skip).build();
}

class SystemBuilder {
  private readonly merger = new SlotMerger();
  private readonly points = new Map<string, PointSlots>();
  private readonly lines = new Map<string, LineSlots>();
  private readonly rounds = new Map<string, RoundSlots>();
  private readonly redundant = new Set<string>();
  private readonly clashing = new Set<string>();

  constructor(
    private readonly sketch: SketchGeometry,
    private readonly dimension: (id: string) => number,
    private readonly skip: ReadonlySet<string>,
  ) {
    const point = (x: number, y: number, fixed: boolean) => ({
      x: this.merger.add(x, fixed),
      y: this.merger.add(y, fixed),
    });
    const origin = point(0, 0, true);
    this.points.set(BUILT_IN.origin, origin);
    this.lines.set(BUILT_IN.xAxis, { from: origin, to: point(1, 0, true) });
    this.lines.set(BUILT_IN.yAxis, { from: origin, to: point(0, 1, true) });
    for (const [id, [x, y]] of Object.entries(sketch.points)) this.points.set(id, point(x, y, false));
    for (const [id, curve] of Object.entries(sketch.curves)) {
      const at = pointsOf(curve).map((p) => this.points.get(p)!);
      if (curve.kind === 'line') this.lines.set(id, { from: at[0]!, to: at[1]! });
      else {
        const radius = curve.kind === 'circle' ? curve.radius : this.drawnRadius(curve.center, curve.from);
        this.rounds.set(id, { center: at[0]!, radius: this.merger.add(radius, false), ends: at.slice(1) });
      }
    }
  }

  private drawnRadius(center: string, end: string): number {
    const [cx, cy] = this.sketch.points[center] ?? [0, 0];
    const [ex, ey] = this.sketch.points[end] ?? [0, 0];
    return Math.hypot(ex - cx, ey - cy);
  }

  build(): System {
    const constraints = Object.entries(this.sketch.constraints).filter(([id]) => !this.skip.has(id));
    const waiting = constraints.filter(([id, c]) => !this.mergeAway(id, c));
    const values = this.merger.values();
    const equations: Equation[] = [];
    for (const [id, round] of this.rounds) {
      for (const end of round.ends) equations.push(pointOnRound(id, this.rooted(end), this.rootedRound(round)));
    }
    for (const [id, constraint] of waiting) equations.push(...this.equationsOf(id, constraint, values));
    const rootPoints = new Map([...this.points].map(([id, p]) => [id, this.rooted(p)]));
    return {
      values,
      merger: this.merger,
      equations,
      points: rootPoints,
      lines: new Map([...this.lines].map(([id, l]) => [id, this.rootedLine(l)])),
      rounds: new Map([...this.rounds].map(([id, r]) => [id, this.rootedRound(r)])),
      redundant: [...this.redundant],
      clashing: [...this.clashing],
    };
  }

  private rooted = (p: PointSlots): PointSlots => ({ x: this.merger.root(p.x), y: this.merger.root(p.y) });
  private rootedLine = (l: LineSlots): LineSlots => ({ from: this.rooted(l.from), to: this.rooted(l.to) });
  private rootedRound = (r: RoundSlots): RoundSlots => ({
    center: this.rooted(r.center),
    radius: this.merger.root(r.radius),
    ends: r.ends.map(this.rooted),
  });

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
        const [a, b] = c.of.map((e) => this.center(e, 'Concentric needs two circles or arcs.'));
        return this.note(id, [merger.merge(a!.x, b!.x), merger.merge(a!.y, b!.y)]);
      }
      case 'equal': {
        const [a, b] = c.of.map((e) => this.rounds.get(e));
        if (!a || !b) return false;
        return this.note(id, [merger.merge(a.radius, b.radius)]);
      }
      case 'fixed': {
        const p = this.point(c.of[0]!, 'Only a point can be fixed.');
        const [x, y] = this.sketch.points[c.of[0]!] ?? [0, 0];
        return this.note(id, [merger.pin(p.x, x), merger.pin(p.y, y)]);
      }
      case 'radius':
      case 'diameter': {
        const round = this.round(c.of[0]!, `A ${c.kind} needs a circle or an arc.`);
        const value = this.dimension(id);
        if (!(value > 0)) throw new ConstraintMisfit(`A ${c.kind} must be more than zero.`);
        return this.note(id, [merger.pin(round.radius, c.kind === 'radius' ? value : value / 2)]);
      }
      default:
        return false;
    }
  }

  private equationsOf(id: string, c: Constraint, v: Float64Array): Equation[] {
    const line = (e: string, message: string) => this.rootedLine(this.line(e, message));
    switch (c.kind) {
      case 'coincident':
        return this.pointOnCurve(id, c.of);
      case 'equal': {
        const both = 'Equal needs two lines, or two circles or arcs.';
        return [equalLength(id, line(c.of[0]!, both), line(c.of[1]!, both))];
      }
      case 'parallel':
      case 'perpendicular': {
        const message = `${c.kind === 'parallel' ? 'Parallel' : 'Perpendicular'} needs two lines.`;
        return [
          (c.kind === 'parallel' ? parallel : perpendicular)(id, line(c.of[0]!, message), line(c.of[1]!, message)),
        ];
      }
      case 'tangent':
        return [this.tangent(id, c.of, v)];
      case 'midpoint': {
        const middle = this.point(c.of[0]!, 'Midpoint needs a point and a line.');
        const on = line(c.of[1]!, 'Midpoint needs a point and a line.');
        return midpoint(id, this.rooted(middle), on.from, on.to);
      }
      case 'symmetric': {
        const message = 'Symmetric needs two points and the line between them.';
        return symmetric(
          id,
          this.rooted(this.point(c.of[0]!, message)),
          this.rooted(this.point(c.of[1]!, message)),
          line(c.of[2]!, message),
        );
      }
      case 'angle': {
        const message = 'An angle needs two lines.';
        return [angleBetween(id, line(c.of[0]!, message), line(c.of[1]!, message), this.dimension(id))];
      }
      case 'distance':
        return [this.distance(id, c.of, v)];
      case 'horizontal_distance':
      case 'vertical_distance': {
        const [p, q] = this.twoPoints(c).map(this.rooted);
        const [a, b] = c.kind === 'horizontal_distance' ? [p!.x, q!.x] : [p!.y, q!.y];
        return [slotDifference(id, a, b, this.length(id), v[b]! < v[a]! ? -1 : 1)];
      }
      default:
        return [];
    }
  }

  private length(id: string): number {
    const value = this.dimension(id);
    if (value < 0) throw new ConstraintMisfit('A distance cannot be negative; type it without the minus sign.');
    return value;
  }

  private pointOnCurve(id: string, of: readonly string[]): Equation[] {
    const message = 'Coincident needs two points, or a point and a curve.';
    const pointId = of.find((e) => this.points.has(e));
    const otherId = of.find((e) => e !== pointId);
    if (!pointId || !otherId) throw new ConstraintMisfit(message);
    const p = this.rooted(this.points.get(pointId)!);
    const line = this.lines.get(otherId);
    if (line) return [pointLineDistance(id, p, this.rootedLine(line), 0, 1)];
    return [pointOnRound(id, p, this.rootedRound(this.round(otherId, message)))];
  }

  private tangent(id: string, of: readonly string[], v: Float64Array): Equation {
    const message = 'Tangent needs a line and a circle or arc, or two circles or arcs.';
    const meeting = (e: string): RoundSlots => {
      const round = this.rootedRound(this.round(e, message));
      return { ...round, ends: [...round.ends, ...this.pointsHeldOn(e)] };
    };
    const lineId = of.find((e) => this.lines.has(e));
    if (lineId) {
      const other = of.find((e) => e !== lineId);
      return tangentLineRound(id, this.rootedLine(this.lines.get(lineId)!), meeting(other ?? ''), v);
    }
    const [a, b] = of.map(meeting);
    return tangentRounds(id, a!, b!, v);
  }

  /** Points that a coincidence holds on a circle or arc: a tangency at one of them is at its end. */
  private pointsHeldOn(round: string): PointSlots[] {
    return Object.entries(this.sketch.constraints).flatMap(([id, c]) => {
      if (c.kind !== 'coincident' || this.skip.has(id) || !c.of.includes(round)) return [];
      const point = this.points.get(c.of.find((e) => e !== round) ?? '');
      return point ? [this.rooted(point)] : [];
    });
  }

  private distance(id: string, of: readonly string[], v: Float64Array): Equation {
    const message = 'A distance needs a line, two points, a point and a line, or two parallel lines.';
    const d = this.length(id);
    if (of.length === 1) {
      const { from, to } = this.rootedLine(this.line(of[0]!, message));
      return pointDistance(id, from, to, d);
    }
    // A circle stands for its centre.
    const points = of.map((e) => this.points.get(e) ?? this.rounds.get(e)?.center);
    const lines = of.map((e) => this.lines.get(e));
    if (points[0] && points[1]) return pointDistance(id, this.rooted(points[0]), this.rooted(points[1]), d);
    const line = lines[0] ?? lines[1];
    if (!line) throw new ConstraintMisfit(message);
    const point = points[0] ?? points[1] ?? lines[1]?.from;
    if (!point) throw new ConstraintMisfit(message);
    const on = this.rootedLine(line);
    const p = this.rooted(point);
    return pointLineDistance(id, p, on, d, sideOf(v, p, on));
  }

  private twoPoints(c: Constraint): [PointSlots, PointSlots] {
    const message = `${c.kind.replace('_', ' ')} needs a line or two points.`;
    if (c.of.length === 1) {
      const { from, to } = this.line(c.of[0]!, message);
      return [from, to];
    }
    const [p, q] = c.of.map((e) => this.points.get(e) ?? this.rounds.get(e)?.center);
    if (!p || !q) throw new ConstraintMisfit(message.charAt(0).toUpperCase() + message.slice(1));
    return [p, q];
  }

  private point(id: string, message: string): PointSlots {
    return this.points.get(id) ?? refuse(message);
  }
  private line(id: string, message: string): LineSlots {
    return this.lines.get(id) ?? refuse(message);
  }
  private round(id: string, message: string): RoundSlots {
    return this.rounds.get(id) ?? refuse(message);
  }
  private center(id: string, message: string): PointSlots {
    return this.round(id, message).center;
  }
}

function refuse(message: string): never {
  throw new ConstraintMisfit(message);
}

/** Read the solved geometry back: positions of points, radii of circles. */
export function readGeometry(sketch: SketchGeometry, system: System): SketchGeometry {
  const v = system.values;
  const points: SketchGeometry['points'] = {};
  for (const id of Object.keys(sketch.points)) {
    const p = system.points.get(id)!;
    points[id] = [v[p.x]!, v[p.y]!];
  }
  const curves: SketchGeometry['curves'] = {};
  for (const [id, curve] of Object.entries(sketch.curves)) {
    curves[id] = curve.kind === 'circle' ? { ...curve, radius: v[system.rounds.get(id)!.radius]! } : curve;
  }
  return { points, curves, constraints: sketch.constraints };
}
