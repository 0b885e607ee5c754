/** Which constraints and dimensions fit what is picked, and how a dimension would read now. */
import {
  pointsOf,
  endsOf,
  BUILT_IN,
  type Constraint,
  type ConstraintKind,
  type DimensionConstraint,
  type SketchGeometry,
} from '../schema.ts';
import { angleFrom, lineIn, placeIn, radiusIn } from '../drawn.ts';
import type { Vec2 } from '../regions/primitives.ts';
import { measureDimension } from './measure.ts';
import { sectorsOf } from './sectors.ts';

/** A verb the picked things allow. Dimensions carry the value they would start with, mm or rad. */
export interface Reading {
  readonly kind: ConstraintKind;
  readonly label: string;
  readonly of: readonly string[];
  readonly value?: number;
  /** What else the constraint says: edges measured from, lines turned. */
  readonly also?: Readonly<Record<string, unknown>>;
}

type EntityKind = 'point' | 'line' | 'round' | 'ellipse' | 'spline' | 'text' | 'axis';

function kindOf(sketch: SketchGeometry, id: string): EntityKind | null {
  if (id === BUILT_IN.origin || id in sketch.points) return 'point';
  if (id === BUILT_IN.xAxis || id === BUILT_IN.yAxis) return 'axis';
  const curve = sketch.curves[id];
  if (!curve) return null;
  if (curve.kind === 'circle' || curve.kind === 'arc') return 'round';
  return curve.kind === 'elliptical_arc' ? 'ellipse' : curve.kind;
}

const relation = (kind: ConstraintKind, label: string, of: readonly string[]): Reading => ({ kind, label, of });

/**
 * All verbs that fit the picked entities, likeliest first.
 * @param clicked where lines were picked, mm: an angle is measured in that corner before the other three
 */
export function readingsFor(
  sketch: SketchGeometry,
  picked: readonly string[],
  clicked: ReadonlyMap<string, Vec2> = new Map(),
): Reading[] {
  const kinds = picked.map((id) => kindOf(sketch, id));
  if (kinds.includes(null)) return [];
  const dimension = (
    kind: DimensionConstraint['kind'],
    label: string,
    of: readonly string[],
    also?: Readonly<Record<string, unknown>>,
  ): Reading => {
    const value = measureDimension(sketch, { kind, of: [...of], value: '0', ...also } as DimensionConstraint);
    return { kind, label, of, value, ...(also ? { also } : {}) };
  };
  const read = new Readings(sketch, clicked, dimension);
  if (picked.length === 1) return read.ofOne(picked[0]!, kinds[0]!);
  if (picked.length === 2) return read.ofTwo(picked as [string, string], kinds as [EntityKind, EntityKind]);
  return read.ofMany(picked, kinds as EntityKind[]);
}

class Readings {
  constructor(
    private readonly sketch: SketchGeometry,
    private readonly clicked: ReadonlyMap<string, Vec2>,
    private readonly dimension: (
      kind: DimensionConstraint['kind'],
      label: string,
      of: readonly string[],
      also?: Readonly<Record<string, unknown>>,
    ) => Reading,
  ) {}

  ofOne(id: string, kind: EntityKind): Reading[] {
    const { dimension } = this;
    const fix = relation('fixed', 'Fix', [id]);
    switch (kind) {
      case 'point':
        return id === BUILT_IN.origin ? [] : [fix];
      case 'line':
        return [
          dimension('distance', 'Length', [id]),
          relation('horizontal', 'Horizontal', [id]),
          relation('vertical', 'Vertical', [id]),
          dimension('horizontal_distance', 'Width', [id]),
          dimension('vertical_distance', 'Height', [id]),
          fix,
        ];
      case 'round': {
        const sizes = [dimension('diameter', 'Diameter', [id]), dimension('radius', 'Radius', [id])];
        if (this.sketch.curves[id]?.kind === 'circle') return [...sizes, fix];
        return [...sizes.reverse(), dimension('arc_length', 'Arc length', [id]), fix];
      }
      case 'ellipse':
        return [dimension('major_radius', 'Major radius', [id]), dimension('minor_radius', 'Minor radius', [id]), fix];
      case 'text':
        return [dimension('text_height', 'Height of capitals', [id]), relation('horizontal', 'Horizontal', [id]), fix];
      case 'spline':
        return [fix];
      default:
        return [];
    }
  }

