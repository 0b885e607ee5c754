/** A chain drawn again at one distance; one dimension holds all of it. */
import { SketchPen, type Place } from '../draw/pen.ts';
import { distance, onRound, primitivesOfCurve, type Round, type Segment, type Vec2 } from '../regions/primitives.ts';
import { type CurveOf, type SketchGeometry } from '../schema.ts';
import { carrierCrossings } from './carriers.ts';
import { orderedChain } from './chain.ts';
import { ChangeRefused } from './ends.ts';

/** How a curve is walked along its chain. */
interface Link {
  readonly id: string;
  readonly primitive: Segment | Round;
  readonly forward: boolean;
}

/**
 * Offset a connected chain of lines and arcs, or single circles.
 * @param value mm; positive to the left of the first curve as it runs, for circles outwards
 * @returns the dimension's constraint id
 */
export function offsetChain(
  sketch: SketchGeometry,
  curves: readonly string[],
  value: number,
  expression: string,
): string {
  const pen = new SketchPen(sketch);
  const pairs: string[] = [];
  const circles = curves.filter((id) => sketch.curves[id]?.kind === 'circle');
  for (const id of circles) {
    const circle = sketch.curves[id] as CurveOf<'circle'>;
    const radius = circle.radius + value;
    if (radius <= 0) throw new ChangeRefused('A circle cannot be offset inwards by its radius or more; take less.');
    pairs.push(id, pen.circle(pen.point({ at: sketch.points[circle.center] ?? [0, 0] }), radius));
  }
  const rest = curves.filter((id) => !circles.includes(id));
  if (rest.length > 0) pairs.push(...offsetLinks(pen, rest, value));
  return pen.dimension('offset', pairs, expression);
}

function offsetLinks(pen: SketchPen, curves: readonly string[], value: number): string[] {
  const { sketch } = pen;
  const { links: ordered, closed } = orderedChain(sketch, curves);
  const links = ordered.map(({ id, forward }): Link => {
    const [primitive] = primitivesOfCurve(sketch, id, sketch.curves[id]!);
    if (primitive?.kind !== 'line' && primitive?.kind !== 'arc')
      throw new ChangeRefused(
        'Only lines, arcs and circles can be offset; the offset of an ellipse or spline is not one itself.',
      );
    return { id, primitive, forward };
  });
  // To the left of the first curve as it is stored, not as the chain happens to be walked.
  const d = links[0]!.forward ? value : -value;
  const moved = links.map((l) => shifted(l, d));
  const joints: Vec2[] = [];
  for (let i = 0; i <= links.length; i++) {
    const before = moved[i - 1] ?? (closed ? moved.at(-1) : undefined);
    const after = moved[i] ?? (closed ? moved[0] : undefined);
    if (before && after) joints.push(meet(before, after));
    else joints.push((before ?? after)!.ends[before ? 1 : 0]);
  }
  const points = joints.slice(0, closed ? -1 : undefined).map((at) => pen.point({ at }));
  return links.flatMap((l, i) => {
    const [start, end] = [points[i]!, points[(i + 1) % points.length]!];
    const [from, to] = l.forward ? [start, end] : [end, start];
    if (l.primitive.kind === 'line') return [l.id, pen.line(from, to)];
    const arc = sketch.curves[l.id] as CurveOf<'arc'>;
    return [l.id, pen.arc(pen.point({ at: sketch.points[arc.center] ?? [0, 0] }), from, to, true)];
  });
}

interface Moved {
  readonly primitive: Segment | Round;
  /** Start and end as walked. */
  readonly ends: readonly [Vec2, Vec2];
}

/** Moved by d to the left as it is walked. */
function shifted({ primitive: p, forward }: Link, d: number): Moved {
  if (p.kind === 'line') {
    const [a, b] = forward ? [p.from, p.to] : [p.to, p.from];
    const size = distance(a, b);
    const n: Place = [(-(b[1] - a[1]) / size) * d, ((b[0] - a[0]) / size) * d];
    const ends = [[a[0] + n[0], a[1] + n[1]], [b[0] + n[0], b[1] + n[1]]] as const; // prettier-ignore
    return { primitive: { ...p, from: ends[0], to: ends[1] }, ends };
  }
  const radius = p.radius + (forward ? -d : d);
  if (radius <= 1e-9)
    throw new ChangeRefused('An arc in this chain is too small for this offset; take less, or the other side.');
  const round = { ...p, radius };
  const ends = [onRound(round, p.start), onRound(round, p.start + p.sweep)] as const;
  return { primitive: round, ends: forward ? ends : [ends[1], ends[0]] };
}

/** Where two neighbours meet: their common end where they run on smoothly, else where their carriers cross. */
function meet(a: Moved, b: Moved): Vec2 {
  const [p, q] = [a.ends[1], b.ends[0]];
  if (distance(p, q) < 1e-7 * (1 + Math.hypot(...p))) return p;
  const places = carrierCrossings(a.primitive, b.primitive);
  const middle: Vec2 = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
  const best = places.sort((x, y) => distance(x, middle) - distance(y, middle))[0];
  if (!best)
    throw new ChangeRefused('At this distance, neighbours in the chain no longer meet; take less, or the other side.');
  return best;
}
