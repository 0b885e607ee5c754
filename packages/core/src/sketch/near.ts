/** Parts of a large sketch: what lies round the constraint that is farthest from being met. */
import { pointsOf, type SketchGeometry } from './schema.ts';
import { buildSystem } from './system.ts';

/** Points a constraint speaks of. */
const pointsUnder = (sketch: SketchGeometry, id: string): string[] =>
  sketch.constraints[id]!.of.flatMap((one) => (sketch.curves[one] ? pointsOf(sketch.curves[one]) : [one]));

/** The constraint that is farthest from being met as drawn with those round it, each time at least twice as many, up to half of all. */
export function neighbourhoods(sketch: SketchGeometry, dimension: (id: string) => number): Set<string>[] {
  const { equations, values } = buildSystem(sketch, dimension);
  const gradient = new Float64Array(equations.reduce((most, e) => Math.max(most, e.slots.length), 1));
  let [seed, most] = ['', 0];
  for (const e of equations) {
    const left = Math.abs(e.evaluate(values, gradient));
    if (left > most && e.owner in sketch.constraints) [seed, most] = [e.owner, left];
  }
  if (seed === '') return [];
  const all = Object.keys(sketch.constraints);
  const at = new Map<string, string[]>();
  for (const id of all)
    for (const point of pointsUnder(sketch, id)) {
      const known = at.get(point);
      if (known) known.push(id);
      else at.set(point, [id]);
    }
  const grown: Set<string>[] = [];
  const near = new Set([seed]);
  let edge = [seed];
  for (let told = 1; edge.length > 0 && near.size * 2 <= all.length;) {
    edge = edge.flatMap((id) => pointsUnder(sketch, id).flatMap((p) => at.get(p)!)).filter((id) => !near.has(id) && near.add(id)); // prettier-ignore
    if (near.size < 2 * told || near.size * 2 > all.length) continue;
    told = near.size;
    grown.push(new Set(near));
  }
  return grown;
}

/** The part of a sketch that these constraints speak of, with all curves that have a shape to keep: soon solved. */
export function only(sketch: SketchGeometry, constraints: ReadonlySet<string>): SketchGeometry {
  if (Object.keys(sketch.patterns ?? {}).length > 0) return sketch;
  const named = new Set([...constraints].flatMap((id) => sketch.constraints[id]!.of));
  const curves = Object.entries(sketch.curves).filter(([id, c]) => c.kind !== 'line' || named.has(id));
  const points = new Set([...named, ...curves.flatMap(([, c]) => pointsOf(c))]);
  return {
    ...sketch,
    points: Object.fromEntries(Object.entries(sketch.points).filter(([id]) => points.has(id))),
    curves: Object.fromEntries(curves),
    constraints: Object.fromEntries(Object.entries(sketch.constraints).filter(([id]) => constraints.has(id))),
  };
}
