/** What every step does alike that changes bodies without tools: each body by itself, its faces keeping their names. */
import { StepFailure, type Body } from '../../names/body.ts';
import { nameOf, type Name } from '../../names/name.ts';
import { facesAtCorner } from '../../names/neighbours.ts';
import { KernelDown, KernelError, type FaceParent, type MadeSolid, type SolidKernel } from '../../solid/kernel.ts';
import type { MadeBody, Making, StepResult } from '../step.ts';

/** The roles of what the kernel made afresh, by what it came from. */
export interface FreshRoles {
  readonly edge?: string;
  readonly vertex?: string;
  readonly inner?: string;
}

/** Things of several bodies, body by body. */
export function byBody<T extends { readonly body: Body }>(things: readonly T[]): ReadonlyMap<Body, readonly T[]> {
  const groups = new Map<Body, T[]>();
  for (const thing of things) groups.set(thing.body, [...(groups.get(thing.body) ?? []), thing]);
  return groups;
}

/** Each body remade. @throws StepFailure, KernelError */
export function rework<T>(
  groups: ReadonlyMap<Body, T>,
  roles: FreshRoles,
  context: Making,
  work: (body: Body, group: T) => MadeSolid,
): StepResult {
  const made: MadeBody[] = [...groups].map(([body, group]) => {
    const { solid, faces } = work(body, group);
    return { body: context.body(body.name, solid, namesAfter(context.stepId, body, faces, roles)), from: body };
  });
  return { made, used: [...groups.keys()] };
}

/**
 * A body worked on once for each thing, each time as the one before left it; what lies between is let go of.
 * @param work tells faces by those of the solid it is given
 * @throws what `work` throws
 */
export function inTurn<T>(
  body: Body,
  things: readonly T[],
  work: (now: MadeSolid, thing: T) => MadeSolid,
  kernel: SolidKernel,
): MadeSolid {
  const whole = body.faceNames.map((_, index): FaceParent[] => [{ argument: 0, kind: 'face', index, how: 'modified' }]);
  return things.reduce<MadeSolid>(
    (before, thing) => {
      try {
        return work(before, thing);
      } finally {
        if (before.solid !== body.solid) kernel.free(before.solid);
      }
    },
    { solid: body.solid, faces: whole },
  );
}

/** A face has the names it had; one made afresh is named by what it was made from. */
function namesAfter(stepId: string, body: Body, faces: MadeSolid['faces'], roles: FreshRoles): (readonly Name[])[] {
  return faces.map((parents) => {
    const names = parents.flatMap((parent) => namesFrom(stepId, body, parent, roles));
    return names.length > 0 ? [...new Set(names)] : [nameOf(stepId, 'new')];
  });
}

function namesFrom(stepId: string, body: Body, { kind, index, how }: FaceParent, roles: FreshRoles): readonly Name[] {
  if (kind === 'face' && how === 'modified') return body.faceNames[index]!;
  const role = how === 'inner' ? roles.inner : kind === 'edge' ? roles.edge : roles.vertex;
  const beside =
    kind === 'face' ? [index] : kind === 'edge' ? body.facts.edges[index]!.faces : facesAtCorner(body, index);
  const first = beside.map((f) => body.faceNames[f]![0]!);
  const sorted = [...new Set(first)].sort((a, b) => (a.text < b.text ? -1 : 1));
  return [nameOf(stepId, role ?? 'new', sorted)];
}

interface Fitting {
  /** “A radius of 6 mm does not fit these edges”. */
  readonly says: string;
  /** The step's number that is too large, and its value. */
  readonly number: string;
  readonly wanted: number;
  /** Does it work with another value? What is made must be let go of. */
  readonly works: (value: number) => boolean;
}

/**
 * Make it; where it cannot be, say what would fit, found by trying. What brings the kernel down is not tried again.
 * @throws StepFailure; KernelDown
 */
export function orWhatFits(
  make: () => StepResult,
  { says, number, wanted, works }: Fitting,
  { perils }: Making,
): StepResult {
  const guarded = <T>(peril: string, work: () => T): T => {
    try {
      return work();
    } catch (error) {
      if (error instanceof KernelDown) perils.add(peril);
      throw error;
    }
  };
  let reason: string | null = null;
  if (!perils.has(AS_GIVEN)) {
    try {
      return guarded(AS_GIVEN, make);
    } catch (error) {
      if (!(error instanceof KernelError || error instanceof StepFailure)) throw error;
      if (error instanceof KernelError) ({ reason } = error);
    }
  }
  const largest = largestThatWorks(wanted, (value) => {
    const peril = String(value);
    return !perils.has(peril) && guarded(peril, () => works(value));
  });
  if (largest === null) throw new StepFailure(`${says}, nor does a small one; choose others, or fewer at once.`);
  throw new StepFailure(`${says}${reason ? `, as ${reason}` : ''}; ${inMm(largest)} does.`, { number, kind: 'length', value: largest }); // prettier-ignore
}

const AS_GIVEN = 'as given';

export const inMm = (mm: number) => `${Number(mm.toFixed(3))} mm`;

/** Is what this makes sound? It is let go of again. */
export function isSoundlyMade(kernel: SolidKernel, make: () => MadeSolid): boolean {
  try {
    const { solid } = make();
    const sound = kernel.isValid(solid);
    kernel.free(solid);
    return sound;
  } catch (error) {
    if (error instanceof KernelError) return false;
    throw error;
  }
}

/** A number smaller than this share of the one wanted is not worth offering. */
const SMALLEST_HELP = 1 / 50;

/** The largest number not above `wanted` that works, with two figures; null when none near it was found to. */
function largestThatWorks(wanted: number, works: (value: number) => boolean): number | null {
  let [low, high] = [0, wanted];
  for (let i = 0; i < MOST_TRIES; i++) {
    const middle = (low + high) / 2;
    if (works(middle)) low = middle;
    else high = middle;
  }
  // What is next to nothing is no help.
  if (low < wanted * SMALLEST_HELP) return null;
  const step = 10 ** (Math.floor(Math.log10(low)) - 1);
  const round = Number((Math.floor(low / step + 1e-9) * step).toPrecision(2));
  return works(round) ? round : low;
}

/** Each takes as long as the step itself. */
const MOST_TRIES = 9;

/** @throws StepFailure when something of length has none */
export function refuseNone(value: number, what: string): void {
  if (!(value > LEAST)) throw new StepFailure(`${what} must be more than nothing.`);
}

/** Thinner than this, mm, is nothing. */
const LEAST = 1e-6;
