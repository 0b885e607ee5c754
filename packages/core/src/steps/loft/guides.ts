/** Guides of a loft: curves that run from outline to outline, which its sides keep to. */
import { StepFailure } from '../../names/body.ts';
import { goneBack, type Walk } from '../../slots/path/walk.ts';
import { distanceToPiece, pieceSplit, placeOnPiece } from '../../sketch/regions/piece-parts.ts';
import type { LoopPiece } from '../../sketch/regions/piece.ts';
import type { Vec2 } from '../../sketch/regions/primitives.ts';
import { dot, minus, type Frame } from '../../space/vector.ts';
import { inMm } from '../rework/rework.ts';
import { centreOf, dividedAlike, joinedAgain, walkedAlike, type Outline } from './matched.ts';

/** So far, mm, a guide may pass beside an outline and still be meant to run through it; beyond the second it is said. */
const [NEAR, TOLD] = [0.1, 1e-3];
/** Places at which it is looked at on its way. */
const LOOKED_AT = 512;
/** Nearer to an end of a piece than this share, a place is that end. */
const AT_END = 1e-7;

export interface Guide {
  readonly walk: Walk;
  /** mm along it at which it passes through each section. */
  readonly through: readonly number[];
}

export interface Guided<O extends Outline> {
  /** With equally many pieces, which go together one by one. */
  readonly outlines: readonly O[];
  /** Which guide begins a piece, by the piece's place. */
  readonly at: ReadonlyMap<number, Guide>;
  /** That guides do not quite run through the outlines, as a sentence. */
  readonly note: string | null;
}

interface Mark {
  readonly guide: Guide;
  /** mm by which it passes beside an outline. */
  readonly off: number;
  /** On each outline: a piece, and the share of it. */
  readonly on: readonly (readonly [piece: number, share: number])[];
}

/** Outlines matched so that guides run from corner to corner. @throws StepFailure */
export function guided<O extends Outline>(outlines: readonly O[], walks: readonly Walk[]): Guided<O> {
  const alike = walkedAlike(outlines, outlines.map(centreOf)).map((o) => begunAt(o, walks[0]!));
  const marks = walks.map((walk) => marked(alike, walk));
  const place = (m: Mark, i: number) => m.on[i]![0] + m.on[i]![1];
  const ordered = [...marks].sort((a, b) => place(a, 0) - place(b, 0));
  alike.forEach((_, i) => {
    const turns = ordered.filter((m, k) => place(ordered[(k + 1) % ordered.length]!, i) <= place(m, i)).length;
    if (ordered.length > 1 && turns !== 1)
      throw new StepFailure('The guides of this loft meet, or touch its sections in different orders; let them run side by side.'); // prettier-ignore
  });
  const stretches = ordered.map((m, k) => {
    const next = ordered[(k + 1) % ordered.length]!;
    return dividedAlike(alike.map((o, i) => stretchOf(o.pieces, m.on[i]!, next.on[i]!)));
  });
  const starts = stretches.reduce<number[]>((all, own) => [...all, all.at(-1)! + own[0]!.length], [0]);
  const off = Math.max(...marks.map((m) => m.off));
  return {
    outlines: alike.map((o, i) => ({ ...o, pieces: stretches.flatMap((own) => own[i]!) })),
    at: new Map(ordered.map((m, k) => [starts[k]!, m.guide])),
    note: off > TOLD ? `A guide passes ${inMm(off)} beside an outline, and is taken as if it ran through; join them to be sure.` : null, // prettier-ignore
  };
}

/** A whole circle or ellipse begun where a guide passes: else it would be in two pieces there. */
function begunAt<O extends Outline>(o: O, walk: Walk): O {
  const [whole] = o.pieces as [LoopPiece];
  if (o.pieces.length > 1 || whole.kind === 'spline') return o;
  const [, share] = placeIn(o.pieces, nearestPassing(walk, o.frame, o.pieces).place);
  if (share === 0) return o;
  const [before, after] = pieceSplit(whole, share);
  return { ...o, pieces: [joinedAgain(whole, after, before, share)] };
}

