/** The equations of each kind of constraint, on the variables of the things it is put on. */
import { slotDifference } from './constraints/axis-distance.ts';
import { alongAt, nearestParameter, nearestTouch, type NewSlot } from './constraints/contact-start.ts';
import {
  arcLength, pointOnEllipse, pointOnSpline, sameBend, sameDirection, touching, type CurveSlots, type PlaceOn,
} from './constraints/contact.ts'; // prettier-ignore
import { angleBetween, parallel, perpendicular } from './constraints/direction.ts';
import { pointDistance, pointLineDistance, sideOf, withRadius } from './constraints/distance.ts';
import { equalLength } from './constraints/equal-length.ts';
import { midpoint, symmetric } from './constraints/midpoint.ts';
import { evenLines, evenPoints } from './constraints/spacing.ts';
import { pointOnRound, tangentLineRound, tangentRounds } from './constraints/tangent.ts';
import { ConstraintMisfit } from './constraints/misfit.ts';
import { squareEnds } from './constraints/square-ends.ts';
import { letteringProportion } from './lettering/lettering.ts';
import { endsOf, pointsOf, type Constraint, type SketchGeometry } from './schema.ts';
import type { Equation, LineSlots, PointSlots, RoundSlots } from './solver/equation.ts';
import type { SketchSlots } from './solver/slots.ts';

function refuse(message: string): never {
  throw new ConstraintMisfit(message);
}

const samePoint = (a: PointSlots, b: PointSlots) => a.x === b.x && a.y === b.y;

/** Of a line, any place will do for its direction. */
const legPlace = (line: LineSlots): PlaceOn => ({ at: 'point', point: line.from });

export class ConstraintEquations {
  /** Point pairs that curves mirrored as wholes have in common. */
  private readonly mirrored = new Set<string>();
  private heldOn: Map<string, PointSlots[]> | null = null;

  /**
   * @param v values as drawn: they decide on which side, outside or inside, a constraint holds
   * @param newContact makes an unknown for where curves touch
   */
  constructor(
    private readonly slots: SketchSlots,
    private readonly v: Float64Array,
    private readonly constraints: readonly (readonly [string, Constraint])[],
    private readonly sketch: SketchGeometry,
    private readonly dimension: (id: string) => number,
    private readonly newContact: NewSlot,
  ) {}

