/** Pins and axles that end within the last bore of their stack. */
import type { CorneredBody } from '../names/find-vertex.ts';
import { dot, minus, opposite, type Vec3 } from '../space/vector.ts';
import type { Round } from './lining-up.ts';
import { spotsOfEdge, type Flat } from './standing-faces.ts';
import { transformOf, type Pose } from '../space/pose.ts';
import { movedPoint } from '../space/transform.ts';

export interface Short {
  readonly shank: Round;
  readonly bore: Round;
  /** How much it lacks, mm, and which way. */
  readonly by: number;
  readonly towards: Vec3;
  /** The flat end of the pin and the face it should reach; null where the pin ends in no flat face. */
  readonly ends: readonly [Flat, Flat] | null;
}

/** Axes closer than this share of the radius are meant to be one. */
const IN_LINE = 0.05;
const PARALLEL = 1e-4;
/** A bore wider than this many times the shank is not the shank’s. */
const WIDER = 1.5;
/** Of the bore’s length: less is let pass. */
const LACKS = 0.05;
const NEAR = 1e-3;

interface Stood {
  readonly body: CorneredBody;
  readonly pose: Pose;
}

/**
 * @param bodyOf the body a round or flat face is on
 * @param flats of all members
 */
export function endingShort(rounds: readonly Round[], flats: readonly Flat[], bodyOf: (of: Round) => Stood): Short[] {
  return rounds
    .filter((r) => !r.hollow)
    .flatMap((shank) => {
      const { origin, direction } = shank.axis;
      const bores = rounds.filter((b) => b.hollow && b.member !== shank.member && isAbout(shank, b));
      return [1, -1].flatMap((sense): Short[] => {
        const way = sense > 0 ? direction : opposite(direction);
        const height = (p: Vec3) => dot(minus(p, origin), way);
        const end = endOf(shank, bodyOf(shank), height);
        if (end === null) return [];
        const start = sense > 0 ? shank.from : -shank.to;
        const stack = bores.map((bore) => ({ bore, ...reach(bore, height) }));
        const engaged = stack.filter((b) => start < b.high - NEAR && end > b.low + NEAR);
        const last = stack.find((b) => start <= b.low + NEAR && end > b.low + NEAR && end < b.high - LACKS * (b.high - b.low)); // prettier-ignore
        if (!last || !engaged.some((b) => b.bore.member !== last.bore.member)) return [];
        const mouth = flatAt(flats, last.bore, way, origin, last.high);
        if (!mouth) return [];
        const tip = flatAt(flats, shank, way, origin, end);
        return [{ shank, bore: last.bore, by: last.high - end, towards: way, ends: tip && [tip, mouth] }];
      });
    });
}

function isAbout(shank: Round, bore: Round): boolean {
  const d = minus(bore.axis.origin, shank.axis.origin);
  const along = dot(d, shank.axis.direction);
  const off = Math.sqrt(Math.max(0, dot(d, d) - along * along));
  return (
    Math.abs(Math.abs(dot(shank.axis.direction, bore.axis.direction)) - 1) < PARALLEL &&
    off < IN_LINE * shank.radius &&
    bore.radius > shank.radius * (1 - IN_LINE) &&
    bore.radius < shank.radius * WIDER
  );
}

function reach({ axis, from, to }: Round, height: (p: Vec3) => number): { low: number; high: number } {
  const [a, b] = [from, to].map((t) => height([0, 1, 2].map((k) => axis.origin[k]! + t * axis.direction[k]!) as unknown as Vec3)) as [number, number]; // prettier-ignore
  return { low: Math.min(a, b), high: Math.max(a, b) };
}

/** How far the pin goes this way, past its bevels; null where it goes on wider, as into a head. */
function endOf({ axis, radius }: Round, { body, pose }: Stood, height: (p: Vec3) => number): number | null {
  const to = transformOf(pose);
  let [end, wider] = [-Infinity, -Infinity];
  for (const i of body.facts.edges.keys())
    for (const p of spotsOfEdge(body.facts, i).map((s) => movedPoint(to, s))) {
      const d = minus(p, axis.origin);
      const along = dot(d, axis.direction);
      const off = Math.sqrt(Math.max(0, dot(d, d) - along * along));
      if (off < radius * (1 + PARALLEL)) end = Math.max(end, height(p));
      else wider = Math.max(wider, height(p));
    }
  return Number.isFinite(end) && wider < end - NEAR ? end : null;
}

/** The flat face of the same member square to the axis at this height, or a bevel’s width from it. */
function flatAt(flats: readonly Flat[], of: Round, way: Vec3, origin: Vec3, at: number): Flat | null {
  const away = (f: Flat) => Math.abs(f.height - dot(way, origin) - at);
  const [first] = flats
    .filter(
      (f) => f.member === of.member && f.body === of.body && dot(f.normal, way) > 1 - PARALLEL && away(f) < of.radius,
    ) // prettier-ignore
    .sort((a, b) => away(a) - away(b));
  return first ?? null;
}
