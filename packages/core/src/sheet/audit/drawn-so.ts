/** What is taken to be so as it is drawn, without being said. */
import { dot, minus, type Frame, type Vec3 } from '../../space/vector.ts';
import type { PlaneFreedom, Shape } from './shape.ts';
import { ringsIn, rowsOfRings } from './spread-round.ts';

const PLACE = 1e-5;

/**
 * What whoever reads a drawing takes to be so as it is drawn: what lies in line lies in line, and what lies alike on
 * both sides of a middle, with faces as large, or evenly about a centre does so; centre lines say it on the sheet.
 */
export function drawnSo(shape: Shape, square: Frame): { says: string; rows: Float64Array[] }[] {
  const { x, y, normal } = square;
  const tips = shape.cones.filter((c) => c.pointed && shape.rounds.some((r) => r.hollow && r.axis === c.axis && Math.abs(r.radius - c.widest) < PLACE)); // prettier-ignore
  const drilled = tips.length > 0 ? [{ says: 'A drilled hole is taken to end in the point of its drill.', rows: tips.map((c) => shape.only(c.unknowns[1])) }] : []; // prettier-ignore
  const lying = (
    [
      ['from left to right', x],
      ['from top to bottom', y],
      ['from front to rear', normal],
    ] as const
  ).flatMap(([says, d]) => {
    // prettier-ignore
    const all = levelsIn(shape, d).sort((a, b) => a.at - b.at);
    const inLine = all.flatMap((l, i) => (i > 0 && Math.abs(l.at - all[i - 1]!.at) < PLACE ? [l.row.map((v, k) => v - all[i - 1]!.row[k]!)] : [])); // prettier-ignore
    const flats = all.filter((l) => l.is === 'plane');
    const [low, high] = [flats[0], flats.at(-1)];
    const found = inLine.length > 0 ? [{ says: 'What is drawn in line is taken to be in line.', rows: inLine }] : [];
    if (!low || !high || low === high) return found;
    const twin = (l: Lying) => all.find((o) => o.is === l.is && Math.abs(o.at + l.at - low.at - high.at) < PLACE && Math.abs(o.like - l.like) < 1e-6 * Math.max(1, l.like)); // prettier-ignore
    const slanted = slantedTwins(shape, d, low, high);
    if (!slanted || all.length + slanted.length < 3 || !all.every((l) => twin(l))) return found;
    const rows = all.filter((l) => l !== low && l !== high).map((l) => l.row.map((v, i) => v + twin(l)!.row[i]! - low.row[i]! - high.row[i]!)); // prettier-ignore
    return [...found, { says: `Taken to be alike ${says}, as it is drawn.`, rows: [...rows, ...slanted] }];
  });
  const even = rowsOfRings(shape, ringsIn(shape, square));
  const round =
    even.length > 0 ? [{ says: 'What is spread evenly about a centre is taken to be so.', rows: even }] : [];
  return [...drilled, ...round, ...lying];
}

interface Lying {
  readonly at: number;
  readonly row: Float64Array;
  /** Area of planes, radii about axes: what must be alike of twins. */
  readonly like: number;
  readonly is: 'plane' | 'axis';
}

/** Planes square to a direction, and axes, by where they lie along it. */
function levelsIn(shape: Shape, d: Vec3): Lying[] {
  const flats = shape.planes.flatMap((p): Lying[] => {
    const along = dot(p.normal, d);
    if (Math.abs(along) < 1 - 1e-9) return [];
    return [{ at: p.offset * Math.sign(along), row: shape.offsetOf(p).map((v) => v * Math.sign(along)), like: p.area, is: 'plane' }]; // prettier-ignore
  });
  const axes = shape.axes
    .filter((a) => Math.abs(dot(a.direction, d)) < 1e-9)
    .map((a): Lying => ({ at: dot(a.at, d), row: shape.asideOf(a, d), like: shape.rounds.filter((r) => r.axis === a).reduce((sum, r) => sum + r.radius, 0), is: 'axis' })); // prettier-ignore
  return [...flats, ...axes];
}

/**
 * Of planes at a slant, that they are alike on both sides of a middle that moves with the outermost planes. With the
 * direction d, a plane with normal n has its twin with n − 2(n·d)d; that moves as far, less twice how far the middle
 * moves along n, and turns the other way about what lies square to d. Null where one of them has no twin.
 */
function slantedTwins(shape: Shape, d: Vec3, low: Lying, high: Lying): Float64Array[] | null {
  const mirrored = (v: Vec3, by = 2 * dot(v, d)): Vec3 => minus(v, [d[0] * by, d[1] * by, d[2] * by]);
  const middle = low.at + high.at;
  const rows: Float64Array[] = [];
  for (const p of shape.planes) {
    if (p.tilts.length === 0) continue;
    const normal = mirrored(p.normal);
    const at = mirrored(p.center, 2 * dot(p.center, d) - middle);
    const isTwin = (o: PlaneFreedom) => Math.abs(Math.abs(dot(o.normal, normal)) - 1) < 1e-9 && Math.abs(dot(minus(o.center, at), normal)) < PLACE && Math.abs(o.area - p.area) < 1e-6 * Math.max(1, p.area); // prettier-ignore
    const twin = shape.planes.find(isTwin);
    if (!twin) return null;
    const sign = Math.sign(dot(twin.normal, normal));
    const own = shape.offsetOf(p);
    const moved = shape.offsetOf(twin).map((x, i) => sign * x - own[i]! + (low.row[i]! + high.row[i]!) * dot(p.normal, d)); // prettier-ignore
    const turned = p.tilts.map(({ about, unknown }) => {
      const row = shape.only(unknown).map((x) => -x);
      const other = minus([0, 0, 0], mirrored(about));
      for (const t of twin.tilts) row[t.unknown] = row[t.unknown]! + dot(t.about, other);
      return row;
    });
    rows.push(moved, ...turned);
  }
  return rows.filter((row) => row.some((x) => Math.abs(x) > 1e-12));
}