  of(id: string, c: Constraint): Equation[] {
    switch (c.kind) {
      case 'coincident':
        return this.pointOnCurve(id, c.of);
      case 'equal': {
        const both = 'Equal needs two lines, or two circles or arcs.';
        return [equalLength(id, this.line(c.of[0]!, both), this.line(c.of[1]!, both))];
      }
      case 'parallel':
      case 'perpendicular': {
        const message = `${c.kind === 'parallel' ? 'Parallel' : 'Perpendicular'} needs two lines.`;
        const make = c.kind === 'parallel' ? parallel : perpendicular;
        return [make(id, this.line(c.of[0]!, message), this.line(c.of[1]!, message))];
      }
      case 'collinear': {
        const [a, b] = c.of.map((e) => this.line(e, 'Collinear needs two lines.'));
        // An end they already share is on the line anyway.
        const apart = [b!.from, b!.to].filter((p) => !samePoint(p, a!.from) && !samePoint(p, a!.to));
        return apart.map((p) => pointLineDistance(id, p, a!, 0, 1));
      }
      case 'tangent':
        return this.tangent(id, c.of);
      case 'smooth':
        return this.smooth(id, c.of);
      case 'midpoint': {
        const message = 'Midpoint needs a point and a line.';
        const on = this.line(c.of[1]!, message);
        return midpoint(id, this.point(c.of[0]!, message), on.from, on.to);
      }
      case 'symmetric':
        return this.symmetric(id, c.of);
      case 'equal_spacing':
        return this.equalSpacing(id, c.of);
      case 'angle': {
        const message = 'An angle needs two lines.';
        const [one, other] = c.of.map((e) => this.line(e, message));
        const turned = (l: LineSlots) => ({ from: l.to, to: l.from });
        const first = c.reversed === 'first' || c.reversed === 'both' ? turned(one!) : one!;
        const second = c.reversed === 'second' || c.reversed === 'both' ? turned(other!) : other!;
        return [angleBetween(id, first, second, this.dimension(id))];
      }
      case 'distance':
        return [this.distance(id, c.of, this.length(id), c.rims)];
      case 'across':
        return [this.distance(id, c.of, this.length(id) / 2)];
      case 'horizontal_distance':
      case 'vertical_distance': {
        const [p, q] = this.twoPoints(c);
        const [a, b] = c.kind === 'horizontal_distance' ? [p.x, q.x] : [p.y, q.y];
        return [slotDifference(id, a, b, this.length(id), this.v[b]! < this.v[a]! ? -1 : 1)];
      }
      case 'offset':
        return this.offset(id, c.of, this.length(id));
      case 'arc_length': {
        const round = this.slots.rounds.get(c.of[0]!);
        if (!round || round.ends.length === 0) refuse('An arc length needs an arc.');
        return [arcLength(id, round, this.positive(id, 'An arc length'))];
      }
      case 'major_radius': {
        const ellipse = this.slots.ellipses.get(c.of[0]!) ?? refuse('A major radius needs an ellipse.');
        return [pointDistance(id, ellipse.center, ellipse.major, this.positive(id, 'A radius'))];
      }
      case 'text_height': {
        const text = this.sketch.curves[c.of[0]!];
        if (text?.kind !== 'text') refuse('A text height needs a lettering.');
        const { from, to } = this.slots.lines.get(c.of[0]!)!;
        return [pointDistance(id, from, to, this.positive(id, 'A height') * letteringProportion(text.text))];
      }
      default:
        return [];
    }
  }

  private length(id: string): number {
    const value = this.dimension(id);
    return value < 0 ? refuse('A distance cannot be negative; type it without the minus sign.') : value;
  }
  private positive(id: string, what: string): number {
    const value = this.dimension(id);
    return value > 0 ? value : refuse(`${what} must be more than zero.`);
  }

  private curve(id: string): CurveSlots | undefined {
    const { lines, rounds, ellipses, splines } = this.slots;
    if (this.sketch.curves[id]?.kind === 'text') return undefined;
    const line = lines.get(id);
    if (line) return { kind: 'line', ...line };
    const round = rounds.get(id);
    if (round) return { kind: 'round', ...round };
    const ellipse = ellipses.get(id);
    if (ellipse) return { kind: 'ellipse', ...ellipse };
    const spline = splines.get(id);
    return spline && { kind: 'spline', ...spline };
  }

  private pointOnCurve(id: string, of: readonly string[]): Equation[] {
    const message = 'Coincident needs two points, or a point and a curve.';
    const pointId = of.find((e) => this.slots.points.has(e));
    const curve = this.curve(of.find((e) => e !== pointId) ?? '');
    if (!pointId || !curve) refuse(message);
    const p = this.slots.points.get(pointId)!;
    switch (curve.kind) {
      case 'line':
        return [pointLineDistance(id, p, curve, 0, 1)];
      case 'round':
        return [pointOnRound(id, p, curve)];
      case 'ellipse':
        return [pointOnEllipse(id, p, curve)];
      case 'spline':
        return pointOnSpline(id, p, curve, alongAt(curve, nearestParameter(curve, p, this.v), this.v, this.newContact));
    }
  }