/** Where a guide passes through the outlines, gone in their order. @throws StepFailure where it misses one */
function marked(outlines: readonly Outline[], told: Walk): Mark {
  const passed = (walk: Walk) => outlines.map(({ frame, pieces }) => nearestPassing(walk, frame, pieces));
  const first = passed(told);
  const turned = first[0]!.along > first.at(-1)!.along;
  const walk = turned ? goneBack(told) : told;
  const found = turned ? passed(walk) : first;
  found.forEach(({ off }, i) => {
    if (off > NEAR)
      throw new StepFailure(`A guide passes ${inMm(off)} beside the outline of section ${i + 1}; let it run through all outlines.`); // prettier-ignore
    if (i > 0 && found[i]!.along <= found[i - 1]!.along)
      throw new StepFailure('A guide does not pass through the sections in their order; redraw it.');
  });
  const through = found.map((f) => f.along);
  return {
    guide: { walk, through },
    off: Math.max(...found.map((f) => f.off)),
    on: found.map((f, i) => placeIn(outlines[i]!.pieces, f.place)),
  };
}

interface Passing {
  readonly along: number;
  readonly place: Vec2;
  readonly off: number;
}

/** Where it comes nearest to an outline, of the places where it passes through its plane, or ends short of it. */
function nearestPassing(walk: Walk, { origin, x, y, normal }: Frame, pieces: readonly LoopPiece[]): Passing {
  const out = (along: number) => minus(walk.on(along).at, origin);
  const height = (along: number) => dot(out(along), normal);
  const passing = (along: number): Passing => {
    const p = out(along);
    const place: Vec2 = [dot(p, x), dot(p, y)];
    const beside = Math.min(...pieces.map((piece) => distanceToPiece(piece, place)));
    return { along, place, off: Math.hypot(beside, dot(p, normal)) };
  };
  const at = Array.from({ length: LOOKED_AT + 1 }, (_, i) => (i / LOOKED_AT) * walk.length);
  const heights = at.map(height);
  const crossings = at.slice(1).flatMap((to, i) => {
    if (heights[i]! > 0 === heights[i + 1]! > 0) return [];
    let [low, high] = [at[i]!, to];
    for (let k = 0; k < 60; k++) {
      const middle = (low + high) / 2;
      if (height(middle) > 0 === heights[i]! > 0) low = middle;
      else high = middle;
    }
    return [(low + high) / 2];
  });
  return [0, walk.length, ...crossings].map(passing).reduce((a, b) => (b.off < a.off ? b : a));
}

function placeIn(pieces: readonly LoopPiece[], place: Vec2): readonly [number, number] {
  const piece = pieces.map((p) => distanceToPiece(p, place)).reduce((best, d, i, all) => (d < all[best]! - AT_END ? i : best), 0); // prettier-ignore
  const own = pieces[piece]!;
  const off = (s: number) => Math.hypot(...placeOnPiece(own, s).map((c, k) => c - place[k]!));
  const steps = 256;
  let at = 0;
  for (let i = 0; i <= steps; i++) if (off(i / steps) < off(at)) at = i / steps;
  let [low, high] = [Math.max(0, at - 1 / steps), Math.min(1, at + 1 / steps)];
  for (let k = 0; k < 80; k++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (off(a) < off(b)) high = b;
    else low = a;
  }
  const share = (low + high) / 2;
  if (share < AT_END) return [piece, 0];
  return share > 1 - AT_END ? [(piece + 1) % pieces.length, 0] : [piece, share];
}

/** The pieces from one place to another, walking on; all round where they are one. */
function stretchOf(
  pieces: readonly LoopPiece[],
  [first, from]: readonly [number, number],
  [last, to]: readonly [number, number],
): LoopPiece[] {
  const isRound = first === last && from === to;
  const count = isRound ? pieces.length : (last - first + pieces.length) % pieces.length;
  if (count === 0 && to > from) {
    const [before] = pieceSplit(pieces[first]!, to);
    return [from > 0 ? pieceSplit(before, from / to)[1] : before];
  }
  const rounds = count === 0 ? pieces.length : count;
  const whole = Array.from({ length: rounds }, (_, i) => pieces[(first + i) % pieces.length]!);
  if (from > 0) whole[0] = pieceSplit(whole[0]!, from)[1];
  if (to > 0) whole.push(pieceSplit(pieces[last]!, to)[0]);
  return whole;
}
