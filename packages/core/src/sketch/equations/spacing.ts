/**
 * Equal steps: of points and lines in a row, and of the members of a pattern.
 *   points   r = p₁ − 2 p₂ + p₃ in x and in y
 *   lines    r = s(l₂ from l₁) − s(l₃ from l₂), signed distances of parallel lines
 *   linear   q = p + i s u + j t u⊥, u the unit direction of a line
 *   circular q = c + turn(i s) (p − c)
 */
import type { Equation, LineSlots, PointSlots } from '../solver/equation.ts';
import { cross, dotOf, jetEquation, length, minus, type Jet, type JetVec } from '../solver/jet.ts';

const pair = (p: PointSlots) => [p.x, p.y];
const vec = (jets: readonly Jet[], i: number): JetVec => ({ x: jets[i]!, y: jets[i + 1]! });

function even(owner: string, a: number, b: number, c: number): Equation {
  return {
    owner,
    slots: [a, b, c],
    evaluate(v, g) {
      g[0] = 1;
      g[1] = -2;
      g[2] = 1;
      return v[a]! - 2 * v[b]! + v[c]!;
    },
  };
}

export function evenPoints(owner: string, a: PointSlots, b: PointSlots, c: PointSlots): Equation[] {
  return [even(owner, a.x, b.x, c.x), even(owner, a.y, b.y, c.y)];
}

/** Lines that are parallel for other reasons. */
export function evenLines(owner: string, a: LineSlots, b: LineSlots, c: LineSlots): Equation {
  const slots = [a, b, c].flatMap((l) => [...pair(l.from), ...pair(l.to)]);
  return jetEquation(owner, slots, (jets) => {
    const off = (line: number, other: number) => {
      const d = minus(vec(jets, line + 2), vec(jets, line));
      return cross(d, minus(vec(jets, other), vec(jets, line))).div(length(d).plus(1e-12));
    };
    const second = minus(vec(jets, 6), vec(jets, 4));
    const first = minus(vec(jets, 2), vec(jets, 0));
    const sense = dotOf(first, second).v < 0 ? -1 : 1;
    return off(0, 4).sub(off(4, 8).times(sense));
  });
}

/** Member (i, j) of a linear pattern. */
export function linearMember(
  owner: string,
  original: PointSlots,
  member: PointSlots,
  along: LineSlots,
  [i, step]: readonly [number, number],
  [j, rowStep]: readonly [number, number],
): Equation[] {
  const slots = [...pair(original), ...pair(member), ...pair(along.from), ...pair(along.to), step, rowStep];
  const formula = (axis: 'x' | 'y') => (jets: readonly Jet[]) => {
    const d = minus(vec(jets, 6), vec(jets, 4));
    const size = length(d).plus(1e-12);
    const u = axis === 'x' ? d.x : d.y;
    const n = axis === 'x' ? d.y.times(-1) : d.x;
    const shift = u.mul(jets[8]!).times(i).add(n.mul(jets[9]!).times(j)).div(size);
    return vec(jets, 2)[axis].sub(vec(jets, 0)[axis]).sub(shift);
  };
  return [jetEquation(owner, slots, formula('x')), jetEquation(owner, slots, formula('y'))];
}

/** Member i of a circular pattern; `step` is a slot, or a fixed angle in rad. */
export function circularMember(
  owner: string,
  original: PointSlots,
  member: PointSlots,
  center: PointSlots,
  i: number,
  step: { readonly slot: number } | { readonly angle: number },
): Equation[] {
  const slots = [...pair(original), ...pair(member), ...pair(center), ...('slot' in step ? [step.slot] : [])];
  const formula = (axis: 'x' | 'y') => (jets: readonly Jet[]) => {
    const r = minus(vec(jets, 0), vec(jets, 4));
    const angle = 'slot' in step ? jets[6]!.times(i / STEP_ARM) : jets[0]!.times(0).plus(step.angle * i);
    const [c, s] = [angle.cos(), angle.sin()];
    const turned = axis === 'x' ? r.x.mul(c).sub(r.y.mul(s)) : r.x.mul(s).add(r.y.mul(c));
    return vec(jets, 2)[axis].sub(vec(jets, 4)[axis]).sub(turned);
  };
  return [jetEquation(owner, slots, formula('x')), jetEquation(owner, slots, formula('y'))];
}

/** A step angle's slot holds rad times this, so that it moves about as easily as a length. */
export const STEP_ARM = 10;
