/** What a sketch is in the file: points, curves between them, and constraints upon both. */
import { z } from 'zod';
import { Id, isInherited } from '../ids/ids.ts';
import { mapOf, MAX_ENTITIES } from '../ids/limits.ts';
import { BodyRef, EdgeRef, FaceRef } from '../references/references.ts';
import { DimensionName, Expr } from '../dimensions/expression.ts';

/** Ids of points and curves: those of repeated ones tell their original and its pattern, and so grow with each nesting. */
const EntityId = z
  .string()
  .regex(/^[A-Za-z][A-Za-z0-9_]{0,199}$/, 'an id starts with a letter and has only letters, digits and _, 200 at most')
  .refine((id) => !isInherited(id), 'this word has a meaning of its own in every map; choose another');

/** Fixed things every sketch has; they can be constrained to, not moved. */
export const BUILT_IN = { origin: 'origin', xAxis: 'x_axis', yAxis: 'y_axis' } as const;

const coordinate = z.number().min(-1e6).max(1e6);
export const Position = z.tuple([coordinate, coordinate]).describe('[x, y] in mm on the sketch plane');

const construction = z.boolean().optional().describe('true: guides other geometry, bounds no region');

export const Line = z
  .strictObject({ kind: z.literal('line'), from: EntityId, to: EntityId, construction })
  .describe('A straight line between two points.');
export const Circle = z
  .strictObject({ kind: z.literal('circle'), center: EntityId, radius: z.number().positive().max(1e6), construction })
  .describe('A full circle; radius in mm.');
export const Arc = z
  .strictObject({ kind: z.literal('arc'), center: EntityId, from: EntityId, to: EntityId, construction })
  .describe('A circular arc that runs counter-clockwise from `from` to `to`.');

const minor = z.number().positive().max(1e6).describe('Half the shorter axis, mm');
export const Ellipse = z
  .strictObject({ kind: z.literal('ellipse'), center: EntityId, major: EntityId, minor, construction })
  .describe('A full ellipse; `major` is the point at the end of its first half axis.');
export const EllipticalArc = z
  .strictObject({
    kind: z.literal('elliptical_arc'),
    center: EntityId,
    major: EntityId,
    minor,
    from: EntityId,
    to: EntityId,
    construction,
  })
  .describe('Part of an ellipse, counter-clockwise from `from` to `to`.');
export const Spline = z
  .strictObject({
    kind: z.literal('spline'),
    fit: z.enum(['through', 'control']).describe('through: passes its points. control: is drawn towards them.'),
    points: z.array(EntityId).min(2).max(200),
    parameters: z
      .array(z.number())
      .max(200)
      .optional()
      .describe('Only with through: where along the curve each point lies, rising from 0 to 1.'),
    construction,
  })
  .describe('A cubic B-spline with free ends.');
export const TextOutline = z
  .strictObject({
    kind: z.literal('text'),
    from: EntityId,
    to: EntityId,
    text: z.string().min(1).max(200),
    construction,
  })
  .describe('Lettering in outline along the baseline between two points; its length sets its size.');

export const Curve = z.discriminatedUnion('kind', [Line, Circle, Arc, Ellipse, EllipticalArc, Spline, TextOutline]);
export type Curve = z.infer<typeof Curve>;
export type CurveOf<K extends Curve['kind']> = Extract<Curve, { kind: K }>;

const Entity = EntityId.describe('A point or curve of this sketch, or origin, x_axis, y_axis');

const relation = <K extends string, N extends number>(kind: K, count: N, says: string) =>
  z.strictObject({ kind: z.literal(kind), of: z.array(Entity).length(count) }).describe(says);

const number = {
  value: Expr,
  name: DimensionName.optional(),
  label: Position.optional().describe('Where the number stands on the sketch plane'),
  driven: z.literal(true).optional().describe('true: only told by the geometry, does not hold it'),
  tolerance: z.string().max(40).optional().describe('Written after the number, as ±0.1 or H7'),
};

