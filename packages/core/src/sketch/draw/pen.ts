/** Adding geometry to a sketch that is being edited. Positions in mm on its plane. */
import { newId, type RandomSource } from '../../ids/ids.ts';
import { BUILT_IN, type Constraint, type Curve, type DimensionConstraint, type SketchGeometry } from '../schema.ts';

export type Place = readonly [number, number];

/** Where a drawn point goes: to an existing point, or to a fresh one, perhaps on a curve. */
export interface Anchor {
  readonly at: Place;
  /** An existing point (or origin) it lands on. */
  readonly point?: string;
  /** A curve it lands on. */
  readonly on?: string;
  /** It lands on the middle of that line. */
  readonly middle?: true;
  /** What a line drawn to here would be, shown before the click. */
  readonly inferred?: Inferred;
}

export type Inferred =
  | { readonly kind: 'horizontal' | 'vertical' }
  | { readonly kind: 'parallel' | 'perpendicular' | 'tangent'; readonly to: string };

export class SketchPen {
  constructor(
    readonly sketch: SketchGeometry,
    private readonly random?: RandomSource,
  ) {}

  /** An id not yet used in the sketch. */
  fresh(prefix: string): string {
    let id: string;
    do id = newId(prefix, this.random);
    while (
      id in this.sketch.points ||
      id in this.sketch.curves ||
      id in this.sketch.constraints ||
      id in (this.sketch.patterns ?? {})
    );
    return id;
  }

  point(anchor: Anchor): string {
    if (anchor.point && anchor.point !== BUILT_IN.origin) return anchor.point;
    const id = this.fresh('p');
    this.sketch.points[id] = [anchor.at[0], anchor.at[1]];
    if (anchor.point) this.constrain({ kind: 'coincident', of: [id, anchor.point] });
    else if (anchor.on) this.constrain({ kind: anchor.middle ? 'midpoint' : 'coincident', of: [id, anchor.on] });
    return id;
  }

  constrain(constraint: Constraint): string {
    const id = this.fresh('k');
    this.sketch.constraints[id] = constraint;
    return id;
  }

  line(from: string, to: string, construction = false): string {
    const id = this.fresh('l');
    this.sketch.curves[id] = { kind: 'line', from, to, ...(construction ? { construction } : {}) };
    return id;
  }

  circle(center: string, radius: number, construction = false): string {
    return this.curve('c', { kind: 'circle', center, radius, ...(construction ? { construction } : {}) });
  }

  /** An arc between two points about a centre, the way that passes from the first to the second. */
  arc(center: string, from: string, to: string, counterClockwise: boolean, construction = false): string {
    const [a, b] = counterClockwise ? [from, to] : [to, from];
    return this.curve('a', { kind: 'arc', center, from: a, to: b, ...(construction ? { construction } : {}) });
  }

  curve(prefix: string, curve: Curve): string {
    const id = this.fresh(prefix);
    this.sketch.curves[id] = curve;
    return id;
  }

  /** Where a point stands. */
  at(point: string): Place {
    return this.sketch.points[point] ?? [0, 0];
  }

  /** A typed number becomes the stroke's own dimension. */
  dimension(kind: DimensionConstraint['kind'], of: string[], expression: string, name?: string): string {
    const named = name === undefined ? {} : { name: this.freeName(name) };
    return this.constrain({ kind, of, value: expression, ...named } as Constraint);
  }

  private freeName(base: string): string {
    const taken = new Set(Object.values(this.sketch.constraints).map((c) => ('value' in c ? c.name : undefined)));
    let name = base;
    for (let n = 2; taken.has(name); n++) name = `${base}_${n}`;
    return name;
  }
}
