/**
 * The freedoms of a shape: how its faces could lie otherwise while it stays the same kind of shape. A plane can move
 * along its normal, and turn where it stands at a slant; a round’s axis can move aside, and its radius change, a cone’s
 * radius and slope. What is
 * drawn square, in line, about one axis or running on smoothly is taken so, as whoever reads a drawing does.
 */
import type { Body } from '../../names/body.ts';
import { cross, dot, minus, unit, type Frame, type Vec3 } from '../../space/vector.ts';
import { roundingOf, type Rounding } from '../rounding.ts';

/** Directions and places nearer alike than this are the same; lengths by the size of the shape. */
const SAME = 1e-6;

export interface PlaneFreedom {
  readonly is: 'plane';
  readonly normal: Vec3;
  /** It turns about this place. */
  readonly center: Vec3;
  readonly offset: number;
  /** Axes about which it may turn, each with its unknown. */
  readonly tilts: readonly { readonly about: Vec3; readonly unknown: number }[];
  area: number;
}
export interface AxisFreedom {
  readonly direction: Vec3;
  readonly at: Vec3;
  readonly aside: readonly [Vec3, Vec3];
  readonly unknowns: readonly [number, number];
}
export interface RoundFreedom {
  readonly is: 'round';
  readonly axis: AxisFreedom;
  readonly radius: number;
  readonly hollow: boolean;
  readonly unknown: number;
}
/** Its radius where it was measured, and how much wider it grows along its axis. */
export interface ConeFreedom {
  readonly is: 'cone';
  readonly axis: AxisFreedom;
  /** Along the direction of the axis from the origin, mm, and its radius there. */
  readonly at: number;
  readonly radius: number;
  readonly slope: number;
  /** Where it is widest, mm, and whether it runs to a point. */
  readonly widest: number;
  readonly pointed: boolean;
  readonly unknowns: readonly [radius: number, slope: number];
}
/** A rounding between a flat face and a cylinder about an axis square to it: where it lies follows from these. */
export interface TorusFreedom {
  readonly is: 'torus';
  readonly axis: AxisFreedom;
  readonly of: Rounding;
  readonly round: RoundFreedom;
  readonly unknown: number;
}
export type FaceFreedom = PlaneFreedom | RoundFreedom | ConeFreedom | TorusFreedom;

/** A direction, and how what lies along it moves with the unknowns. */
export interface Motion {
  readonly along: Vec3;
  readonly row: Float64Array;
}

export class Shape {
  readonly planes: PlaneFreedom[] = [];
  readonly rounds: RoundFreedom[] = [];
  readonly cones: ConeFreedom[] = [];
  readonly tori: TorusFreedom[] = [];
  readonly axes: AxisFreedom[] = [];
  /** Faces that are neither flat, cylinders, cones nor roundings of turned edges: these are not judged. */
  others = 0;
  width = 0;
  private readonly ofFace: (FaceFreedom | null)[][];
  private readonly size: number;

  /** @param square the three directions in which planes are taken to lie as they are drawn */
  constructor(
    readonly bodies: readonly Body[],
    readonly square: Frame,
  ) {
    this.size = Math.max(1, ...bodies.map(({ facts: { box } }) => Math.hypot(...minus(box.max, box.min))));
    this.ofFace = bodies.map((body) => body.facts.faces.map((_, face) => this.freedomOf(body, face)));
  }

  face(body: number, face: number): FaceFreedom | null {
    return this.ofFace[body]![face]!;
  }

  /** Rows that hold by what is taken so: smooth edges, and the shape as a whole, which may stand anywhere. */
  relations(): Float64Array[] {
    const rows: Float64Array[] = [0, 1, 2].map((i) => this.moved([Number(i === 0), Number(i === 1), Number(i === 2)]));
    this.bodies.forEach((body, at) =>
      body.facts.edges.forEach(({ faces: [one, other], middle, ends }, edge) => {
        if (one === undefined || other === undefined || one === other || Math.abs(body.facts.bends[edge]!) > 1e-6)
          return;
        // A cone may lean otherwise as well: it runs on smoothly all along the edge.
        const leans = [one, other].some((f) => this.face(at, f)?.is === 'cone');
        for (const place of [middle, ...(leans ? ends.map((e) => body.facts.corners[e]!) : [])]) {
          const [a, b] = [this.motion(at, one, place), this.motion(at, other, place)];
          if (!a || !b) continue;
          const same = dot(a.along, b.along);
          if (Math.abs(Math.abs(same) - 1) < 1e-6) rows.push(a.row.map((x, i) => x * Math.sign(same) - b.row[i]!));
        }
      }),
    );
    return rows.filter((row) => row.some((x) => x !== 0));
  }

