/** How a size is drawn, after ISO 129-1: extension lines with a gap, filled arrows, words above their line. */
import type { Vec2 } from '../sketch/curves/spline.ts';
import type { Measured } from './measured.ts';
import { line, NUMBER_WIDTH, type OnPaper } from './paper.ts';

/** mm on the paper. */
const GAP = 1;
const BEYOND = 2;
const ARROW = 2.6;
const ARROW_HALF = 0.45;
const ABOVE = 0.9;

export interface SizeStyle {
  /** Of capitals, mm. */
  readonly height: number;
  /** A length is told by one line at its far end. */
  readonly ordinate?: boolean;
}

export const widthOfText = (text: string, height: number): number => text.length * NUMBER_WIDTH * height;

const add = ([a, b]: Vec2, [c, d]: Vec2, by = 1): Vec2 => [a + c * by, b + d * by];
const along = ([a, b]: Vec2, [c, d]: Vec2): number => a * c + b * d;

/** @param tip where it points, towards `to` */
function arrow(tip: Vec2, direction: Vec2): OnPaper {
  const back = add(tip, direction, -ARROW);
  const side: Vec2 = [-direction[1], direction[0]];
  return { is: 'filled', points: [tip, add(back, side, ARROW_HALF), add(back, side, -ARROW_HALF)] };
}

/** Read from below or from the right, rad. */
function readable(turn: number): number {
  let t = Math.atan2(Math.sin(turn), Math.cos(turn));
  if (t > Math.PI / 2 + 1e-9) t -= Math.PI;
  if (t <= -Math.PI / 2 + 1e-9) t += Math.PI;
  return t;
}

/**
 * @param measured its places already on the paper
 * @param place of its text, on the paper
 */
export function drawSize(measured: Measured, text: string, place: Vec2, { height, ordinate }: SizeStyle): OnPaper[] {
  if (ordinate && measured.is === 'length')
    return drawOrdinate(leadingOut(measured, place)[1], measured.along, text, place, height);
  switch (measured.is) {
    case 'length': {
      const [from, to] = leadingOut(measured, place);
      return drawLength(from, to, measured.along, text, place, height);
    }
    case 'diameter':
    case 'radius':
      if (measured.ends) return drawLength(...measured.ends, directionBetween(...measured.ends), text, place, height);
      return [
        ...(measured.pitch ? [{ is: 'curve' as const, pen: 'center' as const, piece: { kind: 'circle' as const, points: [measured.center] as const, radius: measured.radius } }] : []), // prettier-ignore
        ...drawLeader(rimTowards(measured, place), text, place, height),
      ];
    case 'angle':
      return drawAngle(measured, text, place, height);
    case 'note':
    case 'chamfer':
      return drawLeader(measured.at, text, place, height);
    case 'surface':
      return drawSurface(measured.at, text, place, height);
  }
}

