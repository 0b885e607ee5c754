/** What a designer would call a line of a drawing: “the left side”, “the right flank”. */
import { placeIn } from './drawn.ts';
import type { SketchGeometry } from './schema.ts';

/** Within so much of level or upright, rad, a line counts as that. */
const ABOUT = (12 * Math.PI) / 180;

interface Extent {
  readonly middle: readonly [number, number];
  readonly slope: 'level' | 'upright' | 'slanting';
}

function extentOf(sketch: SketchGeometry, id: string): Extent | null {
  const c = sketch.curves[id];
  if (c?.kind !== 'line') return null;
  const [a, b] = [placeIn(sketch, c.from) ?? [0, 0], placeIn(sketch, c.to) ?? [0, 0]];
  const angle = Math.atan2(Math.abs(b[1]! - a[1]!), Math.abs(b[0]! - a[0]!));
  const slope = angle < ABOUT ? 'level' : angle > Math.PI / 2 - ABOUT ? 'upright' : 'slanting';
  return { middle: [(a[0]! + b[0]!) / 2, (a[1]! + b[1]!) / 2], slope };
}

/** A solved sketch is not altered in place any more, so its names are worked out once. */
const named = new WeakMap<SketchGeometry, ReadonlyMap<string, string>>();

/** Null for what is no line. Two lines never bear one name: those of one name are told apart by a number. */
export function lineName(sketch: SketchGeometry, id: string): string | null {
  let names = named.get(sketch);
  if (!names) named.set(sketch, (names = lineNames(sketch)));
  return names.get(id) ?? null;
}

function lineNames(sketch: SketchGeometry): Map<string, string> {
  const lines = Object.keys(sketch.curves).flatMap((id) => {
    const extent = extentOf(sketch, id);
    return extent ? [{ id, extent, construction: sketch.curves[id]!.construction }] : [];
  });
  const drawn = lines.filter((l) => !l.construction);
  const range = [0, 1].map((k) => {
    const places = drawn.map((l) => l.extent.middle[k]!);
    return [places.reduce((a, b) => Math.min(a, b), Infinity), places.reduce((a, b) => Math.max(a, b), -Infinity)];
  });
  const same = new Map<string, string[]>();
  for (const { id, extent, construction } of lines) {
    const name = construction ? 'the construction line' : drawn.length === 1 ? 'the line' : plainName(extent, range);
    const ids = same.get(name);
    if (ids) ids.push(id);
    else same.set(name, [id]);
  }
  const names = new Map<string, string>();
  for (const [name, ids] of same) ids.forEach((id, i) => names.set(id, ids.length > 1 ? `${name} ${i + 1}` : name));
  return names;
}

/** @param range least and most of the lines' middles, along and across */
function plainName({ middle, slope }: Extent, range: readonly (readonly number[])[]): string {
  const where = (k: 0 | 1, low: string, high: string): string => {
    const [least, most] = [range[k]![0]!, range[k]![1]!];
    const slack = 0.05 * (most - least);
    if (most - least < 1e-9) return '';
    if (middle[k] >= most - slack) return `${high} `;
    if (middle[k] <= least + slack) return `${low} `;
    return middle[k] > (least + most) / 2 ? `inner ${high} ` : `inner ${low} `;
  };
  if (slope === 'level') return `the ${where(1, 'bottom', 'top')}edge`;
  if (slope === 'upright') return `the ${where(0, 'left', 'right')}side`;
  return `the ${where(0, 'left', 'right')}flank`;
}
