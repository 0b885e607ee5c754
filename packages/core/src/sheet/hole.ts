/** Holes as drawings call them out: how many alike, how deep or through, and what is bored or sunk at their mouth. */
import type { Body } from '../names/body.ts';
import { cross, dot, minus, type Vec3 } from '../space/vector.ts';

export interface Hole {
  /** Faces of the body: the drilled round, the flat one it begins at, and, of a blind one, its flat bottom. */
  readonly drill: number;
  readonly mouth: number | null;
  readonly bottom: number | null;
  readonly bore: { readonly face: number; readonly floor: number } | null;
  /** What widens it at its mouth, and the point it ends in. */
  readonly sink: number | null;
  readonly tip: number | null;
  readonly told: HoleTold;
  readonly at: Vec3;
  readonly along: Vec3;
}

export interface HoleTold {
  /** mm */
  readonly diameter: number;
  /** mm from its mouth to where it is no longer so wide; null of one that goes through. */
  readonly depth: number | null;
  readonly bore: { readonly diameter: number; readonly depth: number } | null;
  /** Diameter where it is widest, mm, and the whole angle, rad. */
  readonly sink: { readonly diameter: number; readonly angle: number } | null;
}

const SAME = 1e-6;
/** mm by which rims lie on one axis. */
const COAXIAL = 1e-5;
const near = (a: number, b: number) => Math.abs(a - b) < SAME * Math.max(1, Math.abs(b));

/** A round edge about the axis: how far along, mm, how wide, and the two faces it lies between. */
interface Rim {
  readonly level: number;
  readonly radius: number;
  readonly faces: readonly number[];
}

/** All that is round about the axis of one edge. */
class AboutAxis {
  readonly rims: readonly Rim[];

  constructor(
    private readonly body: Body,
    readonly at: Vec3,
    readonly along: Vec3,
  ) {
    this.rims = body.facts.edges.flatMap(({ kind, axis, radius, faces }) => {
      if (kind !== 'circle' || !axis || radius === null) return [];
      const off = minus(axis.origin, at);
      const isOn = Math.hypot(...cross(axis.direction, along)) < SAME && Math.hypot(...cross(off, along)) < COAXIAL;
      return isOn ? [{ level: dot(off, along), radius, faces }] : [];
    });
  }

  readonly facts = (face: number) => this.body.facts.faces[face]!;
  readonly isWall = (face: number): boolean => this.facts(face).kind === 'cylinder' && this.facts(face).hollow === true;
  readonly isCone = (face: number): boolean => this.facts(face).kind === 'cone';
  readonly isFlat = (face: number): boolean => this.facts(face).kind === 'plane';
  readonly rimsOf = (face: number): readonly Rim[] => this.rims.filter((r) => r.faces.includes(face));
  readonly beyond = ({ faces }: Rim, face: number): number | undefined => faces.find((f) => f !== face);

  /** A flat ring between two walls, as at the foot of a counterbore. */
  private isFloor(face: number): boolean {
    const radii = this.rimsOf(face).map((r) => r.radius);
    const walls = this.rimsOf(face).filter((r) => r.faces.some(this.isWall));
    return this.isFlat(face) && walls.length > 1 && Math.max(...radii) > Math.min(...radii);
  }

  /** Walls, cones and floors that follow each other over the rims they share. */
  chainFrom(first: readonly number[]): ReadonlySet<number> {
    const chain = new Set<number>();
    const waiting = first.filter((f) => this.isWall(f) || this.isCone(f));
    for (let face = waiting.pop(); face !== undefined; face = waiting.pop()) {
      if (chain.has(face)) continue;
      chain.add(face);
      const next = this.rimsOf(face).flatMap((rim) => rim.faces);
      waiting.push(...next.filter((f) => this.isWall(f) || this.isCone(f) || this.isFloor(f)));
    }
    return chain;
  }
}

