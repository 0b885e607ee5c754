/** What hangs together in a sketch, what a designer would call it, and how a motion of it reads. */
import { BUILT_IN, pointsOf, type SketchGeometry } from '../schema.ts';
import type { System } from '../system.ts';

export type MotionKind = 'slide' | 'turn' | 'stretch' | 'grow' | 'size' | 'move';

/** Curves and points that may move as one. */
export interface SketchPart {
  readonly curves: readonly string[];
  readonly points: readonly string[];
  /** Lines that give directions it may slide along. */
  readonly along: readonly string[];
  readonly name: string;
}

/** What hangs together, largest first, then single curves, then single points. */
export function partsOf(sketch: SketchGeometry, system: System): SketchPart[] {
  const groups = joined(sketch, system);
  const all = Object.keys(sketch.curves);
  const parts: SketchPart[] = [];
  const add = (curves: readonly string[], points: readonly string[], along: readonly string[], name: string) =>
    parts.push({ curves, points, along, name });
  const withPoints = (curves: readonly string[]) => [
    ...new Set(curves.flatMap((id) => pointsOf(sketch.curves[id]!)).filter((p) => p in sketch.points)),
  ];
  for (const curves of groups) add(curves, withPoints(curves), curves, nameOf(sketch, curves));
  for (const id of all) add([id], withPoints([id]), [id], nameOf(sketch, [id]));
  if (groups.length > 1) add(all, Object.keys(sketch.points), [], 'everything');
  for (const id of Object.keys(sketch.points)) {
    const on = all.filter((c) => pointsOf(sketch.curves[c]!).includes(id));
    const held = Object.values(sketch.constraints).flatMap((k) =>
      k.kind === 'coincident' && k.of.includes(id) ? k.of.filter((e) => e in sketch.curves) : [],
    );
    add([], [id], [...on, ...held], pointName(sketch, id, on));
  }
  return parts;
}

/** Curves that share points, directly or through coincidence. */
function joined(sketch: SketchGeometry, system: System): string[][] {
  const bySlot = new Map<number, string[]>();
  for (const [id, c] of Object.entries(sketch.curves)) {
    for (const p of pointsOf(c)) {
      if (p === BUILT_IN.origin) continue;
      const slots = system.points.get(p)!;
      // A corner is shared when both its coordinates are.
      const key = slots.x * 1e6 + slots.y;
      bySlot.set(key, [...(bySlot.get(key) ?? []), id]);
    }
  }
  const parent = new Map<string, string>();
  const find = (id: string): string => {
    let root = id;
    while (parent.has(root)) root = parent.get(root)!;
    return root;
  };
  for (const ids of bySlot.values()) {
    for (const id of ids.slice(1)) if (find(id) !== find(ids[0]!)) parent.set(find(id), find(ids[0]!));
  }
  const groups = new Map<string, string[]>();
  for (const id of Object.keys(sketch.curves)) groups.set(find(id), [...(groups.get(find(id)) ?? []), id]);
  return [...groups.values()].filter((g) => g.length > 1).sort((a, b) => b.length - a.length);
}

const KIND_NAMES = {
  line: 'line',
  circle: 'circle',
  arc: 'arc',
  ellipse: 'ellipse',
  elliptical_arc: 'elliptical arc',
  spline: 'spline',
  text: 'lettering',
} as const;
const POLYGONS: Readonly<Record<number, string>> = { 3: 'triangle', 5: 'pentagon', 6: 'hexagon', 8: 'octagon' };

/** “the slot”, “the circle”, “these 7 curves”. */
export function nameOf(sketch: SketchGeometry, curves: readonly string[]): string {
  const drawn = curves.filter((id) => !sketch.curves[id]!.construction);
  const own = drawn.length > 0 ? drawn : curves;
  if (own.length === 1) {
    const curve = sketch.curves[own[0]!]!;
    return curve.construction ? `the construction ${KIND_NAMES[curve.kind]}` : `the ${KIND_NAMES[curve.kind]}`;
  }
  const lines = own.filter((id) => sketch.curves[id]!.kind === 'line').length;
  const arcs = own.filter((id) => sketch.curves[id]!.kind === 'arc').length;
  if (lines === own.length) {
    if (lines === 4) return isLevel(sketch, own) ? 'the rectangle' : 'the quadrilateral';
    if (POLYGONS[lines]) return `the ${POLYGONS[lines]}`;
  }
  if (lines === 2 && arcs === 2 && own.length === 4) return 'the slot';
  if (lines === 4 && arcs === 4 && own.length === 8) return 'the rounded rectangle';
  return `these ${own.length} curves`;
}