function directionBetween(a: Vec2, b: Vec2): Vec2 {
  const long = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  return [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
}

/** Where lines that lead out to a length begin: of an edge that runs that way, at its nearer end. */
function leadingOut({ from, to, along: u, edges }: Extract<Measured, { is: 'length' }>, place: Vec2): [Vec2, Vec2] {
  const n: Vec2 = [-u[1], u[0]];
  const nearest = (p: Vec2, ends: readonly [Vec2, Vec2] | null | undefined): Vec2 => {
    if (!ends || ends.some((e) => Math.abs(along(e, u) - along(p, u)) > 1e-6)) return p;
    const away = (e: Vec2) => Math.abs(along(place, n) - along(e, n));
    return away(ends[0]) < away(ends[1]) ? ends[0] : ends[1];
  };
  return [nearest(from, edges?.[0]), nearest(to, edges?.[1])];
}

function drawLength(from: Vec2, to: Vec2, u: Vec2, text: string, place: Vec2, height: number): OnPaper[] {
  const n: Vec2 = [-u[1], u[0]];
  const level = along(place, n);
  const foot = (p: Vec2): Vec2 => add(p, n, level - along(p, n));
  const [a, b] = along(from, u) <= along(to, u) ? [from, to] : [to, from];
  const [fa, fb] = [foot(a), foot(b)];
  const long = along(fb, u) - along(fa, u);
  const inside = long >= 2 * ARROW + 1.5;
  const at = along(place, u);
  const width = widthOfText(text, height);
  // The line goes on to its words where those stand beside it.
  const low = Math.min(along(fa, u) - (inside ? 0 : 2 * ARROW), at - width / 2);
  const high = Math.max(along(fb, u) + (inside ? 0 : 2 * ARROW), at + width / 2);
  const between = at - width / 2 >= along(fa, u) - 1e-9 && at + width / 2 <= along(fb, u) + 1e-9;
  const on = (s: number): Vec2 => add(fa, u, s - along(fa, u));
  const back: Vec2 = [-u[0], -u[1]];
  const turn = readable(Math.atan2(u[1], u[0]));
  const up: Vec2 = [-Math.sin(turn), Math.cos(turn)];
  const extension = (p: Vec2, f: Vec2): OnPaper[] => {
    const by = along(f, n) - along(p, n);
    if (Math.abs(by) < GAP) return [];
    const way: Vec2 = by > 0 ? n : [-n[0], -n[1]];
    return [line('size', add(p, way, GAP), add(f, way, BEYOND))];
  };
  return [
    ...extension(a, fa),
    ...extension(b, fb),
    line('size', inside && between ? fa : on(low), inside && between ? fb : on(high)),
    arrow(fa, inside ? back : u),
    arrow(fb, inside ? u : back),
    { is: 'text', at: add(on(at), up, ABOVE), text, height, anchor: 'middle', turn, face: 'numbers' },
  ];
}

/** One line from a place straight out, to words that run along it; aside where those had to give way. */
function drawOrdinate(p: Vec2, u: Vec2, text: string, place: Vec2, height: number): OnPaper[] {
  const n: Vec2 = [-u[1], u[0]];
  const way: Vec2 = along(place, n) >= along(p, n) ? n : [-n[0], -n[1]];
  const end = add(place, way, -widthOfText(text, height) / 2 - ABOVE);
  const kink = add(p, way, Math.max(GAP, along(end, way) - along(p, way) - KINK));
  const turn = readable(Math.atan2(way[1], way[0]));
  const up: Vec2 = [-Math.sin(turn), Math.cos(turn)];
  return [
    line('size', add(p, way, GAP), kink),
    line('size', kink, end),
    { is: 'text', at: add(place, up, -height / 2), text, height, anchor: 'middle', turn, face: 'numbers' },
  ];
}
/** mm before its words, in which an ordinate’s line goes aside. */
const KINK = 4;

function rimTowards(
  { center, radius, run, whole }: Extract<Measured, { is: 'diameter' | 'radius' }>,
  place: Vec2,
): Vec2 {
  let t = Math.atan2(place[1] - center[1], place[0] - center[0]);
  if (!whole) {
    // Of an arc the nearest place on it.
    const turn = 2 * Math.PI;
    const off = (((t - run[0]) % turn) + turn) % turn;
    const span = run[1] - run[0];
    if (off > span) t = off - span < turn - off ? run[1] : run[0];
  }
  return [center[0] + radius * Math.cos(t), center[1] + radius * Math.sin(t)];
}

/** From a place to words on a shelf. */
function drawLeader(to: Vec2, text: string, place: Vec2, height: number): OnPaper[] {
  const width = widthOfText(text, height);
  const right = place[0] >= to[0];
  const shelf: Vec2 = [place[0] - (right ? 1 : -1) * (width / 2 + 1), place[1]];
  const end: Vec2 = [place[0] + (right ? 1 : -1) * (width / 2), place[1]];
  const away = directionBetween(shelf, to);
  return [
    line('size', shelf, to),
    line('size', shelf, end),
    arrow(to, away),
    { is: 'text', at: [place[0], place[1] + ABOVE], text, height, anchor: 'middle', turn: 0, face: 'numbers' },
  ];
}

/** The mark of a surface (ISO 21920-1): a short and a long leg, a bar over what is asked, on a leader’s shelf. */
function drawSurface(to: Vec2, text: string, place: Vec2, height: number): OnPaper[] {
  const mark = 2 * height;
  const wide = widthOfText(text, height) + mark;
  const [x, y] = [place[0] - wide / 2, place[1]];
  const foot: Vec2 = [x + mark / 2, y];
  const [short, long]: [Vec2, Vec2] = [
    [foot[0] - height * TAN30, y + height],
    [foot[0] + mark * TAN30, y + mark],
  ];
  const shelf: Vec2 = [place[0] >= to[0] ? x : x + wide, y];
  return [
    line('size', shelf, to),
    line('size', [x, y], [x + wide, y]),
    arrow(to, directionBetween(shelf, to)),
    line('size', short, foot),
    line('size', foot, long),
    line('size', long, [x + wide, y + mark]),
    { is: 'text', at: [long[0] + 1, y + mark - height - 1], text, height, anchor: 'start', turn: 0, face: 'numbers' },
  ];
}
const TAN30 = Math.tan(Math.PI / 6);

function drawAngle(
  { apex, from, value, edges }: Extract<Measured, { is: 'angle' }>,
  text: string,
  place: Vec2,
  height: number,
): OnPaper[] {
  const radius = Math.max(4, Math.hypot(place[0] - apex[0], place[1] - apex[1]));
  const at = (t: number, r = radius): Vec2 => [apex[0] + r * Math.cos(t), apex[1] + r * Math.sin(t)];
  const tangent = (t: number, by: number): Vec2 => [-Math.sin(t) * by, Math.cos(t) * by];
  const turn = readable(Math.atan2(place[1] - apex[1], place[0] - apex[0]) + Math.PI / 2);
  const up: Vec2 = [-Math.sin(turn), Math.cos(turn)];
  // Only where the edges do not reach the arc themselves.
  const led = (t: number, [near, far]: readonly [number, number]): OnPaper[] => {
    if (radius > far) return [line('size', at(t, far > 0 ? far + GAP : 0), at(t, radius + BEYOND))];
    return radius < near ? [line('size', at(t, near - GAP), at(t, radius - BEYOND))] : [];
  };
  return [
    ...led(from, edges?.[0] ?? [0, 0]),
    ...led(from + value, edges?.[1] ?? [0, 0]),
    { is: 'curve', pen: 'size', piece: { kind: 'arc', points: [apex, at(from), at(from + value)] } },
    arrow(at(from), tangent(from, -1)),
    arrow(at(from + value), tangent(from + value, 1)),
    { is: 'text', at: add(place, up, ABOVE), text, height, anchor: 'middle', turn, face: 'numbers' },
  ];
}
