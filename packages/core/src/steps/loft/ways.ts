/** How places of the outlines go through the sections of a loft: straight, or by cubic Hermite splines. */
import { StepFailure } from '../../names/body.ts';
import { placeOnPiece } from '../../sketch/regions/piece-parts.ts';
import { toSpace } from '../../space/planes.ts';
import { apart, dot, minus, opposite, unit, type Vec3 } from '../../space/vector.ts';
import { centreOf, type Outline } from './matched.ts';

/** How strongly the first and the last section are left, 1 being as the distance to the next; null leaves them as it comes. */
export interface Pulls {
  readonly start: number | null;
  readonly end: number | null;
}

/** A direction, its size the strength, in which a place of an end is left. */
export type Leaving = (piece: number, share: number) => Vec3;

/** A place on its way through the sections. */
export interface Ways {
  /** Shares of the whole way at which the sections lie. */
  readonly at: readonly number[];
  /** Of a share of the way the place at a share of a piece. */
  place(way: number): (piece: number, share: number) => Vec3;
}

/** Sections nearer than this, mm, do not lie apart. */
const NEAR = 1e-6;

export function waysThrough(
  outlines: readonly Outline[],
  straight: boolean,
  leaving: { readonly start: Leaving | null; readonly end: Leaving | null },
): Ways {
  const centres = outlines.map(centreOf);
  const gaps = centres.slice(1).map((c, i) => apart(c, centres[i]!));
  if (gaps.some((gap) => gap < NEAR))
    throw new StepFailure('Two sections of this loft lie in one place; move one of them.');
  const total = gaps.reduce((a, b) => a + b, 0);
  const before = gaps.reduce<number[]>((all, gap) => [...all, all.at(-1)! + gap], [0]);
  const last = outlines.length - 1;
  const on = (i: number, piece: number, share: number): Vec3 => {
    const { frame, pieces } = outlines[i]!;
    return toSpace(frame, ...placeOnPiece(pieces[piece]!, share));
  };
  /** By mm of the way. */
  const slope = (i: number, piece: number, share: number): Vec3 => {
    const leave = i === 0 ? leaving.start : i === last ? leaving.end : null;
    if (leave) return leave(piece, share);
    const [from, to] = [Math.max(0, i - 1), Math.min(last, i + 1)];
    const [a, b, way] = [on(from, piece, share), on(to, piece, share), before[to]! - before[from]!];
    return [(b[0] - a[0]) / way, (b[1] - a[1]) / way, (b[2] - a[2]) / way];
  };
  return {
    at: before.map((at) => at / total),
    place(way) {
      const at = way * total;
      let i = 0;
      while (i < last - 1 && at > before[i + 1]!) i++;
      const [gap, t] = [gaps[i]!, (at - before[i]!) / gaps[i]!];
      const [h0, h1] = [(1 + 2 * t) * (1 - t) ** 2, t * t * (3 - 2 * t)];
      const [s0, s1] = [gap * t * (1 - t) ** 2, gap * t * t * (t - 1)];
      return (piece, share) => {
        const [a, b] = [on(i, piece, share), on(i + 1, piece, share)];
        if (straight) return [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), a[2] + t * (b[2] - a[2])];
        const [m, n] = [slope(i, piece, share), slope(i + 1, piece, share)];
        const sum = (k: 0 | 1 | 2) => h0 * a[k] + h1 * b[k] + s0 * m[k] + s1 * n[k];
        return [sum(0), sum(1), sum(2)];
      };
    },
  };
}

/** Does an end's own normal look along the way (1) or against it (−1)? */
export function senseOf(outlines: readonly Outline[], end: 'start' | 'end'): number {
  const [from, to] = (end === 'start' ? outlines.slice(0, 2) : outlines.slice(-2)).map(centreOf) as [Vec3, Vec3];
  return Math.sign(dot(outlines.at(end === 'start' ? 0 : -1)!.frame.normal, minus(to, from)));
}

/** Square to its section, towards the next one, so strongly. */
export function squareTo(outlines: readonly Outline[], end: 'start' | 'end', pull: number): Leaving {
  const { normal } = outlines.at(end === 'start' ? 0 : -1)!.frame;
  const by = senseOf(outlines, end) * pull;
  const out: Vec3 = [normal[0] * by, normal[1] * by, normal[2] * by];
  return () => out;
}

/** The normal that turns from one section's to the next one's, looking ahead. */
export function normalBetween(a: Outline, b: Outline, t: number, ahead: Vec3): Vec3 {
  const facing = ({ frame: { normal } }: Outline) => (dot(normal, ahead) < 0 ? opposite(normal) : normal);
  const [n, m] = [facing(a), facing(b)];
  return unit([n[0] + t * (m[0] - n[0]), n[1] + t * (m[1] - n[1]), n[2] + t * (m[2] - n[2])]) ?? n;
}
