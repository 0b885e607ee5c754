/** The four angles round the crossing of two lines. */
import { angleFrom, type Ends } from '../drawn.ts';
import type { Vec2 } from '../regions/primitives.ts';

export interface Sector {
  /** Counter-clockwise, it runs from the second line to the first. */
  readonly swapped: boolean;
  /** Which lines count as running from their end to their start, in the order in which the angle runs. */
  readonly reversed: 'first' | 'second' | 'both' | null;
  /** rad, less than half a turn. */
  readonly angle: number;
  /** Said after it, to tell it from the first. */
  readonly where: string;
}

/**
 * The corner in which two lines were clicked first; then that beside it, that opposite, and the last.
 * @param clicked where each was clicked, mm; one that was not is taken at its middle
 */
export function sectorsOf(
  lines: readonly [Ends, Ends],
  clicked: readonly [Vec2 | undefined, Vec2 | undefined],
): readonly Sector[] {
  const apex = crossingOf(...lines);
  const turned = lines.map((line, k) => runsTowards(line, apex, clicked[k]));
  const corner = (beyondFirst: boolean, beyondSecond: boolean, where: string): Sector => {
    const rays = [turned[0] !== beyondFirst, turned[1] !== beyondSecond] as const;
    const angle = angleFrom(directed(lines[0], rays[0]), directed(lines[1], rays[1]));
    const swapped = angle < 0;
    const [first, second] = swapped ? [rays[1], rays[0]] : rays;
    const reversed = first ? (second ? 'both' : 'first') : second ? 'second' : null;
    return { swapped, reversed, angle: Math.abs(angle), where };
  };
  return [
    corner(false, false, ''),
    corner(false, true, ', beside'),
    corner(true, true, ', opposite'),
    corner(true, false, ', other side'),
  ];
}

/** Where two lines that are not parallel cross, or would. */
function crossingOf([a, b]: Ends, [c, d]: Ends): Vec2 {
  const [ux, uy] = [b[0] - a[0], b[1] - a[1]];
  const [vx, vy] = [d[0] - c[0], d[1] - c[1]];
  const t = ((c[0] - a[0]) * vy - (c[1] - a[1]) * vx) / (ux * vy - uy * vx);
  return [a[0] + t * ux, a[1] + t * uy];
}

/** Does a line run from where it was clicked towards the apex? Not clicked, its middle counts. */
function runsTowards([a, b]: Ends, apex: Vec2, clicked: Vec2 | undefined): boolean {
  const along = (p: Vec2) => (p[0] - apex[0]) * (b[0] - a[0]) + (p[1] - apex[1]) * (b[1] - a[1]);
  const at = clicked ? along(clicked) : 0;
  return (Math.abs(at) > 1e-12 ? at : along([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2])) < 0;
}

const directed = ([a, b]: Ends, turned: boolean): Ends => (turned ? [b, a] : [a, b]);