/** @param edge any round edge of it. @returns why it is not called out, as a sentence, where it is no hole or does not end clearly */
export function holeAt(body: Body, edge: number): Hole | string {
  const own = body.facts.edges[edge];
  if (own?.kind !== 'circle' || !own.axis) return 'A hole is called out at its round edge; pick that.';
  const about = new AboutAxis(body, own.axis.origin, own.axis.direction);
  const chain = about.chainFrom(own.faces);
  const walls = [...chain].filter(about.isWall).sort((a, b) => about.facts(a).radius! - about.facts(b).radius!);
  const [drill] = walls;
  if (drill === undefined) return 'This round is no hole; take its diameter.';
  const radius = about.facts(drill).radius!;
  const ends = about.rimsOf(drill);
  const unclear = ends.some((rim) => {
    const face = about.beyond(rim, drill);
    return face === undefined || !(about.isFlat(face) || about.isCone(face) || about.isWall(face));
  });
  if (unclear) return 'Where this hole ends is rounded, so its depth is not told; take its diameter, and a length.';
  const rims = [...chain].flatMap((face) => [...about.rimsOf(face)]);
  const closed = ends.find((rim) => isClosed(about, drill, rim, ends));
  // One that goes through begins where it is bored or sunk.
  const open = rims.filter((r) => r.faces.some((f) => about.isFlat(f) && !chain.has(f)));
  const begins = closed ? farthestFrom(rims, closed.level) : open.reduce<Rim | null>((w, r) => (w && w.radius >= r.radius ? w : r), null); // prettier-ignore
  const mouth = begins?.faces.find((f) => about.isFlat(f) && !chain.has(f)) ?? null;
  const bore = boreOf(about, chain, walls);
  const square = (!closed || (mouth !== null && !near(begins!.level, closed.level))) && (!bore || bore.depth > SAME);
  if (!square) return 'The mouth of this hole is not square to it, so its depth is not told; take its diameter, and a length.'; // prettier-ignore
  const bottom = closed ? about.beyond(closed, drill)! : null;
  const sink = sinkOf(about, [...chain].filter(about.isCone), radius);
  return {
    drill,
    mouth,
    bottom: bottom !== null && about.isFlat(bottom) ? bottom : null,
    bore: bore && { face: bore.face, floor: bore.floor },
    sink: sink?.face ?? null,
    tip: bottom !== null && about.isCone(bottom) ? bottom : null,
    at: own.axis.origin,
    along: own.axis.direction,
    told: {
      diameter: 2 * radius,
      depth: closed ? Math.abs(closed.level - begins!.level) : null,
      bore: bore && { diameter: bore.diameter, depth: bore.depth },
      sink: sink && { diameter: sink.diameter, angle: sink.angle },
    },
  }; // prettier-ignore
}

/** Does the drill end there? By a flat that looks back into it, or a cone that comes to a point. */
function isClosed(about: AboutAxis, drill: number, rim: Rim, ends: readonly Rim[]): boolean {
  const face = about.beyond(rim, drill)!;
  if (about.isCone(face)) return about.rimsOf(face).every((r) => r.radius <= rim.radius + SAME);
  const { normal } = about.facts(face);
  if (!normal) return false;
  const other = farthestFrom(ends, rim.level);
  // Of a drill with one round end only, the flat there tells by where the rest of the wall lies.
  const into = other && !near(other.level, rim.level) ? other.level - rim.level : dot(minus(about.facts(drill).center, about.at), about.along) - rim.level; // prettier-ignore
  return dot(normal, about.along) * into > 0;
}

const farthestFrom = (rims: readonly Rim[], level: number): Rim | null =>
  rims.reduce<Rim | null>((far, r) => (far && Math.abs(far.level - level) >= Math.abs(r.level - level) ? far : r), null); // prettier-ignore

/** The widest wall, where a floor lies between it and the drill. */
function boreOf(about: AboutAxis, chain: ReadonlySet<number>, walls: readonly number[]) {
  const widest = walls.at(-1)!;
  const floor = walls.length > 1 ? [...chain].find((f) => about.isFlat(f) && about.rimsOf(f).some((r) => r.faces.includes(widest))) : undefined; // prettier-ignore
  if (floor === undefined) return null;
  const { level } = about.rimsOf(floor)[0]!;
  const opens = farthestFrom(about.rimsOf(widest), level)!;
  return { face: widest, floor, diameter: 2 * about.facts(widest).radius!, depth: Math.abs(opens.level - level) };
}

function sinkOf(about: AboutAxis, cones: readonly number[], radius: number) {
  for (const cone of cones) {
    const [narrow, wide] = [...about.rimsOf(cone)].sort((a, b) => a.radius - b.radius);
    if (!narrow || !wide || wide.radius <= radius + SAME) continue;
    return { face: cone, diameter: 2 * wide.radius, angle: 2 * Math.atan2(wide.radius - narrow.radius, Math.abs(wide.level - narrow.level)) }; // prettier-ignore
  }
  return null;
}

/** All holes of a body that are called out alike, this one among them: drilled the same way, each on an axis of its own. */
export function holesAlike(body: Body, hole: Hole): Hole[] {
  const found: Hole[] = [];
  body.facts.edges.forEach(({ kind, radius, axis }, edge) => {
    if (kind !== 'circle' || radius === null || !axis || !near(2 * radius, hole.told.diameter)) return;
    if (Math.hypot(...cross(axis.direction, hole.along)) > SAME) return;
    const other = holeAt(body, edge);
    if (typeof other === 'string' || !isToldAlike(other.told, hole.told)) return;
    if (!found.some((f) => f.drill === other.drill)) found.push(other);
  });
  return found;
}

function isToldAlike(a: HoleTold, b: HoleTold): boolean {
  const numbers = ({ diameter, depth, bore, sink }: HoleTold) => [diameter, depth, bore?.diameter, bore?.depth, sink?.diameter, sink?.angle]; // prettier-ignore
  const others = numbers(b);
  return numbers(a).every((x, i) => {
    const y = others[i];
    return x == null || y == null ? x == y : near(x, y);
  });
}
