/** By how much the sides of a loft go aside of their own way, to keep to its guides. */
import { StepFailure } from '../../names/body.ts';
import { pieceLength } from '../../sketch/regions/piece-parts.ts';
import { alongPiece } from '../../slots/regions/leaning.ts';
import type { Stop } from '../../slots/path/walk.ts';
import { dot, minus, type Vec3 } from '../../space/vector.ts';
import type { Guide } from './guides.ts';
import type { Outline } from './matched.ts';
import { normalBetween, type Ways } from './ways.ts';

export interface Aside {
  at(way: number): (piece: number, share: number) => Vec3;
  /** Where a guide is less smooth, by shares of the way. */
  readonly stops: readonly { readonly at: number; readonly how: Stop['how'] }[];
}

const NONE: Vec3 = [0, 0, 0];
/** Cosine of the widest angle between a guide and the way through the sections. */
const ACROSS = 0.02;
/** Directions apart by more than this make a corner. */
const CORNER = 1e-3;

/** @param guides by the piece each begins. @throws StepFailure where one turns back */
export function asideOf(outlines: readonly Outline[], ways: Ways, guides: ReadonlyMap<number, Guide>): Aside {
  if (guides.size === 0) return { at: () => () => NONE, stops: [] };
  const count = outlines[0]!.pieces.length;
  const corners = Array.from({ length: count }, (_, k) => outlines.some((o) => isCorner(o, k)));
  const lengths = outlines.map((o) => o.pieces.map(pieceLength));
  /** Where it passes the plane between the sections there, mm along it. */
  const passing = (guide: Guide, piece: number, way: number) => {
    const [i, t] = spanAt(ways, way);
    const own = ways.place(way)(piece, 0);
    const normal = normalBetween(outlines[i]!, outlines[i + 1]!, t, minus(ways.place(ways.at[i + 1]!)(piece, 0), ways.place(ways.at[i]!)(piece, 0))); // prettier-ignore
    let [low, high] = [guide.through[i]!, guide.through[i + 1]!];
    if (t <= 0 || t >= 1) return { own, on: t <= 0 ? low : high };
    const ahead = (on: number) => dot(minus(guide.walk.on(on).at, own), normal);
    let on = low + t * (high - low);
    for (let k = 0; k < 60; k++) {
      const off = ahead(on);
      if (off > 0) high = on;
      else low = on;
      const against = dot(guide.walk.on(on).way, normal);
      const next = against > ACROSS ? on - off / against : NaN;
      const to = next > low && next < high ? next : (low + high) / 2;
      if (Math.abs(to - on) < 1e-13 * (1 + high)) break;
      on = to;
    }
    return { own, on };
  };
  for (const [piece, guide] of guides) refuseBack(outlines, ways, piece, guide);
  /** Drawn a hair beside an outline, it is taken as if it ran through. */
  const missed = (guide: Guide, piece: number) => ways.at.map((way, i) => minus(guide.walk.on(guide.through[i]!).at, ways.place(way)(piece, 0))); // prettier-ignore
  const led = [...guides].map(([piece, guide]) => {
    const off = missed(guide, piece);
    return {
      piece,
      by(way: number): Vec3 {
        const { own, on } = passing(guide, piece, way);
        const [i, t] = spanAt(ways, way);
        const p = guide.walk.on(on).at;
        const at = (k: 0 | 1 | 2) => p[k] - own[k] - (1 - t) * off[i]![k] - t * off[i + 1]![k];
        return [at(0), at(1), at(2)];
      },
    };
  });
  const known = new Map<number, (piece: number, share: number) => Vec3>();
  return {
    at(way) {
      let told = known.get(way);
      if (!told) {
        const [i, t] = spanAt(ways, way);
        const wide = lengths[i]!.map((l, k) => (1 - t) * l + t * lengths[i + 1]![k]!);
        told = spread(wide, corners, new Map(led.map(({ piece, by }) => [piece, by(way)])));
        known.set(way, told);
      }
      return told;
    },
    stops: [...guides].flatMap(([piece, guide]) =>
      guide.walk.stops
        .filter((s) => s.along > guide.through[0]! && s.along < guide.through.at(-1)!)
        .map(({ along, how }) => ({ at: whenPassing(along, (way) => passing(guide, piece, way).on), how })),
    ),
  };
}