  private tangent(id: string, of: readonly string[]): Equation[] {
    const [one, other] = this.twoCurves(of, 'Tangent needs two curves.');
    const simple = (c: CurveSlots) => c.kind === 'line' || c.kind === 'round';
    if (simple(one) && simple(other)) return [this.tangentSimple(id, of, one, other)];
    const shared = this.sharedPlace(of, one, other);
    if (shared)
      return [this.alike(id, this.endLeg(one, shared[0]), shared[0], this.endLeg(other, shared[1]), shared[1])];
    const [s, t] = nearestTouch(one, other, this.v);
    const place = (c: CurveSlots, at: number): PlaceOn => ({
      at: 'along',
      along: alongAt(c, at, this.v, this.newContact),
    });
    return touching(id, one, place(one, s), other, place(other, t));
  }

  /** Same direction at a shared end; of two straight legs, by the plain equation. */
  private alike(id: string, one: CurveSlots, atOne: PlaceOn, other: CurveSlots, atOther: PlaceOn): Equation {
    if (one.kind === 'line' && other.kind === 'line') return parallel(id, one, other);
    return sameDirection(
      id,
      one,
      one.kind === 'line' ? legPlace(one) : atOne,
      other,
      other.kind === 'line' ? legPlace(other) : atOther,
    );
  }

  /** At its end, a spline by control points runs along the leg between the last two of them. */
  private endLeg(curve: CurveSlots, place: PlaceOn): CurveSlots {
    if (curve.kind !== 'spline' || curve.basis.matrix !== null || place.at !== 'end') return curve;
    const points = place.parameter === 0 ? curve.points : [...curve.points].reverse();
    return { kind: 'line', from: points[0]!, to: points[1]! };
  }

  private tangentSimple(id: string, of: readonly string[], one: CurveSlots, other: CurveSlots): Equation {
    const meeting = (e: string, round: RoundSlots): RoundSlots => ({
      ...round,
      ends: [...round.ends, ...this.pointsHeldOn(e)],
    });
    if (one.kind === 'line' && other.kind === 'round') return tangentLineRound(id, one, meeting(of[1]!, other), this.v);
    if (one.kind === 'round' && other.kind === 'line') return tangentLineRound(id, other, meeting(of[0]!, one), this.v);
    if (one.kind === 'round' && other.kind === 'round')
      return tangentRounds(id, meeting(of[0]!, one), meeting(of[1]!, other), this.v);
    return refuse('Two lines cannot be tangent; make them collinear.');
  }

  private smooth(id: string, of: readonly string[]): Equation[] {
    const [one, other] = this.twoCurves(of, 'Smooth needs two curves.');
    const shared = this.sharedPlace(of, one, other);
    if (!shared) refuse('Smooth needs two curves that share an end; make their ends coincident first.');
    return [sameDirection(id, one, shared[0], other, shared[1]), sameBend(id, one, shared[0], other, shared[1])];
  }

  /** The end two curves share, as a place on each; an end that is held on the other curve counts. */
  private sharedPlace(of: readonly string[], one: CurveSlots, other: CurveSlots): [PlaceOn, PlaceOn] | null {
    const placesOn = (id: string, c: CurveSlots): { point: PointSlots; place: PlaceOn }[] => {
      const ends = c.kind === 'line' ? [c.from, c.to] : c.kind === 'spline' ? [c.points[0]!, c.points.at(-1)!] : c.ends;
      const own = ends.map((point, i) => ({
        point,
        place: (c.kind === 'spline' ? { at: 'end', parameter: i } : { at: 'point', point }) as PlaceOn,
      }));
      if (c.kind === 'spline') return own;
      return [...own, ...this.pointsHeldOn(id).map((point) => ({ point, place: { at: 'point', point } as PlaceOn }))];
    };
    const others = placesOn(of[1]!, other);
    for (const a of placesOn(of[0]!, one)) {
      const b = others.find((p) => samePoint(p.point, a.point));
      if (b) return [a.place, b.place];
    }
    return null;
  }

  private twoCurves(of: readonly string[], message: string): [CurveSlots, CurveSlots] {
    const [one, other] = of.map((e) => this.curve(e));
    return one && other ? [one, other] : refuse(message);
  }

