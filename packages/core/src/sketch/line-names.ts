/** What a designer would call a line of a drawing: “the left side”, “the right flank”. */
import { placeIn } from './edit/measure.ts';
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

/** Null for what is no line. Two lines never bear one name: further ones of a name are told apart by a number. */
export function lineName(sketch: SketchGeometry, id: string): string | null {
  const own = plainName(sketch, id);
  if (!own) return null;
  const same = Object.keys(sketch.curves).filter((e) => plainName(sketch, e) === own);
  return same.length > 1 ? `${own} ${same.indexOf(id) + 1}` : own;
}

function plainName(sketch: SketchGeometry, id: string): string | null {
  const own = extentOf(sketch, id);
  if (!own) return null;
  if (sketch.curves[id]!.construction) return 'the construction line';
  const all = Object.entries(sketch.curves).flatMap(([e, c]) => {
    const extent = c.construction ? null : extentOf(sketch, e);
    return extent ? [extent.middle] : [];
  });
  const where = (k: 0 | 1, low: string, high: string): string => {
    const places = all.map((m) => m[k]);
    const [least, most] = [Math.min(...places), Math.max(...places)];
    const slack = 0.05 * (most - least);
    if (most - least < 1e-9) return '';
    if (own.middle[k] >= most - slack) return `${high} `;
    if (own.middle[k] <= least + slack) return `${low} `;
    return own.middle[k] > (least + most) / 2 ? `inner ${high} ` : `inner ${low} `;
  };
  if (own.slope === 'level') return `the ${where(1, 'bottom', 'top')}edge`;
  if (own.slope === 'upright') return `the ${where(0, 'left', 'right')}side`;
  return `the ${where(0, 'left', 'right')}flank`;
}