const LOOKED_AT = 200;

/** @throws StepFailure where a guide does not always run on to the next section */
function refuseBack(outlines: readonly Outline[], ways: Ways, piece: number, { walk, through }: Guide): void {
  through.slice(1).forEach((to, i) => {
    const from = through[i]!;
    const ahead = minus(ways.place(ways.at[i + 1]!)(piece, 0), ways.place(ways.at[i]!)(piece, 0));
    for (let k = 0; k <= LOOKED_AT; k++) {
      const { way } = walk.on(from + (k / LOOKED_AT) * (to - from));
      if (dot(way, normalBetween(outlines[i]!, outlines[i + 1]!, k / LOOKED_AT, ahead)) < ACROSS)
        throw new StepFailure('A guide of this loft turns back or runs across its way; redraw it so that it always runs on.'); // prettier-ignore
    }
  });
}

/** Between which sections, from the first of them, and at what share of the way between them. */
function spanAt({ at }: Ways, way: number): readonly [section: number, share: number] {
  let i = 0;
  while (i < at.length - 2 && way > at[i + 1]!) i++;
  return [i, (way - at[i]!) / (at[i + 1]! - at[i]!)];
}

function whenPassing(along: number, on: (way: number) => number): number {
  let [low, high] = [0, 1];
  for (let k = 0; k < 60; k++) {
    const middle = (low + high) / 2;
    if (on(middle) < along) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Does the outline turn sharply where this piece begins? */
function isCorner({ pieces }: Outline, k: number): boolean {
  const [into, out] = [alongPiece(pieces.at(k - 1)!, 1), alongPiece(pieces[k]!, 0)];
  return Math.hypot(into[0] - out[0], into[1] - out[1]) > CORNER;
}

/**
 * What is led at some places of the outline, spread over all of it: from guide to guide smoothly by the length between
 * them, up to corners that no guide leads, which stay.
 */
function spread(
  wide: readonly number[],
  corners: readonly boolean[],
  led: ReadonlyMap<number, Vec3>,
): (piece: number, share: number) => Vec3 {
  const count = wide.length;
  const nodes: { at: number; by: Vec3; sharp: boolean }[] = [];
  const starts: number[] = [];
  let total = 0;
  for (let k = 0; k < count; k++) {
    starts.push(total);
    if (led.has(k) || corners[k]) nodes.push({ at: total, by: led.get(k) ?? NONE, sharp: corners[k]! });
    total += wide[k]!;
  }
  if (nodes.length === 1) {
    const [{ by, sharp }] = nodes as [(typeof nodes)[0]];
    if (!sharp) return () => by;
  }
  const node = (i: number) => {
    const turns = Math.floor(i / nodes.length);
    const own = nodes[i - turns * nodes.length]!;
    return { ...own, at: own.at + turns * total };
  };
  const secant = (i: number, k: 0 | 1 | 2) => (node(i + 1).by[k] - node(i).by[k]) / (node(i + 1).at - node(i).at);
  /** Of a node within a smooth stretch; null at a corner, where each side goes as it likes. */
  const slope = (i: number, k: 0 | 1 | 2) => {
    if (node(i).sharp) return null;
    return (node(i + 1).by[k] - node(i - 1).by[k]) / (node(i + 1).at - node(i - 1).at);
  };
  return (piece, share) => {
    const here = starts[piece]! + share * wide[piece]!;
    const i = nodes.findLastIndex((n) => n.at <= here);
    const [a, b] = [node(i), node(i + 1)];
    const h = b.at - a.at;
    const t = (here - a.at) / h;
    const at = (k: 0 | 1 | 2) => {
      const straight = secant(i, k);
      const [m, n] = [slope(i, k), slope(i + 1, k)];
      // Without a slope of its own an end bends as little as it can.
      const from = m ?? (n === null ? straight : (3 * straight - n) / 2);
      const to = n ?? (m === null ? straight : (3 * straight - m) / 2);
      return (1 + 2 * t) * (1 - t) ** 2 * a.by[k] + t * t * (3 - 2 * t) * b.by[k] + h * (t * (1 - t) ** 2 * from + t * t * (t - 1) * to); // prettier-ignore
    };
    return [at(0), at(1), at(2)];
  };
}
