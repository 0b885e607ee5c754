/**
 * Outlines made ready to go over into each other: all walked the same way round, begun at places that lie over
 * one another, and divided into as many pieces as the one with most corners.
 */
import { pieceSplit, pieceLength, pieceReversed, placeOnPiece } from '../../sketch/regions/piece-parts.ts';
import type { LoopPiece } from '../../sketch/regions/piece.ts';
import { directionInSpace, toSpace } from '../../space/planes.ts';
import { dot, minus, unit, type Frame, type Vec3 } from '../../space/vector.ts';

export interface Outline {
  readonly frame: Frame;
  readonly pieces: readonly LoopPiece[];
  /** Which way from its middle it begins, rad from the frame's x; null as it fits the one before. */
  readonly start: number | null;
}

export function matched<O extends Outline>(outlines: readonly O[]): O[] {
  const centres = outlines.map(centreOf);
  const alike = walkedAlike(outlines, centres);
  const most = Math.max(...alike.map((o) => cornersOf(o.pieces)));
  const started: O[] = [];
  alike.forEach((o, i) => {
    const before = started[i - 1];
    const wanted = o.start === null ? before && offset(before, centres[i - 1]!) : directionInSpace(o.frame, Math.cos(o.start), Math.sin(o.start)); // prettier-ignore
    started.push(wanted ? startedNear(o, centres[i]!, wanted) : startedAlong(o));
  });
  const model = started.find((o) => cornersOf(o.pieces) === most)!;
  const shares = sharesOf(model.pieces);
  return started.map((o) => (o.pieces.length === most ? o : { ...o, pieces: divided(o.pieces, shares) }));
}

/** All walked the same way round, as one looks along the sections. */
export function walkedAlike<O extends Outline>(outlines: readonly O[], centres: readonly Vec3[]): O[] {
  const way = unit(minus(centres.at(-1)!, centres[0]!)) ?? outlines[0]!.frame.normal;
  const sense = (o: Outline, i: number) => {
    const ahead =
      unit(minus(centres[i + 1] ?? centres[i]!, centres[i + 1] ? centres[i]! : (centres[i - 1] ?? centres[i]!))) ?? way;
    return Math.sign(dot(o.frame.normal, ahead)) || 1;
  };
  const first = sense(outlines[0]!, 0);
  return outlines.map((o, i) =>
    sense(o, i) === first ? o : { ...o, pieces: [...o.pieces].reverse().map(pieceReversed) },
  );
}

/** Stretches that begin and end over one another, each divided into as many pieces as the one with most. */
export function dividedAlike(stretches: readonly (readonly LoopPiece[])[]): LoopPiece[][] {
  const model = stretches.reduce((a, b) => (b.length > a.length ? b : a));
  const shares = sharesOf(model);
  return stretches.map((own) => (own.length === model.length ? [...own] : divided(own, shares)));
}

/** A whole circle or ellipse has no corner, and begins anywhere. */
const isSmooth = (pieces: readonly LoopPiece[]) => pieces.length === 1;
const cornersOf = (pieces: readonly LoopPiece[]) => pieces.length;

const start = (o: Outline): Vec3 => toSpace(o.frame, ...o.pieces[0]!.from);
const offset = (o: Outline, centre: Vec3): Vec3 => minus(start(o), centre);

export function centreOf({ frame, pieces }: Outline): Vec3 {
  let [x, y, total] = [0, 0, 0];
  for (const p of pieces) {
    const length = pieceLength(p);
    for (let i = 0; i < SAMPLES; i++) {
      const [u, v] = placeOnPiece(p, (i + 0.5) / SAMPLES);
      x += (u * length) / SAMPLES;
      y += (v * length) / SAMPLES;
    }
    total += length;
  }
  return toSpace(frame, x / total, y / total);
}
const SAMPLES = 32;

/** A whole ellipse begun at an end of its longer axis, where the kernel would begin it: of others it makes less well. */
function startedAlong<O extends Outline>(o: O): O {
  const [whole] = o.pieces as [LoopPiece];
  if (!isSmooth(o.pieces) || whole.kind !== 'ellipse' || Math.hypot(...whole.minor) <= Math.hypot(...whole.major))
    return o;
  const quarter = 0.25;
  const [a, b] = pieceSplit(whole, quarter);
  return { ...o, pieces: [joinedAgain(whole, b, a, quarter)] };
}

