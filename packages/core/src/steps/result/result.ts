/** What becomes of a step's fresh solids: new bodies, joined to those there, or cut from them. */
import { StepFailure, type Body, type Cure } from '../../names/body.ts';
import { nameOf } from '../../names/name.ts';
import { KernelError, type MadeSolid, type SolidHandle, type SolidKernel } from '../../solid/kernel.ts';
import { minus } from '../../space/vector.ts';
import { isPlausible } from '../../solid/second-opinion.ts';
import { LazyFacts } from '../../names/facts.ts';
import { bodies } from '../../slots/bodies/bodies.ts';
import { choice } from '../../slots/choice/choice.ts';
import type { AnySlot, StepData } from '../../slots/slot.ts';
import {
  declareStep,
  type Fresh,
  type Inputs,
  type Making,
  type SentencePiece,
  type StepKind,
  type StepResult,
} from '../step.ts';

export const RESULTS = {
  new_body: 'a new body',
  join: 'joined to',
  cut: 'cut from',
  common: 'keeping what it shares with',
} as const;
export type ResultKind = keyof typeof RESULTS;

/** The slots of every kind that makes solids. */
export const resultSlots = {
  result: { of: choice<ResultKind>(RESULTS) },
  bodies: {
    of: bodies(),
    when: (step: StepData) => step.result !== 'new_body',
    otherwise: () => 'all' as const,
    says: 'What is joined to or cut; all when left out.',
  },
};

type MakesTools = Readonly<Record<string, AnySlot>> & typeof resultSlots;

/** A kind of step that makes tools, and joins, cuts or begins bodies with them. */
export function declareTools<S extends MakesTools>(
  kind: Omit<StepKind<S>, 'make'> & Required<Pick<StepKind<S>, 'tools'>>,
): StepKind<S> {
  return declareStep({
    ...kind,
    make(inputs, context) {
      const { result, bodies } = inputs as Inputs<typeof resultSlots>;
      const made = (of: Inputs<S>) => finish(result, bodies, kind.tools(of, context), context);
      try {
        return made(inputs);
      } catch (error) {
        if (!(error instanceof NothingDone) || !('reversed' in kind.slots)) throw error;
        throw new StepFailure(error.message, turnedRound(inputs, made));
      }
    },
  });
}

/** A boolean that would leave all as it was. */
class NothingDone extends StepFailure {}

/** Where the other direction meets something, that is the cure. */
function turnedRound<I>(inputs: I, made: (of: I) => unknown): Cure | null {
  const stored = !(inputs as { reversed?: boolean }).reversed;
  try {
    made({ ...inputs, reversed: stored });
    return { slot: 'reversed', stored, says: 'Turn it round' };
  } catch (error) {
    if (error instanceof StepFailure || error instanceof KernelError) return null;
    throw error;
  }
}

/** The end of such a step's sentence. */
export function resultSentence(step: StepData): SentencePiece[] {
  return step.result === 'new_body' ? ['as', { slot: 'result' }] : [{ slot: 'result' }, { slot: 'bodies' }];
}

/**
 * @param targets bodies acted on; undefined for new bodies
 * @throws StepFailure when nothing is there to act on, or the outcome is no sound solid
 */
export function finish(
  kind: ResultKind,
  targets: readonly Body[] | undefined,
  fresh: readonly Fresh[],
  context: Making,
): StepResult {
  if (kind === 'new_body' || !targets) {
    const waiting = new Set(fresh);
    try {
      const made = fresh.map((f) => {
        waiting.delete(f);
        return { body: context.body(f.name, f.solid, f.faceNames), from: null };
      });
      return { made, used: [] };
    } finally {
      for (const { solid } of waiting) context.kernel.free(solid);
    }
  }
  const { kernel } = context;
  try {
    const solids = kernel.combine(
      kind,
      targets.map((b) => b.solid),
      fresh.map((f) => f.solid),
    );
    if (fresh.some((f) => kernel.hasFreeFaces(f.solid)) && !seemsRight(kind, targets, fresh, solids, kernel)) {
      for (const { solid } of solids) kernel.free(solid);
      throw new StepFailure(
        `The kernel’s outcome cannot be right: ${WRONG[kind]}; change the free shape a little, or make it of simpler faces.`,
      );
    }
    return combined(kind, targets, fresh, solids, context);
  } finally {
    // Only what came of them is kept.
    for (const { solid } of fresh) kernel.free(solid);
  }
}

const WRONG = {
  join: 'joining did not add what it should',
  cut: 'cutting did not take away what it should',
  common: 'what is shared is not what it should be',
};

/** By meshes fine enough to tell a gross fault: on free faces the kernel makes such, and finds them sound. */
function seemsRight(
  kind: Exclude<ResultKind, 'new_body'>,
  targets: readonly Body[],
  fresh: readonly Fresh[],
  solids: readonly MadeSolid[],
  kernel: SolidKernel,
): boolean {
  const { min, max } = targets[0]!.facts.box;
  const size = Math.hypot(...minus(max, min));
  return LOOKS.some(({ linear, angular }) => {
    const quality = { linear: linear * size, angular };
    const meshes = (of: readonly { readonly solid: SolidHandle }[]) => of.map((o) => kernel.mesh(o.solid, quality));
    return isPlausible(kind, meshes(targets), meshes(fresh), meshes(solids));
  });
}

