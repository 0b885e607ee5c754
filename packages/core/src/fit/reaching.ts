/** Pins and axles too short or too long for their stack. */
import type { CorneredBody } from '../names/find-vertex.ts';
import { dot, minus, opposite, type Vec3 } from '../space/vector.ts';
import type { Round } from './lining-up.ts';
import { spotsOfEdge, type Flat } from './standing-faces.ts';
import { transformOf, type Pose } from '../space/pose.ts';
import { movedPoint } from '../space/transform.ts';

export interface Amiss {
  /** It ends within the last bore of its stack, or sticks out of it. */
  readonly kind: 'short' | 'long';
  readonly shank: Round;
  readonly bore: Round;
  /** How much it lacks or sticks out, mm, and which way. */
  readonly by: number;
  readonly towards: Vec3;
  /** The flat end of the pin and the face it should reach; null where there is no flat one. */
  readonly ends: readonly [Flat, Flat] | null;
}

/** Axes closer than this share of the radius are meant to be one. */
const IN_LINE = 0.05;
const PARALLEL = 1e-4;
/** A bore wider than this many times the shank is not the shank’s. */
const WIDER = 1.5;
/** Of the bore’s length: less is let pass. */
const LACKS = 0.05;
/** Of the radius: what sticks out less is meant, for a nut, a clip or a washer. */
const STICKS_OUT = 2;
const NEAR = 1e-3;

interface Stood {
  readonly body: CorneredBody;
  readonly pose: Pose;
}

/** A shank seen along its axis one way, with the bores it is in or near; heights from the origin of its axis, mm. */
interface Seen {
  readonly shank: Round;
  readonly way: Vec3;
  readonly start: number;
  readonly end: number;
  readonly stack: readonly { readonly bore: Round; readonly low: number; readonly high: number }[];
  /** Those it is in, of more than one member. */
  readonly engaged: Seen['stack'];
}

/** @param bodyOf the body a round or flat face is on */
function shanksSeen(rounds: readonly Round[], bodyOf: (of: Round) => Stood): Seen[] {
  return rounds
    .filter((r) => !r.hollow)
    .flatMap((shank) => {
      const { origin, direction } = shank.axis;
      const bores = rounds.filter((b) => b.hollow && b.member !== shank.member && isAbout(shank, b));
      return [1, -1].flatMap((sense): Seen[] => {
        const way = sense > 0 ? direction : opposite(direction);
        const height = (p: Vec3) => dot(minus(p, origin), way);
        const end = endOf(shank, bodyOf(shank), height);
        if (end === null) return [];
        const start = sense > 0 ? shank.from : -shank.to;
        const stack = bores.map((bore) => ({ bore, ...reach(bore, height) }));
        const engaged = stack.filter((b) => start < b.high - NEAR && end > b.low + NEAR);
        return new Set(engaged.map((b) => b.bore.member)).size > 1 ? [{ shank, way, start, end, stack, engaged }] : [];
      });
    });
}

/**
 * Pins that end within the last bore of their stack.
 * @param flats of all members
 */
export function endingShort(rounds: readonly Round[], flats: readonly Flat[], bodyOf: (of: Round) => Stood): Amiss[] {
  return shanksSeen(rounds, bodyOf).flatMap(({ shank, way, start, end, stack }): Amiss[] => {
    const last = stack.find((b) => start <= b.low + NEAR && end > b.low + NEAR && end < b.high - LACKS * (b.high - b.low)); // prettier-ignore
    const mouth = last && flatAt(flats, last.bore, way, shank.axis.origin, last.high);
    if (!mouth) return [];
    const tip = flatAt(flats, shank, way, shank.axis.origin, end);
    return [{ kind: 'short', shank, bore: last.bore, by: last.high - end, towards: way, ends: tip && [tip, mouth] }];
  });
}

/** Pins that stick out of the last bore of their stack by more than they are thick, with nothing on them there. */
export function stickingOut(rounds: readonly Round[], flats: readonly Flat[], bodyOf: (of: Round) => Stood): Amiss[] {
  return shanksSeen(rounds, bodyOf).flatMap(({ shank, way, end, stack, engaged }): Amiss[] => {
    const last = engaged.reduce((a, b) => (b.high > a.high ? b : a));
    const by = end - last.high;
    if (by <= STICKS_OUT * shank.radius || stack.some((b) => b.low > last.high - NEAR && b.low < end)) return [];
    const [tip, mouth] = [[shank, end] as const, [last.bore, last.high] as const].map(([of, at]) => flatAt(flats, of, way, shank.axis.origin, at)); // prettier-ignore
    return [{ kind: 'long', shank, bore: last.bore, by, towards: way, ends: tip && mouth ? [tip, mouth] : null }];
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
