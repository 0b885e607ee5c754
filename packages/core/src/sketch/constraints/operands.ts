/** What constraints are put on, as unknowns: found by id, or refused in the constraint's own words. */
import type { CurveSlots, PlaceOn } from '../equations/contact.ts';
import type { NewSlot } from '../equations/contact-start.ts';
import type { Constraint, SketchGeometry } from '../schema.ts';
import type { LineSlots, PointSlots, RoundSlots } from '../solver/equation.ts';
import type { MergeOutcome, SlotMerger } from '../solver/merge.ts';
import type { SketchSlots } from '../solver/slots.ts';
import { ConstraintMisfit } from './misfit.ts';

export function refuse(message: string): never {
  throw new ConstraintMisfit(message);
}

export const samePoint = (a: PointSlots, b: PointSlots) => a.x === b.x && a.y === b.y;

class Operands {
  /** @param value the number of each dimension by id: mm, rad or a count */
  constructor(
    readonly sketch: SketchGeometry,
    readonly slots: SketchSlots,
    readonly value: (id: string) => number,
  ) {}

  length(id: string): number {
    const value = this.value(id);
    return value < 0 ? refuse('A distance cannot be negative; type it without the minus sign.') : value;
  }

  positive(id: string, what: string): number {
    const value = this.value(id);
    return value > 0 ? value : refuse(`${what} must be more than zero.`);
  }

  point(id: string, message: string): PointSlots {
    return this.slots.points.get(id) ?? refuse(message);
  }

  line(id: string, message: string): LineSlots {
    return this.slots.lines.get(id) ?? refuse(message);
  }

  center(id: string): PointSlots | undefined {
    const { rounds, ellipses } = this.slots;
    return (rounds.get(id) ?? ellipses.get(id))?.center;
  }

  /** A point, or the centre of a round curve. */
  place(id: string): PointSlots | undefined {
    return this.slots.points.get(id) ?? this.center(id);
  }

  /** The ends of one line, or two places. */
  twoPlaces(of: readonly string[], message: string): readonly [PointSlots, PointSlots] {
    if (of.length === 1) {
      const { from, to } = this.line(of[0]!, message);
      return [from, to];
    }
    const [p, q] = of.map((e) => this.place(e));
    return p && q ? [p, q] : refuse(message);
  }
}

/** Before any equation: unknowns can be made one, or pinned. */
export class Merging extends Operands {
  constructor(
    sketch: SketchGeometry,
    slots: SketchSlots,
    value: (id: string) => number,
    private readonly merger: SlotMerger,
  ) {
    super(sketch, slots, value);
  }

  same(a: number, b: number): MergeOutcome {
    return this.merger.merge(a, b);
  }

  samePlace(p: PointSlots, q: PointSlots): readonly MergeOutcome[] {
    return [this.same(p.x, q.x), this.same(p.y, q.y)];
  }

  pin(slot: number, value: number): MergeOutcome {
    return this.merger.pin(slot, value);
  }

  /** Pin slots where they are drawn. */
  hold(slots: readonly number[]): readonly MergeOutcome[] {
    return slots.map((s) => this.merger.pin(s, this.merger.valueAt(s)));
  }
}

/** Making equations: what was merged is one, and where things are drawn decides on which side they hold. */
export class Equating extends Operands {
  private heldOn: Map<string, PointSlots[]> | null = null;
  /** Point pairs that curves mirrored as wholes have in common. */
  readonly mirrored = new Set<string>();

  /**
   * @param v values as drawn
   * @param newContact makes an unknown for where curves touch
   */
  constructor(
    sketch: SketchGeometry,
    slots: SketchSlots,
    value: (id: string) => number,
    readonly v: Float64Array,
    private readonly constraints: readonly (readonly [string, Constraint])[],
    readonly newContact: NewSlot,
  ) {
    super(sketch, slots, value);
  }

  curve(id: string): CurveSlots | undefined {
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

  twoCurves(of: readonly string[], message: string): [CurveSlots, CurveSlots] {
    const [one, other] = of.map((e) => this.curve(e));
    return one && other ? [one, other] : refuse(message);
  }

  /** A round with all points that meet it: its ends, and those that a coincidence holds on it. */
  meeting(id: string, round: RoundSlots): RoundSlots {
    return { ...round, ends: [...round.ends, ...this.pointsHeldOn(id)] };
  }

  /** The end two curves share, as a place on each; an end that is held on the other curve counts. */
  sharedPlace(of: readonly string[], one: CurveSlots, other: CurveSlots): [PlaceOn, PlaceOn] | null {
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
}
