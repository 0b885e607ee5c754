/**
 * Alike things spread evenly about a centre: bores on a circle, the flats of a hexagon, the points of a star. Whoever reads
 * a drawing takes them to be so as drawn; how far out they lie is still to be said, and how the first of them is turned.
 *
 * Of n flats with normals nᵢ that move by δᵢ the centre moves by c = 2/n Σ nᵢδᵢ, and δᵢ − c·nᵢ is the same of all, as is
 * how much each turns. Of n axes that move by aᵢ the centre moves by c = 1/n Σ aᵢ, and aᵢ − c is the same seen from each.
 */
import { cross, dot, minus, unit, type Frame, type Vec3 } from '../../space/vector.ts';
import type { AxisFreedom, PlaneFreedom, Shape } from './shape.ts';

/** Places and sizes nearer alike than this, mm, are the same. */
const PLACE = 1e-5;
const TURN = 1e-7;

/** What is spread: seen along the centre line, at an angle about it. */
type Member =
  | { readonly is: 'plane'; readonly of: PlaneFreedom; readonly out: Vec3; readonly angle: number }
  | { readonly is: 'axis'; readonly of: AxisFreedom; readonly out: Vec3; readonly angle: number };

export interface Ring {
  readonly members: readonly Member[];
  readonly away: number;
  /** Turned about at its centre, if something is. */
  readonly center: AxisFreedom | null;
}

/** Everything that is spread evenly, about each centre line along one of the three directions of the drawing. */
export function ringsIn(shape: Shape, { x, y, normal }: Frame): Ring[] {
  return [x, y, normal].flatMap((e) => centersIn(shape, e).flatMap((at) => ringsAbout(shape, e, at)));
}

/** Places through which a centre line along e may run: axes, and the middles of what is alike. */
function centersIn(shape: Shape, e: Vec3): Vec3[] {
  const walls = shape.planes.filter((p) => Math.abs(dot(p.normal, e)) < TURN);
  const axes = axesAlong(shape, e);
  const middle = (all: readonly Vec3[]) => [0, 1, 2].map((k) => all.reduce((sum, p) => sum + p[k]!, 0) / all.length) as unknown as Vec3; // prettier-ignore
  const alikeAxes = grouped(axes, (a) => signOf(shape, a)).map((g) => g.map((a) => a.at));
  const alike = [...grouped(walls, (p) => p.area).map((g) => g.map((p) => p.center)), ...alikeAxes];
  // Of hundreds of bores alike none is taken for a middle: what is turned about one is rarely so common.
  const found = [...alikeAxes.filter((g) => g.length < 3).flat(), ...alike.filter((g) => g.length >= 3).map(middle)];
  return found.filter((p, i) => found.findIndex((o) => aside(minus(o, p), e) < PLACE) === i);
}

const axesAlong = (shape: Shape, e: Vec3) => shape.axes.filter((a) => Math.abs(dot(a.direction, e)) > 1 - TURN);

/** By the radii about it: what of two axes must be alike. */
const signOf = (shape: Shape, axis: AxisFreedom): number =>
  shape.rounds.filter((r) => r.axis === axis).reduce((sum, r) => sum + r.radius * (r.hollow ? 1 : Math.SQRT2), 0);

const across = (v: Vec3, e: Vec3): Vec3 => minus(v, [e[0] * dot(v, e), e[1] * dot(v, e), e[2] * dot(v, e)]);
const aside = (v: Vec3, e: Vec3): number => Math.hypot(...across(v, e));

function grouped<T>(all: readonly T[], by: (one: T) => number): T[][] {
  const groups: T[][] = [];
  for (const one of all) {
    const own = groups.find(([first]) => Math.abs(by(first!) - by(one)) < PLACE * Math.max(1, Math.abs(by(one))));
    if (own) own.push(one);
    else groups.push([one]);
  }
  return groups;
}

