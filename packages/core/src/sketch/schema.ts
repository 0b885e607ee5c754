/** What a sketch is in the file: points, curves between them, and constraints upon both. */
import { z } from 'zod';
import { Id } from '../document/ids.ts';
import { Expr, DimensionName } from '../dimensions/schema.ts';

/** Fixed things every sketch has; they can be constrained to, not moved. */
export const BUILT_IN = { origin: 'origin', xAxis: 'x_axis', yAxis: 'y_axis' } as const;

const coordinate = z.number().min(-1e6).max(1e6);
export const Position = z.tuple([coordinate, coordinate]).describe('[x, y] in mm on the sketch plane');

const construction = z.boolean().optional().describe('true: guides other geometry, bounds no region');

export const Line = z
  .strictObject({ kind: z.literal('line'), from: Id, to: Id, construction })
  .describe('A straight line between two points.');
export const Circle = z
  .strictObject({ kind: z.literal('circle'), center: Id, radius: z.number().positive().max(1e6), construction })
  .describe('A full circle; radius in mm.');
export const Arc = z
  .strictObject({ kind: z.literal('arc'), center: Id, from: Id, to: Id, construction })
  .describe('A circular arc that runs counter-clockwise from `from` to `to`.');

export const Curve = z.discriminatedUnion('kind', [Line, Circle, Arc]);
export type Curve = z.infer<typeof Curve>;

const Entity = Id.describe('A point or curve of this sketch, or origin, x_axis, y_axis');

const relation = <K extends string, N extends number>(kind: K, count: N, says: string) =>
  z.strictObject({ kind: z.literal(kind), of: z.array(Entity).length(count) }).describe(says);

/** How the number is read: along the line between, or along one axis of the sketch. */
const measured = <K extends string>(kind: K, least: number, most: number, says: string) =>
  z
    .strictObject({
      kind: z.literal(kind),
      of: z.array(Entity).min(least).max(most),
      value: Expr,
      name: DimensionName.optional(),
      label: Position.optional().describe('Where the number stands on the sketch plane'),
    })
    .describe(says);

export const Constraint = z.discriminatedUnion('kind', [
  relation('coincident', 2, 'Two points are one, or a point lies on a curve.'),
  z
    .strictObject({ kind: z.literal('horizontal'), of: z.array(Entity).min(1).max(2) })
    .describe('A line, or two points, level along x.'),
  z
    .strictObject({ kind: z.literal('vertical'), of: z.array(Entity).min(1).max(2) })
    .describe('A line, or two points, upright along y.'),
  relation('equal', 2, 'Two lines of the same length, or two circles or arcs of the same radius.'),
  relation('concentric', 2, 'Two circles or arcs share their centre.'),
  relation('parallel', 2, 'Two lines run the same way.'),
  relation('perpendicular', 2, 'Two lines stand at a right angle.'),
  relation('tangent', 2, 'A line and a circle or arc, or two of these, touch.'),
  relation('midpoint', 2, 'A point stands midway on a line: [point, line].'),
  relation('symmetric', 3, 'Two points mirror each other across a line: [point, point, line].'),
  relation('fixed', 1, 'A point stays where it is drawn.'),
  measured(
    'distance',
    1,
    2,
    'Length of a line; or distance of two points, of a point and a line, or of two parallel lines.',
  ),
  measured('horizontal_distance', 1, 2, 'Distance along x: of a line, or of two points.'),
  measured('vertical_distance', 1, 2, 'Distance along y: of a line, or of two points.'),
  measured('radius', 1, 1, 'Radius of a circle or arc.'),
  measured('diameter', 1, 1, 'Diameter of a circle or arc.'),
  measured('angle', 2, 2, 'Angle from the first line to the second, counter-clockwise.'),
]);
export type Constraint = z.infer<typeof Constraint>;
export type DimensionConstraint = Extract<Constraint, { value: string }>;
export type ConstraintKind = Constraint['kind'];

export function isDimension(constraint: Constraint): constraint is DimensionConstraint {
  return 'value' in constraint;
}

export const SketchGeometry = z.strictObject({
  points: z.record(Id, Position).describe('By id; the position last drawn or solved.'),
  curves: z.record(Id, Curve),
  constraints: z.record(Id, Constraint),
});
export type SketchGeometry = z.infer<typeof SketchGeometry>;

export const RegionRef = z
  .strictObject({
    outer: z
      .array(z.string().regex(/^[+-]?[A-Za-z][A-Za-z0-9_]{0,39}$/))
      .min(1)
      .max(400)
      .describe(
        'Ids of the curves around the region, in any order; a sign tells on which side of the curve it lies (+ left, - right).',
      ),
    at: z.tuple([z.number(), z.number()]).optional().describe('A point inside, mm; tells equals apart.'),
  })
  .describe('A closed region of a sketch, by the curves around it.');
export type RegionRef = z.infer<typeof RegionRef>;

/** The ids of the points a curve is built on. */
export function pointsOf(curve: Curve): string[] {
  if (curve.kind === 'line') return [curve.from, curve.to];
  return curve.kind === 'circle' ? [curve.center] : [curve.center, curve.from, curve.to];
}
