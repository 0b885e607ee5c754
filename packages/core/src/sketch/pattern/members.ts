/** Keeps a pattern's members in step with its count. */
import { isDimension, onPoints, pointsOf, type Pattern, type SketchGeometry } from '../schema.ts';
import { removeFromSketch } from '../edit/remove.ts';
import { memberId, memberOf } from './equations.ts';

/** More members than this are a slip of the finger. */
export const MOST_MEMBERS = 500;
/** Nearer than this to a whole number is that number. */
const WHOLE = 1e-9;

/** A pattern cannot have so many members; the message is for the user. */
export class CountRefused extends Error {}
/** mm; nearer than this a member is in place. */
const UNMOVED = 1e-9;

/** How many members a pattern has now, its dimensions on count, along and across. @throws CountRefused */
export function countsOf(
  sketch: SketchGeometry,
  pattern: string,
  dimension: (id: string) => number,
): { along: number; across: number } {
  const read = (kind: 'count' | 'count_across') => {
    const found = Object.entries(sketch.constraints).find(([, c]) => c.kind === kind && c.of[0] === pattern);
    if (!found || (isDimension(found[1]) && found[1].driven)) return 1;
    const value = dimension(found[0]);
    const whole = Math.round(value);
    const name = (isDimension(found[1]) && found[1].name) || 'The count of a pattern';
    if (!(Math.abs(value - whole) <= WHOLE))
      throw new CountRefused(`${name} comes to ${Number(value.toPrecision(6))}, which is no whole number.`);
    if (whole < 1 || whole > MOST_MEMBERS)
      throw new CountRefused(`${name} comes to ${whole}; a pattern has from 1 to ${MOST_MEMBERS} members.`);
    return whole;
  };
  const [along, across] = [read('count'), read('count_across')];
  if (along * across > MOST_MEMBERS)
    throw new CountRefused(`A pattern of ${along} by ${across} has more than ${MOST_MEMBERS} members; ask for fewer.`);
  return { along, across };
}

/** The spacing a dimension asks for, mm or rad; the present one where none does. */
function stepsOf(sketch: SketchGeometry, id: string, pattern: Pattern, dimension: (id: string) => number): number[] {
  const kinds = pattern.kind === 'circular' ? ['step_angle'] : ['spacing', 'spacing_across'];
  return pattern.steps.map((now, k) => {
    const found = Object.entries(sketch.constraints).find(([, c]) => c.kind === kinds[k] && c.of[0] === id);
    return found && isDimension(found[1]) && !found[1].driven ? dimension(found[0]) : now;
  });
}

/**
 * Give every pattern exactly the members its count asks for: missing ones are
 * made, surplus ones go with what is put on them. All are put where the pattern
 * now has them, so that it is they who move when a number changes, not their originals.
 * @returns whether anything changed
 * @throws CountRefused
 */
export function matchPatterns(sketch: SketchGeometry, dimension: (id: string) => number): boolean {
  let changed = false;
  for (const [id, pattern] of Object.entries(sketch.patterns ?? {})) {
    const { along, across } = countsOf(sketch, id, dimension);
    const surplus = [...Object.keys(sketch.points), ...Object.keys(sketch.curves)].filter((e) => {
      const member = memberOf(e, sketch.patterns);
      return member?.pattern === id && (member.i >= along || member.j >= across);
    });
    if (surplus.length > 0) {
      removeFromSketch(sketch, surplus);
      changed = true;
    }
    const now = { ...pattern, steps: stepsOf(sketch, id, pattern, dimension) };
    for (let j = 0; j < across; j++) {
      for (let i = 0; i < along; i++) if (i + j > 0 && placeMember(sketch, id, now, i, j, along)) changed = true;
    }
  }
  return changed;
}

/** Points a pattern repeats: those picked, and those its curves stand on, save what they turn about. */
export function patternPoints(sketch: SketchGeometry, pattern: Pattern): string[] {
  const points = pattern.of.flatMap((e) => (sketch.curves[e] ? pointsOf(sketch.curves[e]) : [e]));
  return [...new Set(points)].filter((p) => p in sketch.points);
}

function placeMember(
  sketch: SketchGeometry,
  id: string,
  pattern: Pattern,
  i: number,
  j: number,
  along: number,
): boolean {
  let changed = false;
  const place = placer(sketch, pattern, i, j, along);
  for (const p of patternPoints(sketch, pattern)) {
    const member = memberId(p, id, i, j);
    const to = place(sketch.points[p]!);
    const is = sketch.points[member];
    if (is && Math.hypot(is[0] - to[0], is[1] - to[1]) < UNMOVED) continue;
    sketch.points[member] = to;
    changed = true;
  }
  for (const c of pattern.of) {
    const curve = sketch.curves[c];
    const member = memberId(c, id, i, j);
    if (!curve || member in sketch.curves) continue;
    sketch.curves[member] = onPoints(curve, (p) => (p in sketch.points ? memberId(p, id, i, j) : p));
    changed = true;
  }
  return changed;
}

/** Where the pattern now puts member (i, j) of a point. */
function placer(sketch: SketchGeometry, pattern: Pattern, i: number, j: number, along: number) {
  const at = (point: string) => sketch.points[point] ?? ([0, 0] as const);
  if (pattern.kind === 'linear') {
    const line = sketch.curves[pattern.along];
    let u: readonly [number, number] = pattern.along === 'y_axis' ? [0, 1] : [1, 0];
    if (line?.kind === 'line') {
      const [a, b] = [at(line.from), at(line.to)];
      const size = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
      u = [(b[0] - a[0]) / size, (b[1] - a[1]) / size];
    }
    const [s, t] = [i * (pattern.steps[0] ?? 0), j * (pattern.steps[1] ?? 0)];
    return ([x, y]: readonly [number, number]): [number, number] => [x + s * u[0] - t * u[1], y + s * u[1] + t * u[0]];
  }
  const [cx, cy] = at(pattern.around);
  const angle = i * (pattern.whole ? (2 * Math.PI) / along : (pattern.steps[0] ?? 0));
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return ([x, y]: readonly [number, number]): [number, number] => [
    cx + (x - cx) * c - (y - cy) * s,
    cy + (x - cx) * s + (y - cy) * c,
  ];
}