  /** All unknowns when the whole shape is moved: told apart from its own freedoms. */
  private moved(by: Vec3): Float64Array {
    const row = new Float64Array(this.width);
    this.planes.forEach((p, i) => (row[this.planeUnknown[i]!] = dot(p.normal, by)));
    for (const { aside, unknowns } of this.axes) aside.forEach((e, k) => (row[unknowns[k]!] = dot(e, by)));
    for (const { axis, slope, unknowns } of this.cones) row[unknowns[0]] = -slope * dot(axis.direction, by);
    return row;
  }

  /** How a place on a face moves square to it. @returns null of a face that is not judged */
  motion(body: number, face: number, at: Vec3): Motion | null {
    const own = this.face(body, face);
    if (!own || own.is === 'torus') return null;
    const row = new Float64Array(this.width);
    if (own.is === 'plane') {
      row[this.planeUnknown[this.planes.indexOf(own)]!] = 1;
      for (const { about, unknown } of own.tilts)
        row[unknown] = -dot(cross(about, own.normal), minus(at, own.center)) / this.size;
      return { along: own.normal, row };
    }
    const out = minus(at, own.axis.at);
    const off = minus(out, scaled(own.axis.direction, dot(out, own.axis.direction)));
    const along = unit(off);
    if (!along) return null;
    if (own.is === 'cone') {
      const { axis, slope } = own;
      const square = unit(minus(along, scaled(axis.direction, slope)))!;
      const wider = this.widened(own, dot(at, axis.direction));
      axis.aside.forEach((e, k) => (wider[axis.unknowns[k]!] = dot(e, along)));
      return { along: square, row: wider.map((x) => x / Math.hypot(1, slope)) };
    }
    own.axis.aside.forEach((e, k) => (row[own.axis.unknowns[k]!] = dot(e, along)));
    row[own.unknown] = 1;
    return { along, row };
  }

  /** How a cone’s radius changes at a place along its axis. */
  widened({ at, unknowns: [radius, slope] }: ConeFreedom, along: number): Float64Array {
    const row = this.only(radius);
    row[slope] = (along - at) / this.size;
    return row;
  }

  /** How an axis moves along a direction square to it. */
  asideOf({ aside, unknowns }: AxisFreedom, d: Vec3): Float64Array {
    const row = new Float64Array(this.width);
    aside.forEach((e, k) => (row[unknowns[k]!] = dot(e, d)));
    return row;
  }

  /** How an axis moves aside. */
  axisMotions({ aside, unknowns }: AxisFreedom): Motion[] {
    return aside.map((along, k) => ({ along, row: this.only(unknowns[k]!) }));
  }

  only(unknown: number): Float64Array {
    const row = new Float64Array(this.width);
    row[unknown] = 1;
    return row;
  }

  offsetOf(plane: PlaneFreedom): Float64Array {
    return this.only(this.planeUnknown[this.planes.indexOf(plane)]!);
  }

  private readonly planeUnknown: number[] = [];

  private freedomOf({ facts }: Body, face: number): FaceFreedom | null {
    const { kind, normal, center, radius, axis, hollow, area } = facts.faces[face]!;
    if (kind === 'plane' && normal) return this.planeOf(normal, center, area);
    if (kind === 'cylinder' && axis && radius !== null) return this.roundOf(axis.direction, axis.origin, radius, hollow ?? false); // prettier-ignore
    const own = kind === 'cone' ? this.coneOf(facts, face) : kind === 'torus' ? this.torusOf(facts, face) : null;
    if (!own) this.others++;
    return own;
  }

  private planeOf(normal: Vec3, center: Vec3, area: number): PlaneFreedom {
    const n = signed(normal);
    const offset = dot(n, center);
    const known = this.planes.find(
      (p) => dot(p.normal, n) > 1 - SAME && Math.abs(p.offset - offset) < SAME * this.size,
    );
    if (known) {
      known.area += area;
      return known;
    }
    this.planeUnknown.push(this.width++);
    const axes = [this.square.x, this.square.y, this.square.normal];
    const straight = axes.some((a) => Math.abs(dot(a, n)) > 1 - SAME);
    const level = axes.filter((a) => Math.abs(dot(a, n)) < SAME);
    const about = straight ? [] : level.length > 0 ? level.slice(0, 1) : asideOf(n);
    const own: PlaneFreedom = { is: 'plane', normal: n, center, offset, area, tilts: about.map((a) => ({ about: a, unknown: this.width++ })) }; // prettier-ignore
    this.planes.push(own);
    return own;
  }

