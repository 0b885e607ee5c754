/** The dimensions of a sketch, where a view looks straight onto its plane. */
import type { SheetSize, SheetSpot } from '../../document/sheet.ts';
import type { Vec2 } from '../../sketch/curves/spline.ts';
import { lineIn, placeIn, radiusIn } from '../../sketch/drawn.ts';
import { BUILT_IN, type DimensionConstraint, type SketchGeometry } from '../../sketch/schema.ts';
import { flatPoint } from '../../slots/regions/flatten.ts';
import { dot, further, type Frame } from '../../space/vector.ts';
import { kindOfRound } from '../seen-through.ts';
import { edgesAlong, endsFor, roundsAs, sidesAt, type StraightView, type Thing } from './spots.ts';

const ALONG = 1e-9;

/** A sketch as it lies in a view. */
interface Seen {
  readonly sketch: SketchGeometry;
  readonly to: (p: Vec2) => Vec2;
}

/**
 * Sizes that would say what a dimension says, the best first; of each its value has still to be held against it.
 * @returns none where the view does not look straight onto the sketch
 */
export function sizesOfDimension(
  c: DimensionConstraint,
  sketch: SketchGeometry,
  plane: Frame,
  { id, frame, view }: StraightView,
): SheetSize[] {
  if (Math.abs(dot(plane.normal, frame.normal)) < 1 - ALONG) return [];
  const to = ([x, y]: Vec2) => flatPoint(frame, further(further(plane.origin, plane.x, x), plane.y, y));
  const seen: Seen = { sketch, to };
  const things = c.of.map((of) => thingOf(of, seen));
  const [one, other] = things;
  if (!one || things.some((t) => t === null)) return [];
  const size = (kind: SheetSize['kind'], ...of: SheetSpot[]): SheetSize => ({ kind, view: id, of });
  const lengths = (a: Thing, b: Thing, along: Vec2): SheetSize[] =>
    endsFor(view, a, along).flatMap((from) => endsFor(view, b, along).map((end) => size(kindAlong(along), from, end)));
  const direction = (u: Vec2): Vec2 => {
    const [o, p] = [to([0, 0]), to(u)];
    return [p[0] - o[0], p[1] - o[1]];
  };
  switch (c.kind) {
    case 'radius':
    case 'diameter':
      // Of a full circle the diameter is what is made and measured.
      return one.is === 'round' ? roundsAs(view, one).map((r) => size(kindOfRound(r.piece), r.spot)) : []; // prettier-ignore
    case 'angle':
      return other ? edgesAlong(view, one).flatMap((a) => edgesAlong(view, other).map((b) => size('angle', a, b))) : [];
    case 'across':
      return [...sidesAt(view, one).map((s) => size('diameter', s)), ...(other ? mirrored(one, other).flatMap((twin) => lengths(one, twin, offOf(other))) : [])]; // prettier-ignore
    case 'horizontal_distance':
    case 'vertical_distance': {
      const [a, b] = other ? [one, other] : endsOf(one);
      return a && b ? lengths(a, b, direction(c.kind === 'horizontal_distance' ? [1, 0] : [0, 1])) : [];
    }
    case 'distance': {
      if (c.rims?.some((rim) => rim !== 'center')) return [];
      if (!other) {
        const [a, b] = endsOf(one);
        return [...edgesAlong(view, one).map((edge) => size('straight', edge)), ...(a && b ? lengths(a, b, between(a, b)) : [])]; // prettier-ignore
      }
      const along = one.is === 'line' ? offOf(one) : other.is === 'line' ? offOf(other) : between(one, other);
      // From the middle of what was turned, the diameter.
      const turned = [one, other].flatMap((t, i) => (isMiddle(c.of[1 - i]!, sketch) ? sidesAt(view, t) : []));
      return [...lengths(one, other, along), ...turned.map((s) => size('diameter', s))];
    }
    default:
      return [];
  }
}

const kindAlong = ([u, v]: Vec2): SheetSize['kind'] => (Math.abs(v) < ALONG ? 'across' : Math.abs(u) < ALONG ? 'up' : 'straight'); // prettier-ignore

function thingOf(of: string, { sketch, to }: Seen): Thing | null {
  const line = lineIn(sketch, of);
  if (line) return { is: 'line', ends: [to(line[0]), to(line[1])], endless: of === BUILT_IN.xAxis || of === BUILT_IN.yAxis }; // prettier-ignore
  const place = placeIn(sketch, of);
  const curve = sketch.curves[of];
  if (place && (curve?.kind === 'circle' || curve?.kind === 'arc')) return { is: 'round', center: to(place), radius: radiusIn(sketch, of) }; // prettier-ignore
  return place && !curve ? { is: 'point', at: to(place) } : null;
}

/** A line about which something may have been turned. */
const isMiddle = (of: string, { curves }: SketchGeometry): boolean => of === BUILT_IN.xAxis || of === BUILT_IN.yAxis || (curves[of]?.kind === 'line' && curves[of].construction === true); // prettier-ignore

const endsOf = (thing: Thing): Thing[] => (thing.is === 'line' && !thing.endless ? thing.ends.map((at) => ({ is: 'point', at })) : []); // prettier-ignore

const middleOf = (thing: Thing): Vec2 => (thing.is === 'point' ? thing.at : thing.is === 'round' ? thing.center : thing.ends[0]); // prettier-ignore

/** From one to the other, of length 1. */
function between(a: Thing, b: Thing): Vec2 {
  const [p, q] = [middleOf(a), middleOf(b)];
  const long = Math.hypot(q[0] - p[0], q[1] - p[1]) || 1;
  return [(q[0] - p[0]) / long, (q[1] - p[1]) / long];
}

/** Square to a line. */
function offOf(thing: Thing): Vec2 {
  if (thing.is !== 'line') return [1, 0];
  const [u, v] = between({ is: 'point', at: thing.ends[0] }, { is: 'point', at: thing.ends[1] });
  return [-v, u];
}

/** The same on the other side of a line. */
function mirrored(thing: Thing, about: Thing): Thing[] {
  if (about.is !== 'line') return [];
  const [u, v] = offOf(about);
  const [o] = about.ends;
  const to = ([x, y]: Vec2): Vec2 => {
    const off = (x - o[0]) * u + (y - o[1]) * v;
    return [x - 2 * off * u, y - 2 * off * v];
  };
  if (thing.is === 'point') return [{ is: 'point', at: to(thing.at) }];
  if (thing.is === 'round') return [{ ...thing, center: to(thing.center) }];
  return [{ ...thing, ends: [to(thing.ends[0]), to(thing.ends[1])] }];
}