function isLevel(sketch: SketchGeometry, lines: readonly string[]): boolean {
  const held = Object.values(sketch.constraints).filter(
    (c) =>
      (c.kind === 'horizontal' || c.kind === 'vertical' || c.kind === 'perpendicular') &&
      c.of.some((e) => lines.includes(e)),
  );
  return held.length > 0;
}

function pointName(sketch: SketchGeometry, id: string, on: readonly string[]): string {
  const curve = on.length > 0 ? sketch.curves[on[0]!]! : null;
  if (!curve) return 'the point';
  if ('center' in curve && curve.center === id) return `the centre of the ${KIND_NAMES[curve.kind]}`;
  if (on.length > 1) return 'the corner';
  return curve.kind === 'spline' ? 'a point of the spline' : `the end of the ${KIND_NAMES[curve.kind]}`;
}

interface Motion {
  readonly points: ReadonlyMap<string, readonly [number, number]>;
  readonly sizes: ReadonlyMap<string, number>;
  readonly entities: readonly string[];
}

/** The kind of a motion and the sentence it reads as. */
export function describeMotion(
  sketch: SketchGeometry,
  motion: Motion,
  part?: SketchPart,
): { kind: MotionKind; sentence: string } {
  const curves = motion.entities.filter((e) => e in sketch.curves);
  const single = curves.length <= 1 && motion.points.size <= 1;
  const centered = curves.length === 1 && 'center' in sketch.curves[curves[0]!]!;
  const onlyPoint =
    motion.points.size === 1 && motion.sizes.size === 0 && !centered && !part?.curves.length
      ? [...motion.points.keys()][0]!
      : null;
  const moved = movesOf(
    sketch,
    motion,
    onlyPoint ? [] : (part?.points ?? curves.flatMap((id) => pointsOf(sketch.curves[id]!))),
  );
  const name = onlyPoint
    ? pointName(
        sketch,
        onlyPoint,
        Object.keys(sketch.curves).filter((c) => pointsOf(sketch.curves[c]!).includes(onlyPoint)),
      )
    : (part?.name ??
      (curves.length > 0 ? nameOf(sketch, curves) : single ? 'the point' : `these ${motion.points.size} points`));
  const say = (kind: MotionKind, rest: string) => ({ kind, sentence: `${capital(name)} can still ${rest}.` });
  if (motion.points.size === 0) {
    const pattern = [...motion.sizes.keys()].find((id) => !(id in sketch.curves));
    if (pattern) return { kind: 'size', sentence: 'The spacing of the pattern can still change.' };
    const curve = sketch.curves[[...motion.sizes.keys()][0]!]!;
    const what = curve.kind === 'circle' || curve.kind === 'arc' ? 'diameter' : 'second half axis';
    return {
      kind: 'size',
      sentence: `The ${what} of ${motion.sizes.size > 1 ? `${motion.sizes.size} equal curves` : name} can still change.`,
    };
  }
  const slide = asSlide(moved, motion.sizes.size > 0);
  if (slide)
    return say(
      'slide',
      onlyPoint && part?.along.length ? slideWords(sketch, slide, part.along) : slideWords(sketch, slide, curves),
    );
  const pivot = asTurn(moved, motion.sizes.size > 0);
  if (pivot) return say('turn', `turn about ${pivotWords(sketch, pivot, motion)}`);
  const stretch = asStretch(moved, motion.sizes.size > 0);
  if (stretch === 'grow') return { kind: 'grow', sentence: `The size of ${name} can still change.` };
  if (stretch)
    return { kind: 'stretch', sentence: `The ${stretch === 'x' ? 'width' : 'height'} of ${name} can still change.` };
  return say('move', curves.length > 1 ? 'change shape' : 'move');
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

function pivotWords(sketch: SketchGeometry, [x, y]: readonly [number, number], { entities }: Motion): string {
  if (Math.hypot(x, y) < 1e-6) return 'the origin';
  const at = Object.entries(sketch.points).find(([, p]) => Math.hypot(p[0] - x, p[1] - y) < 1e-6)?.[0];
  const own = entities.some((e) => e in sketch.curves && pointsOf(sketch.curves[e]!).includes(at ?? ''));
  if (at) return own ? 'one of its points' : 'a point';
  return 'its middle';
}

/** Away from a line or a point, in proportion. */
function asStretch(moves: readonly Move[], sizesChange: boolean): 'x' | 'y' | 'grow' | null {
  const still = (k: 0 | 1) => moves.every(({ d }) => Math.abs(d[k]) < 1e-7);
  if (!sizesChange && still(1) && !still(0)) return 'x';
  if (!sizesChange && still(0) && !still(1)) return 'y';
  return sizesChange && moves.length > 1 ? 'grow' : null;
}
