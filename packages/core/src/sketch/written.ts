/** Sketches written in short form, for tables of cases. */
import type { Constraint, Curve, SketchGeometry } from './schema.ts';

/** Two points make a line, a point and a number a circle, three points an arc; others say what they are at the end. */
function curveOf(on: readonly string[]): Curve {
  const [a, b, c] = on as [string, string, string];
  const kind = on.at(-1);
  if (kind === 'ellipse') return { kind, center: a, major: b, minor: Number(c) };
  if (kind === 'spline') return { kind, fit: 'control', points: on.slice(0, -1) };
  if (c) return { kind: 'arc', center: a, from: b, to: c };
  return Number.isNaN(Number(b)) ? { kind: 'line', from: a, to: b } : { kind: 'circle', center: a, radius: Number(b) };
}

/**
 * @param points `a 0 0, b 9 1`
 * @param curves `l a b; k c 4; e c m 3 ellipse`
 * @param constraints `kind:entity,entity=value`, each called k0, k1, … in order; a dimension's edges or turned lines after a space
 */
export function written(points: string, curves: string, constraints: string): SketchGeometry {
  const sketch: SketchGeometry = { points: {}, curves: {}, constraints: {} };
  const split = (text: string, by: string) => text.split(by).map((t) => t.trim()).filter(Boolean); // prettier-ignore
  for (const p of split(points, ',')) {
    const [id, x, y] = p.split(' ');
    sketch.points[id!] = [Number(x), Number(y)];
  }
  for (const c of split(curves, ';')) {
    const [id, ...on] = c.split(' ') as [string, ...string[]];
    sketch.curves[id] = curveOf(on);
  }
  split(constraints, ';').forEach((text, i) => {
    const [kind, rest] = text.split(':') as [Constraint['kind'], string];
    const [of, number] = rest.split('=');
    const [value, more] = (number ?? '').split(' ');
    const also = !more ? {} : kind === 'angle' ? { reversed: more } : { rims: more.split(',') };
    sketch.constraints[`k${i}`] = { kind, of: of!.split(','), ...(value ? { value } : {}), ...also } as Constraint;
  });
  return sketch;
}