/** How the number is read: along the line between, or along one axis of the sketch. */
const measured = <K extends string>(kind: K, least: number, most: number, says: string) =>
  z
    .strictObject({
      kind: z.literal(kind),
      of: z.array(Entity).min(least).max(most),
      ...number,
    })
    .describe(says);

export const Constraint = z.discriminatedUnion('kind', [
  relation('coincident', 2, 'Two points are one, or a point lies on a curve.'),
  relation('collinear', 2, 'Two lines lie on one straight line.'),
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
  relation('tangent', 2, 'Two curves touch.'),
  relation('smooth', 2, 'Two curves meet at a shared end with the same direction and bend.'),
  relation('midpoint', 2, 'A point stands midway on a line: [point, line].'),
  relation('symmetric', 3, 'Two points, or two curves of a kind, mirror each other across a line: [one, other, line].'),
  relation('fixed', 1, 'A point or curve stays where it is drawn.'),
  z
    .strictObject({ kind: z.literal('equal_spacing'), of: z.array(Entity).min(3).max(100) })
    .describe('Points, centres or parallel lines follow each other at one spacing.'),
  z
    .strictObject({
      kind: z.literal('distance'),
      of: z.array(Entity).min(1).max(2),
      rims: z
        .array(z.enum(['center', 'near', 'far']))
        .length(2)
        .optional()
        .describe('For circles and arcs: measured from the centre, or from the nearer or farther edge.'),
      ...number,
    })
    .describe('Length of a line; or distance of two points, of a point and a line, or of two parallel lines.'),
  measured('horizontal_distance', 1, 2, 'Distance along x: of a line, or of two points.'),
  measured('vertical_distance', 1, 2, 'Distance along y: of a line, or of two points.'),
  measured('radius', 1, 1, 'Radius of a circle or arc.'),
  measured('diameter', 1, 1, 'Diameter of a circle or arc.'),
  measured('across', 2, 2, 'Twice the distance of a point or line from a centre line: [point or line, centre line].'),
  measured('offset', 2, 1000, 'Curves drawn again at one distance: each original followed by its copy.'),
  measured('arc_length', 1, 1, 'Length along an arc.'),
  measured('major_radius', 1, 1, 'First half axis of an ellipse.'),
  measured('minor_radius', 1, 1, 'Second half axis of an ellipse.'),
  measured('text_height', 1, 1, 'Height of the capitals of a lettering.'),
  measured('count', 1, 1, 'How many a pattern has, the first among them.'),
  measured('count_across', 1, 1, 'How many rows a pattern has.'),
  measured('spacing', 1, 1, 'From one member of a pattern to the next.'),
  measured('spacing_across', 1, 1, 'From one row of a pattern to the next.'),
  measured('step_angle', 1, 1, 'From one member of a circular pattern to the next.'),
  z
    .strictObject({
      kind: z.literal('angle'),
      of: z.array(Entity).length(2),
      reversed: z
        .enum(['first', 'second', 'both'])
        .optional()
        .describe('Which lines count as running from their end to their start; tells the sectors apart.'),
      ...number,
    })
    .describe('Angle from the first line to the second, counter-clockwise.'),
]);
export type Constraint = z.infer<typeof Constraint>;
export type DimensionConstraint = Extract<Constraint, { value: string }>;
export type ConstraintKind = Constraint['kind'];

/** Dimensions that are put on a pattern, not on points and curves. */
export const PATTERN_DIMENSIONS: ReadonlySet<ConstraintKind> = new Set([
  'count',
  'count_across',
  'spacing',
  'spacing_across',
  'step_angle',
] as const);

export function isDimension(constraint: Constraint): constraint is DimensionConstraint {
  return 'value' in constraint;
}