  /** By two places on it that lie apart along its axis: round edges, and corners. */
  private coneOf({ edges, corners }: Body['facts'], face: number): ConeFreedom | null {
    const own = edges.filter((e) => e.faces.includes(face));
    const circles = own.filter((e) => e.kind === 'circle' && e.axis && e.radius !== null);
    const first = circles[0]?.axis;
    if (!first) return null;
    const d = signed(first.direction);
    const away = (p: Vec3) => offAxis(minus(p, first.origin), d);
    const ends = own
      .flatMap((e) => e.ends)
      .map((end): [number, number] => [dot(corners[end]!, d), away(corners[end]!)]);
    const places = [...circles.map((c): [number, number] => [dot(c.axis!.origin, d), c.radius!]), ...ends].sort((a, b) => a[0] - b[0]); // prettier-ignore
    const [low, high] = [places[0]!, places.at(-1)!];
    const near = SAME * this.size;
    if (high[0] - low[0] < near) return null;
    const slope = (high[1] - low[1]) / (high[0] - low[0]);
    const axis = this.axisAt(first.direction, first.origin);
    const known = this.cones.find((c) => c.axis === axis && Math.abs(c.slope - slope) < SAME && Math.abs(c.radius + slope * (low[0] - c.at) - low[1]) < near); // prettier-ignore
    if (known) return known;
    const pointed = Math.min(low[1], high[1]) < near;
    const cone: ConeFreedom = { is: 'cone', axis, at: low[0], radius: low[1], slope, widest: Math.max(low[1], high[1]), pointed, unknowns: [this.width++, this.width++] }; // prettier-ignore
    this.cones.push(cone);
    return cone;
  }

  private torusOf(facts: Body['facts'], face: number): TorusFreedom | null {
    const of = roundingOf(facts, face);
    if (!of) return null;
    const wall = facts.faces[of.wall]!;
    if (!wall.axis || wall.radius === null) return null;
    const round = this.roundOf(wall.axis.direction, wall.axis.origin, wall.radius, wall.hollow ?? false);
    const own: TorusFreedom = { is: 'torus', axis: round.axis, of, round, unknown: this.width++ };
    this.tori.push(own);
    return own;
  }

  private axisAt(direction: Vec3, origin: Vec3): AxisFreedom {
    const d = signed(direction);
    const known = this.axes.find((a) => dot(a.direction, d) > 1 - SAME && offAxis(minus(origin, a.at), d) < SAME * this.size); // prettier-ignore
    if (known) return known;
    const main = [this.square.x, this.square.y, this.square.normal].filter((a) => Math.abs(dot(a, d)) < SAME);
    const aside = (main.length === 2 ? main : asideOf(d)) as unknown as [Vec3, Vec3];
    const own: AxisFreedom = { direction: d, at: origin, aside, unknowns: [this.width++, this.width++] };
    this.axes.push(own);
    return own;
  }

  private roundOf(direction: Vec3, origin: Vec3, radius: number, hollow: boolean): RoundFreedom {
    const near = SAME * this.size;
    const axis = this.axisAt(direction, origin);
    const known = this.rounds.find((r) => r.axis === axis && r.hollow === hollow && Math.abs(r.radius - radius) < near);
    if (known) return known;
    const own: RoundFreedom = { is: 'round', axis, radius, hollow, unknown: this.width++ };
    this.rounds.push(own);
    return own;
  }
}

const scaled = ([x, y, z]: Vec3, by: number): Vec3 => [x * by, y * by, z * by];

/** How far a place is from a line through the origin. */
const offAxis = (p: Vec3, d: Vec3): number => Math.hypot(...minus(p, scaled(d, dot(p, d))));

/** One of the two directions of a line, always the same. */
function signed(v: Vec3): Vec3 {
  const first = v.find((c) => Math.abs(c) > 1e-9) ?? 1;
  return first < 0 ? [-v[0] || 0, -v[1] || 0, -v[2] || 0] : v;
}

/** Two directions square to one, and to each other. */
function asideOf(n: Vec3): Vec3[] {
  const other: Vec3 = Math.abs(n[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0];
  const one = unit(cross(n, other))!;
  return [one, cross(n, one)];
}
