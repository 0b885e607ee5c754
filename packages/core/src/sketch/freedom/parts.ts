/** What hangs together in a sketch, and so may move as one. */
import { BUILT_IN, pointsOf, type SketchGeometry } from '../schema.ts';
import type { System } from '../system.ts';
import { ThingNames } from './thing-names.ts';

/** Curves and points that may move as one. */
export interface SketchPart {
  readonly curves: readonly string[];
  readonly points: readonly string[];
  /** Lines that give directions it may slide along. */
  readonly along: readonly string[];
  readonly name: string;
  /** A shape whose width, height and size a designer speaks of, before those of its sides. */
  readonly shape: boolean;
}

export interface SketchParts {
  /** What hangs together, largest first, then single curves, then single points. */
  readonly parts: readonly SketchPart[];
  readonly names: ThingNames;
}

export function partsOf(sketch: SketchGeometry, system: System): SketchParts {
  // A corner is shared when both its coordinates are.
  const jointAt = (point: string) => {
    const { x, y } = system.points.get(point)!;
    return x * system.values.length + y;
  };
  const groups = joined(sketch, jointAt);
  const names = new ThingNames(sketch, groups, jointAt);
  const all = Object.keys(sketch.curves);
  const withPoints = (curves: readonly string[]) => [
    ...new Set(curves.flatMap((id) => pointsOf(sketch.curves[id]!)).filter((p) => p in sketch.points)),
  ];
  const parts: SketchPart[] = groups.map((curves) => ({
    curves,
    points: withPoints(curves),
    along: curves,
    name: names.group(curves),
    shape: names.isShape(curves),
  }));
  for (const id of all)
    parts.push({ curves: [id], points: withPoints([id]), along: [id], name: names.curve(id), shape: false });
  if (groups.length > 1)
    parts.push({ curves: all, points: Object.keys(sketch.points), along: [], name: 'everything', shape: false });
  for (const id of Object.keys(sketch.points)) {
    const on = all.filter((c) => pointsOf(sketch.curves[c]!).includes(id));
    const held = Object.values(sketch.constraints).flatMap((k) =>
      k.kind === 'coincident' && k.of.includes(id) ? k.of.filter((e) => e in sketch.curves) : [],
    );
    parts.push({ curves: [], points: [id], along: [...on, ...held], name: names.point(id), shape: false });
  }
  return { parts, names };
}

/** Curves that share points, directly or through coincidence. */
function joined(sketch: SketchGeometry, jointAt: (point: string) => number): string[][] {
  const bySlot = new Map<number, string[]>();
  for (const [id, c] of Object.entries(sketch.curves)) {
    for (const p of pointsOf(c)) {
      if (p === BUILT_IN.origin) continue;
      const key = jointAt(p);
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
