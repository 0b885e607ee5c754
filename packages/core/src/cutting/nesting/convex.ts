/** Areas as convex pieces, whose sums are quickly made: an area by triangles, joined as long as they stay convex (Hertel and Mehlhorn 1983). */
import { Clipper, TriangulateResult, type Path64, type Paths64, type Point64 } from 'clipper2-ts';

const cross = (a: Point64, b: Point64, c: Point64) => (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);
const key = (p: Point64) => `${p.x},${p.y}`;

/** Counter-clockwise; null where the area could not be taken apart. */
export function convexParts(area: Paths64): Path64[] | null {
  const { result, solution } = Clipper.triangulate(area);
  if (result !== TriangulateResult.success) return null;
  const triangles = solution.map((t) => (Clipper.isPositive(t) ? t : [...t].reverse()));
  const whole = Clipper.areaPaths(area);
  const sum = triangles.reduce((total, t) => total + Clipper.area(t), 0);
  return Math.abs(sum - whole) > 1e-6 * whole ? null : joined(triangles);
}

function joined(triangles: readonly Path64[]): Path64[] {
  const parts = new Set<Path64>(triangles);
  /** The part that has an edge from one corner to the other. */
  const owner = new Map<string, Path64>();
  const own = (part: Path64) => part.forEach((p, i) => owner.set(`${key(p)} ${key(part[(i + 1) % part.length]!)}`, part)); // prettier-ignore
  for (const part of triangles) own(part);
  for (const triangle of triangles)
    for (const [i, from] of triangle.entries()) {
      const to = triangle[(i + 1) % 3]!;
      const [there, back] = [`${key(from)} ${key(to)}`, `${key(to)} ${key(from)}`];
      const [one, other] = [owner.get(there), owner.get(back)];
      const merged = one && other && one !== other ? mergedAt(one, other, from, to) : null;
      if (!merged) continue;
      owner.delete(there);
      owner.delete(back);
      parts.delete(one!);
      parts.delete(other!);
      parts.add(merged);
      own(merged);
    }
  return [...parts];
}

/** Both without the edge between them; null where that is not convex. */
function mergedAt(one: Path64, other: Path64, from: Point64, to: Point64): Path64 | null {
  const begun = (path: Path64, at: Point64) => {
    const i = path.findIndex((p) => p.x === at.x && p.y === at.y);
    return [...path.slice(i), ...path.slice(0, i)];
  };
  // From the end of the edge round to its start, then on round the other.
  const path = [...begun(one, to), ...begun(other, from).slice(1, -1)];
  const n = path.length;
  const convex = path.every((p, i) => cross(path[(i + n - 1) % n]!, p, path[(i + 1) % n]!) >= 0);
  return convex ? path : null;
}

/** All sums of a place of one and a place of the other, both convex and counter-clockwise: their edges by direction. */
export function convexSum(a: Path64, b: Path64): Path64 {
  const lowest = (path: Path64) => path.reduce((best, p, i) => (p.y < path[best]!.y || (p.y === path[best]!.y && p.x < path[best]!.x) ? i : best), 0); // prettier-ignore
  const [i0, j0] = [lowest(a), lowest(b)];
  const sum: Path64 = [];
  let [i, j] = [0, 0];
  while (i < a.length || j < b.length) {
    const [p, q] = [a[(i0 + i) % a.length]!, b[(j0 + j) % b.length]!];
    sum.push({ x: p.x + q.x, y: p.y + q.y });
    const [pn, qn] = [a[(i0 + i + 1) % a.length]!, b[(j0 + j + 1) % b.length]!];
    const turn = (pn.x - p.x) * (qn.y - q.y) - (pn.y - p.y) * (qn.x - q.x);
    if (j >= b.length || (i < a.length && turn > 0)) i++;
    else if (i >= a.length || turn < 0) j++;
    else {
      i++;
      j++;
    }
  }
  return sum;
}
