/** How a motion of a sketch reads. */
import { pointsOf, type SketchGeometry } from '../schema.ts';
import type { SketchPart } from './parts.ts';
import { listed, type ThingNames } from './thing-names.ts';

export type MotionKind = 'slide' | 'turn' | 'stretch' | 'grow' | 'size' | 'move';

interface Motion {
  readonly points: ReadonlyMap<string, readonly [number, number]>;
  readonly sizes: ReadonlyMap<string, number>;
  readonly entities: readonly string[];
}

/** The kind of a motion and the sentence it reads as. @param part what was moved as one, where it was so found */
export function describeMotion(
  sketch: SketchGeometry,
  names: ThingNames,
  motion: Motion,
  part?: SketchPart,
): { kind: MotionKind; sentence: string } {
  const curves = motion.entities.filter((e) => e in sketch.curves);
  const centered = curves.length === 1 && 'center' in sketch.curves[curves[0]!]!;
  const onlyPoint =
    motion.points.size === 1 && motion.sizes.size === 0 && !centered && !part?.curves.length
      ? [...motion.points.keys()][0]!
      : null;
  if (motion.points.size === 0) return sizeMotion(sketch, names, motion);
  const moved = movesOf(
    sketch,
    motion,
    onlyPoint ? [] : (part?.points ?? curves.flatMap((id) => pointsOf(sketch.curves[id]!))),
  );
  const name = onlyPoint ? names.point(onlyPoint) : (part?.name ?? names.moving(motion));
  const say = (kind: MotionKind, rest: string) => ({ kind, sentence: `${capital(name)} can still ${rest}.` });
  const slide = asSlide(moved, motion.sizes.size > 0);
  if (slide) return say('slide', slideWords(sketch, slide, onlyPoint ? (part?.along ?? []) : (part?.along ?? curves)));
  const pivot = asTurn(moved, motion.sizes.size > 0);
  if (pivot) return say('turn', `turn about ${pivotWords(sketch, names, pivot)}`);
  const stretch = part ? asStretch(moved, motion.sizes.size > 0) : null;
  if (stretch === 'grow') return { kind: 'grow', sentence: `The size of ${name} can still change.` };
  if (stretch)
    return { kind: 'stretch', sentence: `The ${stretch === 'x' ? 'width' : 'height'} of ${name} can still change.` };
  return say('move', curves.length > 1 ? 'change shape' : 'move');
}

/** Nothing goes elsewhere: sizes of rounds, or the spacing of a pattern. */
function sizeMotion(
  sketch: SketchGeometry,
  names: ThingNames,
  { sizes }: Motion,
): { kind: MotionKind; sentence: string } {
  const ids = [...sizes.keys()];
  const pattern = ids.find((id) => !(id in sketch.curves));
  if (pattern !== undefined)
    return { kind: 'size', sentence: `The spacing of ${names.pattern(pattern)} can still change.` };
  const round = ids.every((id) => sketch.curves[id]!.kind === 'circle' || sketch.curves[id]!.kind === 'arc');
  const what = round ? 'diameter' : 'second half axis';
  return {
    kind: 'size',
    sentence: `The ${what} of ${listed(ids.map((id) => names.curve(id)))} can still change${ids.length > 1 ? ' together' : ''}.`,
  };
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Where a point stands, and where it goes. */
interface Move {
  readonly p: readonly [number, number];
  readonly d: readonly [number, number];
}

/** The moving points, and those of what moves that stay. */
function movesOf(sketch: SketchGeometry, { points }: Motion, also: readonly string[]): Move[] {
  const ids = new Set([...points.keys(), ...also.filter((p) => p in sketch.points)]);
  return [...ids].map((id) => ({ p: sketch.points[id]!, d: points.get(id) ?? [0, 0] }));
}

function asSlide(moves: readonly Move[], sizesChange: boolean): readonly [number, number] | null {
  if (sizesChange || moves.length === 0) return null;
  const first = moves[0]!.d;
  return moves.every(({ d }) => Math.hypot(d[0] - first[0], d[1] - first[1]) < 1e-6) ? first : null;
}

function slideWords(sketch: SketchGeometry, [dx, dy]: readonly [number, number], curves: readonly string[]): string {
  const along = curves.some((id) => {
    const c = sketch.curves[id];
    if (c?.kind !== 'line') return false;
    const [a, b] = [sketch.points[c.from] ?? [0, 0], sketch.points[c.to] ?? [0, 0]];
    const [ux, uy] = [b[0]! - a[0]!, b[1]! - a[1]!];
    return Math.abs(ux * dy - uy * dx) < 1e-6 * Math.hypot(ux, uy);
  });
  const upright = Math.abs(dx) < 1e-9;
  const level = Math.abs(dy) < 1e-9;
  if (along && curves.length === 1) return 'slide along itself';
  if (level) return 'slide sideways';
  if (upright) return 'slide up and down';
  return along ? 'slide along its axis' : 'slide at a slant';
}

/** The point a motion turns about; null when it is no turn. */
function asTurn(list: readonly Move[], sizesChange: boolean): readonly [number, number] | null {
  if (sizesChange || list.length < 2) return null;
  // For a turn by w: dx = −w (y − py), dy = w (x − px).
  const far = list.reduce<[number, number]>(
    (best, _, i) => {
      const reach = (k: number) => Math.hypot(list[0]!.p[0] - list[k]!.p[0], list[0]!.p[1] - list[k]!.p[1]);
      return reach(i) > reach(best[1]) ? [0, i] : best;
    },
    [0, 1],
  );
  const [a, b] = [list[far[0]]!, list[far[1]]!];
  const [ux, uy] = [b.p[0] - a.p[0], b.p[1] - a.p[1]];
  const w = (ux * (b.d[1] - a.d[1]) - uy * (b.d[0] - a.d[0])) / (ux * ux + uy * uy);
  if (!(Math.abs(w) > 1e-9)) return null;
  const pivot = [a.p[0] - a.d[1] / w, a.p[1] + a.d[0] / w] as const;
  const fits = list.every(({ p, d }) => Math.hypot(d[0] + w * (p[1] - pivot[1]), d[1] - w * (p[0] - pivot[0])) < 1e-5);
  return fits ? pivot : null;
}

function pivotWords(sketch: SketchGeometry, names: ThingNames, [x, y]: readonly [number, number]): string {
  if (Math.hypot(x, y) < 1e-6) return 'the origin';
  const at = Object.entries(sketch.points).find(([, p]) => Math.hypot(p[0] - x, p[1] - y) < 1e-6)?.[0];
  return at === undefined ? 'its middle' : names.point(at);
}

/** Away from a line or a point, in proportion. */
function asStretch(moves: readonly Move[], sizesChange: boolean): 'x' | 'y' | 'grow' | null {
  const still = (k: 0 | 1) => moves.every(({ d }) => Math.abs(d[k]) < 1e-7);
  if (!sizesChange && still(1) && !still(0)) return 'x';
  if (!sizesChange && still(0) && !still(1)) return 'y';
  return sizesChange && moves.length > 1 ? 'grow' : null;
}
