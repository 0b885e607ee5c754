/** Motions that mean something to a designer: what hangs together slides, turns, stretches or grows. */
import type { SketchGeometry } from '../schema.ts';
import type { System } from '../system.ts';
import type { SketchPart } from './parts.ts';

type SlotMotion = ReadonlyMap<number, number>;

/**
 * Motions of all parts, those first that say most: what hangs together, with the width and height of a known
 * shape; then each side of an outline out and in; then all else; and only then how other outlines stretch.
 */
export function* inOrder(
  sketch: SketchGeometry,
  system: System,
  parts: readonly SketchPart[],
): Generator<{ readonly part: SketchPart; readonly motion: SlotMotion }> {
  const all = parts.map((part) => ({ part, ...naturalMotions(sketch, system, part) }));
  const wholes = all.filter(({ part }) => part.curves.length > 1);
  const singles = all.filter(({ part }) => part.curves.length <= 1);
  for (const { part, across, rest, stretching } of wholes) {
    for (const motion of across()) yield { part, motion };
    for (const motion of rest()) yield { part, motion };
    if (part.shape) for (const motion of stretching()) yield { part, motion };
  }
  for (const { part, across } of singles) for (const motion of across()) yield { part, motion };
  for (const { part, rest } of singles) for (const motion of rest()) yield { part, motion };
  for (const { part, stretching } of singles) for (const motion of stretching()) yield { part, motion };
  for (const { part, stretching } of wholes) for (const motion of stretching()) yield { part, motion };
}

/** Slides and turns, and stretches and growth of a part, as changes of slots. Fixed slots must stay. */
function naturalMotions(sketch: SketchGeometry, system: System, part: SketchPart) {
  const v = system.values;
  const points = part.points.map((id) => system.points.get(id)!);
  const places = points.map((p) => [v[p.x]!, v[p.y]!] as const);
  const sizes = part.curves.flatMap((id) => system.rounds.get(id)?.radius ?? system.ellipses.get(id)?.minor ?? []);
  const motion = (move: (x: number, y: number) => readonly [number, number], grow: (size: number) => number) => {
    const result = new Map<number, number>();
    const set = (slot: number, d: number): boolean => {
      if (system.merger.isFixed(slot)) return Math.abs(d) < 1e-9;
      const before = result.get(slot);
      if (before !== undefined && Math.abs(before - d) > 1e-7 * (1 + Math.abs(d))) return false;
      result.set(slot, d);
      return true;
    };
    for (let i = 0; i < points.length; i++) {
      const [dx, dy] = move(...places[i]!);
      if (!set(points[i]!.x, dx) || !set(points[i]!.y, dy)) return null;
    }
    for (const s of sizes) if (!set(s, grow(v[s]!))) return null;
    for (const [s, d] of result) if (Math.abs(d) < 1e-12) result.delete(s);
    return result.size > 0 ? result : null;
  };
  const none = () => 0;
  const slides = slidesOf(sketch, system, part);
  const alongItself = ([dx, dy]: readonly [number, number]) =>
    part.curves.length === 1 &&
    part.along.some((id) => {
      const line = system.lines.get(id);
      if (!line) return false;
      const [ux, uy] = [v[line.to.x]! - v[line.from.x]!, v[line.to.y]! - v[line.from.y]!];
      return Math.abs(ux * dy - uy * dx) < 1e-9 * Math.hypot(ux, uy);
    });
  /** Slides that are seen; and the size, when the part is one circle or ellipse. */
  function* across(): Generator<SlotMotion> {
    if (part.curves.length === 1 && sizes.length === 1) yield* just(motion(() => [0, 0], () => 1)); // prettier-ignore
    for (const slide of slides) if (!alongItself(slide)) yield* just(motion(() => slide, none));
  }
  function* rest(): Generator<SlotMotion> {
    for (const slide of slides) if (alongItself(slide)) yield* just(motion(() => slide, none));
    for (const [px, py] of pivotsOf(system, part, places)) yield* just(motion((x, y) => [py - y, x - px], none));
  }
  function* stretching(): Generator<SlotMotion> {
    for (const [px, py] of pivotsOf(system, part, places)) {
      yield* just(motion((x) => [x - px, 0], none));
      yield* just(motion((_, y) => [0, y - py], none));
      yield* just(motion((x, y) => [x - px, y - py], (r) => r)); // prettier-ignore
    }
  }
  return { across, rest, stretching };
}

function* just<T>(value: T | null): Generator<T> {
  if (value !== null) yield value;
}

/** Sideways, up, and along the lines of a part. */
function slidesOf(sketch: SketchGeometry, system: System, part: SketchPart): [number, number][] {
  const slides: [number, number][] = [[1, 0], [0, 1]]; // prettier-ignore
  const v = system.values;
  for (const id of part.along) {
    const line = system.lines.get(id);
    if (!line || !(id in sketch.curves)) continue;
    const [dx, dy] = [v[line.to.x]! - v[line.from.x]!, v[line.to.y]! - v[line.from.y]!];
    const size = Math.hypot(dx, dy);
    if (size > 1e-9 && !slides.some(([x, y]) => Math.abs(x * dy - y * dx) < 1e-9 * size))
      slides.push([dx / size, dy / size]);
  }
  return slides;
}

/** What a part may turn or grow about: points of it that are held, centres, its middle, its corners. */
function pivotsOf(
  system: System,
  part: SketchPart,
  places: readonly (readonly [number, number])[],
): [number, number][] {
  const pivots: [number, number][] = [];
  const add = ([x, y]: readonly [number, number]) => {
    if (!pivots.some(([a, b]) => Math.hypot(a - x, b - y) < 1e-9)) pivots.push([x, y]);
  };
  part.points.forEach((id, i) => {
    const p = system.points.get(id)!;
    if (system.merger.isFixed(p.x) && system.merger.isFixed(p.y)) add(places[i]!);
  });
  add([0, 0]);
  if (places.length > 0) {
    const mid = (k: 0 | 1) => (Math.min(...places.map((p) => p[k])) + Math.max(...places.map((p) => p[k]))) / 2;
    add([mid(0), mid(1)]);
  }
  for (const place of places.slice(0, 8)) add(place);
  return pivots;
}