function ringsAbout(shape: Shape, e: Vec3, at: Vec3): Ring[] {
  const u = unit(cross(e, Math.abs(e[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0]))!;
  const v = cross(e, u);
  const angleOf = (out: Vec3) => Math.atan2(dot(out, v), dot(out, u));
  const center = axesAlong(shape, e).find((a) => aside(minus(a.at, at), e) < PLACE) ?? null;
  const widest = Math.max(0, ...shape.rounds.filter((r) => r.axis === center && !r.hollow).map((r) => r.radius));
  const flats = shape.planes.flatMap((of) => {
    const away = of.offset - dot(of.normal, at);
    if (Math.abs(dot(of.normal, e)) > TURN || Math.abs(away) < PLACE) return [];
    const out = away > 0 ? of.normal : minus([0, 0, 0], of.normal);
    return [{ member: { is: 'plane' as const, of, out, angle: angleOf(out) }, away: Math.abs(away), like: of.area }];
  });
  const axes = axesAlong(shape, e).flatMap((of) => {
    const off = across(minus(of.at, at), e);
    const out = unit(off);
    if (!out || Math.hypot(...off) < PLACE) return [];
    return [{ member: { is: 'axis' as const, of, out, angle: angleOf(out) }, away: Math.hypot(...off), like: signOf(shape, of) }]; // prettier-ignore
  });
  return [flats, axes].flatMap((all) =>
    grouped<(typeof all)[number]>(all, (m) => m.away).flatMap((there) =>
      grouped(there, (m) => m.like).flatMap((alike) => {
        // Four alike about a middle are a square as well, of which both sides are given: but on a disc.
        const fourToo = widest > alike[0]!.away;
        return spread(alike.map((m) => m.member), fourToo).map((members) => ({ members, away: alike[0]!.away, center })); // prettier-ignore
      }),
    ),
  );
}

/** Parted into as few sets as can be of which each is spread evenly. */
function spread(all: readonly Member[], fourToo: boolean): Member[][] {
  for (let n = all.length; n >= 3; n--) {
    if (all.length % n !== 0 || (n === 4 && !fourToo)) continue;
    const turn = (2 * Math.PI) / n;
    const at = (angle: number) => all.find((m) => Math.abs(Math.sin((m.angle - angle) / 2)) < TURN * 10);
    const from = (m: Member) => Array.from({ length: n }, (_, i) => at(m.angle + i * turn));
    if (!all.every((m) => from(m).every(Boolean))) continue;
    const sets: Member[][] = [];
    for (const m of all) if (!sets.some((s) => s.includes(m))) sets.push(from(m) as Member[]);
    return sets;
  }
  return [];
}

/** What their being spread evenly says. */
export function rowsOfRings(shape: Shape, rings: readonly Ring[]): Float64Array[] {
  const centers: { ring: Ring; c: [Vec3, Float64Array][] }[] = [];
  const rows = rings.flatMap((ring) => {
    const { members, center } = ring;
    const [first] = members;
    const e = cross(members[0]!.out, members[1]!.out);
    const u = first!.out;
    const v = unit(cross(unit(e)!, u))!;
    const moved = members.map((m) => ({ m, by: (d: Vec3) => motionOf(shape, m, d) }));
    const c = [u, v].map((d): [Vec3, Float64Array] => [d, sumOf(shape.width, moved.map(({ m, by }) => (m.is === 'plane' ? scaled(by(m.out), (2 * dot(m.out, d)) / members.length) : scaled(by(d), 1 / members.length))))]); // prettier-ignore
    const same = centers.find((o) => o.ring.center === center && center !== null);
    centers.push({ ring, c });
    const held = center
      ? c.map(([d, row]) => minusRow(row, shape.asideOf(center, d)))
      : same
        ? c.map(([, row], i) => minusRow(row, same.c[i]![1]))
        : [];
    const off = (d: Vec3) => sumOf(shape.width, c.map(([w, row]) => scaled(row, dot(w, d)))); // prettier-ignore
    // As each of them sees it: outwards, and the way round.
    const seen = moved.map(({ m, by }) => {
      if (m.is === 'plane') return [minusRow(by(m.out), off(m.out)), turnRow(shape, m.of, unit(e)!)];
      const round = cross(unit(e)!, m.out);
      return [minusRow(by(m.out), off(m.out)), minusRow(by(round), off(round))];
    });
    return [...held, ...seen.slice(1).flatMap((own, i) => own.map((row, k) => minusRow(row, seen[i]![k]!)))];
  });
  return rows.filter((row) => row.some((x) => Math.abs(x) > 1e-12));
}

const motionOf = (shape: Shape, m: Member, d: Vec3): Float64Array =>
  m.is === 'axis' ? shape.asideOf(m.of, d) : scaled(shape.offsetOf(m.of), dot(m.of.normal, d));

/** How a flat turns about the centre line; not at all where it stands square. */
function turnRow(shape: Shape, { tilts }: PlaneFreedom, e: Vec3): Float64Array {
  const row = new Float64Array(shape.width);
  for (const { about, unknown } of tilts) row[unknown] = dot(about, e);
  return row;
}

const scaled = (row: Float64Array, by: number): Float64Array => row.map((x) => x * by);
const minusRow = (a: Float64Array, b: Float64Array): Float64Array => a.map((x, i) => x - b[i]!);
const sumOf = (width: number, rows: readonly Float64Array[]): Float64Array =>
  rows.reduce((sum, row) => sum.map((x, i) => x + row[i]!), new Float64Array(width));