  /** Points that a coincidence holds on a curve: a tangency at one of them is at its end. */
  private pointsHeldOn(curve: string): readonly PointSlots[] {
    this.heldOn ??= this.indexHeld();
    return this.heldOn.get(curve) ?? [];
  }

  private indexHeld(): Map<string, PointSlots[]> {
    const held = new Map<string, PointSlots[]>();
    for (const [, c] of this.constraints) {
      if (c.kind !== 'coincident') continue;
      c.of.forEach((curve, i) => {
        const point = this.slots.points.get(c.of[1 - i]!);
        if (!point || this.slots.points.has(curve)) return;
        const list = held.get(curve);
        if (list) list.push(point);
        else held.set(curve, [point]);
      });
    }
    return held;
  }

  private symmetric(id: string, of: readonly string[]): Equation[] {
    const message = 'Symmetric needs two points, or two curves of a kind, and the line between them.';
    const axis = this.line(of[2]!, message);
    const { points } = this.slots;
    if (points.has(of[0]!) || points.has(of[1]!))
      return symmetric(id, this.point(of[0]!, message), this.point(of[1]!, message), axis);
    const [a, b] = [this.sketch.curves[of[0]!], this.sketch.curves[of[1]!]];
    if (!a || !b || a.kind !== b.kind) refuse(message);
    const [from, to] = [pointsOf(a), pointsOf(b)];
    if (from.length !== to.length) refuse(message);
    // Mirrored, an arc runs the other way round.
    const turned = a.kind === 'arc' || a.kind === 'elliptical_arc';
    const swapped = turned
      ? [...to.slice(0, -2), to.at(-1)!, to.at(-2)!]
      : (a.kind === 'line' || a.kind === 'spline') && this.liesOpposite(from, [...to].reverse(), to, axis)
        ? [...to].reverse()
        : to;
    return from.flatMap((p, i) => {
      const pair = [p, swapped[i]!];
      const key = `${pair.sort().join()} ${of[2]}`;
      if (this.mirrored.has(key) || pair[0] === pair[1]) return [];
      this.mirrored.add(key);
      return symmetric(id, points.get(p)!, points.get(swapped[i]!)!, axis);
    });
  }

  /** As drawn, do these points lie opposite their partners rather than those do? A profile drawn round has its halves run contrary. */
  private liesOpposite(
    from: readonly string[],
    these: readonly string[],
    those: readonly string[],
    axis: LineSlots,
  ): boolean {
    const { v } = this;
    const [ax, ay] = [v[axis.from.x]!, v[axis.from.y]!];
    const [dx, dy] = [v[axis.to.x]! - ax, v[axis.to.y]! - ay];
    const square = Math.max(dx * dx + dy * dy, 1e-300);
    const away = (partners: readonly string[]) =>
      from.reduce((sum, id, i) => {
        const [p, q] = [this.slots.points.get(id)!, this.slots.points.get(partners[i]!)!];
        const t = ((v[p.x]! - ax) * dx + (v[p.y]! - ay) * dy) / square;
        const [mx, my] = [2 * (ax + t * dx) - v[p.x]!, 2 * (ay + t * dy) - v[p.y]!];
        return sum + Math.hypot(v[q.x]! - mx, v[q.y]! - my);
      }, 0);
    return away(these) < away(those) * (1 - 1e-9);
  }