export const BorrowSource = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('edge'), edge: EdgeRef }).describe('An edge, seen straight onto the sketch plane.'),
  z
    .strictObject({ kind: z.literal('vertex'), edge: EdgeRef, end: z.enum(['from', 'to']) })
    .describe('An end of an edge.'),
  z.strictObject({ kind: z.literal('face'), face: FaceRef }).describe('All edges round a face.'),
  z.strictObject({ kind: z.literal('section'), body: BodyRef }).describe('Where the sketch plane cuts a body.'),
  z
    .strictObject({ kind: z.literal('silhouette'), body: BodyRef })
    .describe('The outline of a body, seen straight onto the plane.'),
]);
export type BorrowSource = z.infer<typeof BorrowSource>;

export const Borrowed = z
  .strictObject({
    source: BorrowSource,
    of: z
      .array(EntityId)
      .max(2000)
      .describe(
        'Points and curves that follow the source, piece by piece: each curve, then its points in the order in which the curve names them; or a point alone',
      ),
    keys: z
      .array(z.string().max(4000))
      .max(2000)
      .optional()
      .describe(
        'What each piece is told apart by at its source: the faces its edge lies between; empty where nothing tells',
      ),
  })
  .describe('Geometry taken from the part; it moves only with its source.');
export type Borrowed = z.infer<typeof Borrowed>;

const members = z.array(EntityId).min(1).max(500).describe('Points and curves that are repeated');
const PatternSteps = z
  .array(z.number())
  .max(2)
  .describe('Spacing now, mm or rad, first along and then across; dimensions on the pattern hold it');
export const Pattern = z.discriminatedUnion('kind', [
  z
    .strictObject({ kind: z.literal('linear'), of: members, along: Entity, steps: PatternSteps })
    .describe('Repeated along a line, and, with a number of rows, square to it.'),
  z
    .strictObject({
      kind: z.literal('circular'),
      of: members,
      around: Entity,
      steps: PatternSteps,
      whole: z.literal(true).optional().describe('true: spread evenly over the whole turn'),
    })
    .describe('Repeated about a point. Its members are ordinary points and curves, named id__pattern_number.'),
]);
export type Pattern = z.infer<typeof Pattern>;

export const SketchGeometry = z.strictObject({
  points: mapOf(EntityId, Position, MAX_ENTITIES).describe('By id; the position last drawn or solved.'),
  curves: mapOf(EntityId, Curve, MAX_ENTITIES),
  constraints: mapOf(Id, Constraint, MAX_ENTITIES),
  patterns: mapOf(Id, Pattern, 1000).optional(),
  borrowed: mapOf(Id, Borrowed, 2000).optional(),
});
export type SketchGeometry = z.infer<typeof SketchGeometry>;

/** The ids of the points a curve is built on. */
export function pointsOf(curve: Curve): string[] {
  switch (curve.kind) {
    case 'line':
    case 'text':
      return [curve.from, curve.to];
    case 'circle':
      return [curve.center];
    case 'arc':
      return [curve.center, curve.from, curve.to];
    case 'ellipse':
      return [curve.center, curve.major];
    case 'elliptical_arc':
      return [curve.center, curve.major, curve.from, curve.to];
    case 'spline':
      return curve.points;
  }
}

/** The same curve on other points: `to` maps each point id. */
export function onPoints(curve: Curve, to: (point: string) => string): Curve {
  switch (curve.kind) {
    case 'line':
    case 'text':
      return { ...curve, from: to(curve.from), to: to(curve.to) };
    case 'circle':
      return { ...curve, center: to(curve.center) };
    case 'arc':
      return { ...curve, center: to(curve.center), from: to(curve.from), to: to(curve.to) };
    case 'ellipse':
      return { ...curve, center: to(curve.center), major: to(curve.major) };
    case 'elliptical_arc':
      return { ...curve, center: to(curve.center), major: to(curve.major), from: to(curve.from), to: to(curve.to) };
    case 'spline':
      return { ...curve, points: curve.points.map(to) };
  }
}

/** The two ends of an open curve; null for closed ones and lettering. */
export function endsOf(curve: Curve): [string, string] | null {
  if (curve.kind === 'spline') return [curve.points[0]!, curve.points.at(-1)!];
  if (curve.kind === 'line' || curve.kind === 'arc' || curve.kind === 'elliptical_arc') return [curve.from, curve.to];
  return null;
}