/** Begun at the corner, or where it is smooth at the place, that lies most in this direction from its centre. */
function startedNear<O extends Outline>(o: O, centre: Vec3, wanted: Vec3): O {
  const aim = unit(wanted) ?? [1, 0, 0];
  const score = ([u, v]: readonly [number, number]) => dot(unit(minus(toSpace(o.frame, u, v), centre)) ?? aim, aim);
  const { pieces } = o;
  if (isSmooth(pieces)) {
    const [whole] = pieces as [LoopPiece];
    const s = best((t) => score(placeOnPiece(whole, t)));
    if (s === 0) return o;
    const [a, b] = pieceSplit(whole, s);
    return { ...o, pieces: [joinedAgain(whole, b, a, s)] };
  }
  const scores = pieces.map((p) => score(p.from));
  const at = scores.indexOf(Math.max(...scores));
  return { ...o, pieces: [...pieces.slice(at), ...pieces.slice(0, at)] };
}

/** The same closed curve begun elsewhere. */
export function joinedAgain(whole: LoopPiece, later: LoopPiece, earlier: LoopPiece, s: number): LoopPiece {
  if (whole.kind === 'arc' || whole.kind === 'ellipse')
    return { ...whole, from: later.from, to: earlier.to, start: whole.start + whole.sweep * s };
  return whole;
}

/** Where a smooth function over 0 … 1 is greatest. */
function best(f: (t: number) => number): number {
  const steps = 360;
  let top = 0;
  for (let i = 1; i < steps; i++) if (f(i / steps) > f(top / steps)) top = i;
  let [low, high] = [(top - 1) / steps, (top + 1) / steps];
  for (let i = 0; i < 60; i++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (f((a + 1) % 1) < f((b + 1) % 1)) low = a;
    else high = b;
  }
  const t = ((low + high) / 2 + 1) % 1;
  return t > 1 - 1e-9 || t < 1e-9 ? 0 : t;
}

/** Of each corner, what share of the way round lies before it. */
function sharesOf(pieces: readonly LoopPiece[]): number[] {
  const lengths = pieces.map(pieceLength);
  const total = lengths.reduce((a, b) => a + b, 0);
  let before = 0;
  return lengths.map((l) => {
    const share = before / total;
    before += l;
    return share;
  });
}

/** Divided so that it has as many corners as there are shares: its own, and between them others in proportion. */
function divided(pieces: readonly LoopPiece[], shares: readonly number[]): LoopPiece[] {
  const own = sharesOf(pieces);
  const taken = assigned(own, shares);
  const out: LoopPiece[] = [];
  pieces.forEach((piece, i) => {
    const [from, to] = [taken[i]!, taken[i + 1] ?? shares.length];
    const [low, high] = [shares[from]!, shares[to] ?? 1];
    let rest = piece;
    let done = 0;
    for (let k = from + 1; k < to; k++) {
      const at = (shares[k]! - low) / (high - low);
      const [a, b] = pieceSplit(rest, (at - done) / (1 - done));
      out.push(a);
      rest = b;
      done = at;
    }
    out.push(rest);
  });
  return out;
}

/** Which share each of its own corners takes: in order, the first the first, together as near as can be. */
function assigned(own: readonly number[], shares: readonly number[]): number[] {
  const [n, m] = [own.length, shares.length];
  const cost = Array.from({ length: n }, () => new Array<number>(m).fill(Infinity));
  const from = Array.from({ length: n }, () => new Array<number>(m).fill(-1));
  cost[0]![0] = 0;
  for (let i = 1; i < n; i++)
    for (let j = i; j < m; j++)
      for (let k = i - 1; k < j; k++) {
        const c = cost[i - 1]![k]! + Math.abs(own[i]! - shares[j]!);
        if (c < cost[i]![j]!) {
          cost[i]![j] = c;
          from[i]![j] = k;
        }
      }
  let j = cost[n - 1]!.indexOf(Math.min(...cost[n - 1]!));
  const taken = new Array<number>(n);
  for (let i = n - 1; i >= 0; i--) {
    taken[i] = j;
    j = from[i]![j]!;
  }
  return taken;
}