  /** Lines keep both ends at the distance, rounds their centre and the difference of their radii; open ends stay square. */
  private offset(id: string, of: readonly string[], d: number): Equation[] {
    const { lines, rounds, points } = this.slots;
    const held = squareEnds(this.sketch, of.filter((_, i) => i % 2 === 0)); // prettier-ignore
    return of.flatMap((original, i) => {
      if (i % 2 === 1) return [];
      const copy = of[i + 1] ?? '';
      const [a, b] = [lines.get(original), lines.get(copy)];
      const [p, q] = [rounds.get(original), rounds.get(copy)];
      const square = (endsOf(this.sketch.curves[original]!) ?? []).flatMap((end, k) => {
        const other = endsOf(this.sketch.curves[copy]!)?.[k];
        if (!held.get(original)?.has(end) || other === undefined) return [];
        const [from, to] = [points.get(end)!, points.get(other)!];
        return a
          ? [perpendicular(id, a, { from, to })]
          : [parallel(id, { from: p!.center, to: from }, { from: p!.center, to })];
      });
      if (a && b) {
        const ends = [b.from, b.to].map((end) => pointLineDistance(id, end, a, d, sideOf(this.v, end, a)));
        return [...ends, ...square];
      }
      if (!p || !q) return refuse('An offset needs lines, arcs and circles.');
      const larger = this.v[q.radius]! >= this.v[p.radius]! ? 1 : -1;
      const centre = [
        slotDifference(id, p.center.x, q.center.x, 0, 1),
        slotDifference(id, p.center.y, q.center.y, 0, 1),
      ];
      return [...centre, slotDifference(id, p.radius, q.radius, d, larger), ...square];
    });
  }

  private equalSpacing(id: string, of: readonly string[]): Equation[] {
    const lines = of.map((e) => this.slots.lines.get(e));
    if (lines.every((l) => l)) {
      return lines.slice(2).map((l, i) => evenLines(id, lines[i]!, lines[i + 1]!, l!));
    }
    const places = of.map((e) => this.place(e) ?? refuse('Equal spacing needs points, circles, or parallel lines.'));
    return places.slice(2).flatMap((p, i) => evenPoints(id, places[i]!, places[i + 1]!, p));
  }

  private distance(
    id: string,
    of: readonly string[],
    d: number,
    rims?: readonly ('center' | 'near' | 'far')[],
  ): Equation {
    const message = 'A distance needs a line, two points, a point and a line, or two parallel lines.';
    if (of.length === 1) {
      const { from, to } = this.line(of[0]!, message);
      return pointDistance(id, from, to, d);
    }
    const radii = of.flatMap((e, i) => {
      const round = this.slots.rounds.get(e);
      const rim = rims?.[i] ?? 'center';
      return round && rim !== 'center' ? [{ slot: round.radius, far: rim === 'far' }] : [];
    });
    return withRadius(id, this.centerDistance(id, of, d, message), radii, this.v, d);
  }

  /** A circle stands for its centre. */
  private centerDistance(id: string, of: readonly string[], d: number, message: string): Equation {
    const points = of.map((e) => this.place(e));
    const lines = of.map((e) => this.slots.lines.get(e));
    if (points[0] && points[1]) return pointDistance(id, points[0], points[1], d);
    const line = lines[0] ?? lines[1];
    const point = points[0] ?? points[1] ?? lines[1]?.from;
    if (!line || !point) refuse(message);
    return pointLineDistance(id, point, line, d, sideOf(this.v, point, line));
  }

  private place(id: string): PointSlots | undefined {
    const { points, rounds, ellipses } = this.slots;
    return points.get(id) ?? (rounds.get(id) ?? ellipses.get(id))?.center;
  }

  private twoPoints(c: Constraint): [PointSlots, PointSlots] {
    const message = `${c.kind === 'horizontal_distance' ? 'A horizontal' : 'A vertical'} distance needs a line or two points.`;
    if (c.of.length === 1) {
      const { from, to } = this.line(c.of[0]!, message);
      return [from, to];
    }
    const [p, q] = c.of.map((e) => this.place(e));
    return p && q ? [p, q] : refuse(message);
  }

  private point(id: string, message: string): PointSlots {
    return this.slots.points.get(id) ?? refuse(message);
  }
  private line(id: string, message: string): LineSlots {
    return this.slots.lines.get(id) ?? refuse(message);
  }
}