  ofTwo(picked: readonly [string, string], kinds: readonly [EntityKind, EntityKind]): Reading[] {
    const isLine = (k: EntityKind) => k === 'line' || k === 'axis';
    const [a, b] = kinds;
    if (a === 'point' && b === 'point') return this.ofPoints(picked);
    if (isLine(a) && isLine(b)) return a === 'axis' && b === 'axis' ? [] : this.ofLines(picked);
    if (a === 'point' || b === 'point')
      return this.ofPointAndCurve(...this.ordered(picked, kinds, (k) => k === 'point'));
    if (isLine(a) || isLine(b)) return this.ofLineAndCurve(...this.ordered(picked, kinds, isLine));
    return this.ofCurves(picked, kinds);
  }

  private ordered(
    [p, q]: readonly [string, string],
    [a, b]: readonly [EntityKind, EntityKind],
    first: (k: EntityKind) => boolean,
  ): [string, string, EntityKind] {
    return first(a) ? [p, q, b] : [q, p, a];
  }

  private axisDistances(of: readonly string[]): Reading[] {
    return [
      this.dimension('horizontal_distance', 'Horizontal distance', of),
      this.dimension('vertical_distance', 'Vertical distance', of),
    ];
  }

  private areEndsOfOne(of: readonly string[]): boolean {
    return Object.values(this.sketch.curves).some((c) => endsOf(c)?.every((e) => of.includes(e)));
  }

  private ofPoints(of: readonly string[]): Reading[] {
    return [
      this.dimension('distance', 'Distance', of),
      ...this.axisDistances(of),
      // Its two ends made one, a line would be nothing.
      ...(this.areEndsOfOne(of) ? [] : [relation('coincident', 'Coincident', of)]),
      relation('horizontal', 'Horizontal', of),
      relation('vertical', 'Vertical', of),
    ];
  }

  private ofLines(of: readonly string[]): Reading[] {
    const [one, other] = of.map((e) => lineIn(this.sketch, e)!);
    const readings = [
      relation('parallel', 'Parallel', of),
      relation('perpendicular', 'Perpendicular', of),
      relation('equal', 'Equal', of),
      relation('collinear', 'Collinear', of),
    ];
    const angle = angleFrom(one!, other!);
    const isParallel = Math.abs(Math.sin(angle)) < 1e-6;
    if (isParallel) readings.unshift(this.dimension('distance', 'Distance', of));
    else readings.push(...this.sectors([of[0]!, of[1]!]));
    const construction = of.find((e) => this.sketch.curves[e]?.construction || !(e in this.sketch.curves));
    if (isParallel && construction !== undefined) {
      const measured = of.find((e) => e !== construction)!;
      readings.splice(1, 0, this.dimension('across', 'Diameter across', [measured, construction]));
    }
    return of.some((e) => !(e in this.sketch.curves)) ? readings.filter((r) => r.kind !== 'equal') : readings;
  }

  /** The four angles round the crossing of two lines, first that of the corner in which they were clicked. */
  private sectors([p, q]: readonly [string, string]): Reading[] {
    const lines = [lineIn(this.sketch, p)!, lineIn(this.sketch, q)!] as const;
    return sectorsOf(lines, [this.clicked.get(p), this.clicked.get(q)]).map(({ swapped, reversed, angle, where }) =>
      this.dimension(
        'angle',
        `Angle ${Math.round((angle * 180) / Math.PI)}°${where}`,
        swapped ? [q, p] : [p, q],
        reversed ? { reversed } : undefined,
      ),
    );
  }

  private ofPointAndCurve(point: string, curve: string, kind: EntityKind): Reading[] {
    const of = [point, curve];
    // Put on its own curve, a point of it says nothing, or takes the curve away.
    const own = this.sketch.curves[curve];
    if (own && pointsOf(own).includes(point)) return [];
    if (kind === 'line' || kind === 'axis') {
      const isCentreLine = kind === 'axis' || this.sketch.curves[curve]?.construction;
      return [
        this.dimension('distance', 'Distance', of),
        relation('coincident', 'On line', of),
        ...(kind === 'line' ? [relation('midpoint', 'Midpoint', of)] : []),
        ...(isCentreLine ? [this.dimension('across', 'Diameter across', of)] : []),
      ];
    }
    const on = relation('coincident', 'On curve', of);
    if (kind === 'text' || kind === 'spline') return kind === 'spline' ? [on] : [];
    return [
      this.dimension('distance', 'Distance to centre', of),
      ...(kind === 'round' ? this.edges(of, 1) : []),
      ...this.axisDistances(of),
      on,
    ];
  }

