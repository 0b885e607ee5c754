/** What does not fit, in sentences. */
import type { Vec3 } from '../space/vector.ts';
import type { FitFinding } from './check-fit.ts';
import type { MotionFinding } from './through-motion.ts';

/** How what is found is written. */
export interface FitWords {
  /** Of a member, by its key. */
  name(key: string): string;
  /** mm as people read it. */
  length(mm: number): string;
}

const way = (towards: Vec3): string =>
  towards.flatMap((n, i) => (Math.abs(n) > 0.05 ? [`${n > 0 ? '+' : '−'}${'xyz'[i]}`] : [])).join(' ');
const volume = (mm3: number): string => `${Number(mm3.toPrecision(3))} mm³`;

function freed(
  free: Extract<FitFinding, { kind: 'overlap' }>['free'],
  other: string,
  length: FitWords['length'],
): string {
  if (!free) return '';
  return free.towards
    ? ` ${length(free.by)} towards ${way(free.towards)}, ${other} would be free.`
    : ` The one is ${length(free.by)} too large across for the bore of the other.`;
}

/** A finding as a sentence. */
export function fitSentence(f: FitFinding, { name, length }: FitWords): string {
  const [a, b] = f.members.map(name);
  switch (f.kind) {
    case 'overlap':
      return f.wanted
        ? `${a} and ${b} press on each other as their fit means it, ${volume(f.volume)}.`
        : `${a} and ${b} stand in each other, ${volume(f.volume)}.${freed(f.free, b!, length)}`;
    case 'close':
      return `${a} and ${b} are ${length(f.gap)} apart${f.wanted ? ', as their fit means it' : ''}.`;
    case 'unknown':
      return `${a} and ${b} could not be checked: ${f.why}`;
    case 'flush':
      return `A face of ${b} is ${length(f.by)} out of flush with one of ${a}, towards ${way(f.towards)}.`;
    case 'bottoms':
      return `${a} and ${b} touch at the bottom of a recess while their shoulders stay ${length(f.by)} open.`;
    case 'short':
      return `${a} ends ${length(f.by)} short within the bore of ${b}.`;
    case 'long':
      return `${a} sticks out of ${b} by ${length(f.by)}, more than it is thick.`;
    case 'not_mirrored':
      return `${a} and ${b} stand opposite each other and are nearly each other’s mirror, but for ${volume(f.volume)}, most of it at ${f.at.map(length).join(', ')}.`;
    case 'out_of_line': {
      const [r, s] = f.radii.map((x) => `Ø${length(2 * x)}`);
      return `${a} ${r} and ${b} ${s} are ${length(f.by)} out of line, towards ${way(f.towards)}.`;
    }
  }
}

/** What is found on the way, as a sentence. @param at where on the way, as people read it */
export function motionSentence(f: MotionFinding, at: string, { name, length }: FitWords): string {
  const [a, b] = f.members.map(name);
  switch (f.kind) {
    case 'runs_into':
      return `${a} and ${b} run into each other, worst at ${at}: ${volume(f.volume)}.`;
    case 'comes_close':
      return `${a} and ${b} come as close as ${length(f.gap)}, at ${at}.`;
    case 'leaves':
      return f.engaged > 0
        ? `Only ${length(f.engaged)} of ${a} is left on ${b} at ${at}.`
        : `${a} has left ${b} at ${at}, by ${length(-f.engaged)}.`;
    case 'unknown':
      return `${a} and ${b} could not be checked on the way: ${f.why}`;
  }
}