/** By shares of the body's size, and rad. Where tools are thin against the body, coarse meshes differ by as much as they fill. */
const LOOKS = [
  { linear: 0.002, angular: 0.25 },
  { linear: 0.000_05, angular: 0.03 },
] as const;

function combined(
  kind: Exclude<ResultKind, 'new_body'>,
  targets: readonly Body[],
  fresh: readonly Fresh[],
  solids: readonly MadeSolid[],
  context: Making,
): StepResult {
  const { kernel } = context;
  const waiting = new Set(solids.map((s) => s.solid));
  try {
    if (solids.length === 0)
      throw new StepFailure(
        kind === 'common'
          ? `This has nothing in common with ${listed(targets, context)}; nothing would be left.`
          : `This would cut ${listed(targets, context)} away entirely; nothing would be left.`,
      );
    const names = [...targets, ...fresh].map((argument) => argument.faceNames);
    const made: { body: Body; from: Body }[] = [];
    const untouched = new Set<Body>();
    for (const own of solids) {
      const from = [...new Set(own.faces.flatMap((parents) => parents.map((p) => p.argument)))].sort((a, b) => a - b);
      const facts = new LazyFacts(kernel, own.solid);
      const target = targets[from[0] ?? Infinity] ?? (kind === 'common' ? aroundIt(targets, facts) : undefined);
      if (!target)
        throw new NothingDone(
          `This does not touch ${listed(targets, context)}, so there is nothing to join; make it a new body, or move it.`,
        );
      // A tool that only touches it shares a face with it, and changes nothing.
      const whole = own.faces.every((parents) => parents.some((p) => p.argument === from[0]));
      if (whole && own.faces.length === target.faceNames.length && same(facts.volume, target.facts.volume)) {
        untouched.add(target);
        continue;
      }
      waiting.delete(own.solid);
      const faceNames = own.faces.map((parents) => {
        const all = parents.flatMap((p) => names[p.argument]?.[p.index] ?? []);
        return all.length > 0 ? [...new Set(all)] : [nameOf(context.stepId, 'new')];
      });
      made.push({ body: context.body(target.name, own.solid, faceNames, facts), from: target });
    }
    if (made.length === 0)
      throw new NothingDone(NOTHING[kind](context.stepName(context.stepId), listed(targets, context)));
    refuseImpossible(
      kind,
      targets,
      made.map((m) => m.body),
      untouched,
    );
    const gone = targets.filter((t) => !untouched.has(t) && !made.some((m) => m.from === t));
    return {
      made,
      used: targets.filter((t) => !untouched.has(t)),
      ...(gone.length > 0 ? { note: `${listed(gone, context)} ${kind === 'join' ? `is one body with ${listed(made.map((m) => m.from), context)}` : 'is gone entirely'} after this.` } : {}), // prettier-ignore
    };
  } finally {
    for (const solid of waiting) kernel.free(solid);
  }
}

const NOTHING: Readonly<Record<Exclude<ResultKind, 'new_body'>, (step: string, bodies: string) => string>> = {
  join: (step, bodies) => `This adds nothing: ${step} lies within ${bodies}.`,
  cut: (step, bodies) => `This cuts nothing: ${step} does not reach ${bodies}.`,
  common: (step, bodies) => `This takes nothing away: all of ${bodies} lies within ${step}.`,
};

/** A tool wholly within a body shares no face with it; it lies where that body is. */
function aroundIt(targets: readonly Body[], { center }: LazyFacts): Body | undefined {
  const within = ({ facts: { box } }: Body) => center.every((x, i) => x >= box.min[i]! && x <= box.max[i]!);
  return targets.length === 1 ? targets[0] : targets.find(within);
}

/** A boolean that reports success may have done too much, or the contrary: the volume tells. */
function refuseImpossible(
  kind: Exclude<ResultKind, 'new_body'>,
  targets: readonly Body[],
  made: readonly Body[],
  untouched: ReadonlySet<Body>,
): void {
  const total = (bodies: readonly Body[]) => bodies.reduce((sum, b) => sum + b.facts.volume, 0);
  const before = total(targets.filter((t) => !untouched.has(t)));
  const after = total(made);
  const slack = 1e-6 * Math.max(before, after);
  if (kind === 'join' ? after < before - slack : after > before + slack)
    throw new StepFailure(
      `The kernel's outcome cannot be right: ${kind === 'join' ? 'joining took away' : 'taking away added'} material; move what it makes a little.`,
    );
}

function same(a: number, b: number): boolean {
  return Math.abs(a - b) <= 1e-9 * Math.max(Math.abs(a), Math.abs(b));
}

function listed(bodies: readonly Body[], context: Making): string {
  const names = [...new Set(bodies.map((b) => context.stepName(b.name.step)))];
  return names.length > 3 ? `${names.length} bodies` : names.join(' or ');
}