  /** Distances to the nearer and farther edge of the circle at place `k`. */
  private edges(of: readonly string[], k: 0 | 1): Reading[] {
    const rims = (edge: 'near' | 'far') => ({ rims: k === 0 ? [edge, 'center'] : ['center', edge] });
    return [
      this.dimension('distance', 'Distance to near edge', of, rims('near')),
      this.dimension('distance', 'Distance to far edge', of, rims('far')),
    ];
  }

  private ofLineAndCurve(line: string, curve: string, kind: EntityKind): Reading[] {
    const tangent = relation('tangent', 'Tangent', [line, curve]);
    if (kind === 'text') return [];
    if (kind === 'spline') return [tangent, relation('smooth', 'Smooth', [line, curve])];
    const of = [curve, line];
    return [
      this.dimension('distance', 'Distance to centre', of),
      tangent,
      ...(kind === 'round' ? this.edges(of, 0) : [relation('smooth', 'Smooth', [line, curve])]),
    ];
  }

  private ofCurves(of: readonly string[], kinds: readonly EntityKind[]): Reading[] {
    if (kinds.includes('text')) return [];
    const joints = [relation('tangent', 'Tangent', of), relation('smooth', 'Smooth', of)];
    if (kinds.includes('spline')) return joints;
    const [a, b] = of.map((e) => placeIn(this.sketch, e)!);
    const apart = Math.hypot(b![0] - a![0], b![1] - a![1]);
    const both = kinds.every((k) => k === 'round');
    return [
      this.dimension('distance', 'Centre distance', of),
      ...(both || kinds[0] === kinds[1] ? [relation('equal', 'Equal', of)] : []),
      relation('concentric', 'Concentric', of),
      joints[0]!,
      ...(both ? [] : [joints[1]!]),
      ...(both && apart > radiusIn(this.sketch, of[0]!) + radiusIn(this.sketch, of[1]!)
        ? [
            this.dimension('distance', 'Gap between edges', of, { rims: ['near', 'near'] }),
            this.dimension('distance', 'Over both edges', of, { rims: ['far', 'far'] }),
          ]
        : []),
      ...this.axisDistances(of),
      relation('horizontal', 'Horizontal', of),
      relation('vertical', 'Vertical', of),
    ];
  }

  ofMany(picked: readonly string[], kinds: readonly EntityKind[]): Reading[] {
    const readings: Reading[] = [];
    if (picked.length === 3) {
      const at = kinds.findLastIndex((k) => k === 'line' || k === 'axis');
      const rest = picked.filter((_, i) => i !== at);
      const alike = new Set(kinds.filter((_, i) => i !== at)).size === 1;
      if (at >= 0 && alike && !kinds.includes('text'))
        readings.push(relation('symmetric', 'Symmetric', [...rest, picked[at]!]));
    }
    const ordered = this.inRow(picked, kinds);
    if (ordered) readings.push(relation('equal_spacing', 'Equal spacing', ordered));
    return readings;
  }

  /** Points, circles or parallel lines in the order they lie in; null for a mixture. */
  private inRow(picked: readonly string[], kinds: readonly EntityKind[]): string[] | null {
    const lines = kinds.every((k) => k === 'line' || k === 'axis');
    if (!lines && !kinds.every((k) => k === 'point' || k === 'round' || k === 'ellipse')) return null;
    const at = (id: string) => placeIn(this.sketch, id) ?? lineIn(this.sketch, id)![0];
    if (lines) {
      const first = lineIn(this.sketch, picked[0]!)!;
      if (!picked.every((id) => Math.abs(Math.sin(angleFrom(first, lineIn(this.sketch, id)!))) < 1e-6)) return null;
      const n = [-(first[1][1] - first[0][1]), first[1][0] - first[0][0]] as const;
      return [...picked].sort((p, q) => n[0] * (at(p)[0] - at(q)[0]) + n[1] * (at(p)[1] - at(q)[1]));
    }
    const [dx, dy] = [0, 1].map(
      (k) => Math.max(...picked.map((p) => at(p)[k]!)) - Math.min(...picked.map((p) => at(p)[k]!)),
    );
    const k = dx! >= dy! ? 0 : 1;
    return [...picked].sort((p, q) => at(p)[k] - at(q)[k]);
  }
}

/** Turn a chosen reading into a constraint; `value` is the dimension's expression. */
export function constraintOf(reading: Reading, value?: string): Constraint {
  const base = { kind: reading.kind, of: [...reading.of], ...reading.also };
  return (value === undefined ? base : { ...base, value }) as Constraint;
}
