/** What becomes of a step's fresh solids: new bodies, joined to those there, or cut from them. */
import { StepFailure, type Body } from '../../names/body.ts';
import { nameOf, type Name } from '../../names/name.ts';
import type { MadeSolid } from '../../solid/kernel.ts';
import { LazyFacts } from '../../names/facts.ts';
import { bodies } from '../../slots/bodies/bodies.ts';
import { choice } from '../../slots/choice/choice.ts';
import type { StepData } from '../../slots/slot.ts';
import type { Making, SentencePiece, StepResult } from '../step.ts';

export const RESULTS = { new_body: 'a new body', join: 'joined to', cut: 'cut from' } as const;
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

/** The end of such a step's sentence. */
export function resultSentence(step: StepData): SentencePiece[] {
  return step.result === 'new_body' ? ['as', { slot: 'result' }] : [{ slot: 'result' }, { slot: 'bodies' }];
}

/** A solid fresh from the kernel, with the names of its faces and of the body it would begin. */
export interface Fresh extends MadeSolid {
  readonly name: Name;
  readonly faceNames: readonly (readonly Name[])[];
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
    return {
      made: fresh.map(({ name, solid, faceNames }) => ({ body: context.body(name, solid, faceNames), from: null })),
      used: [],
    };
  }
  const { kernel } = context;
  try {
    const solids = kernel.combine(
      kind,
      targets.map((b) => b.solid),
      fresh.map((f) => f.solid),
    );
    return combined(kind, targets, fresh, solids, context);
  } finally {
    // Only what came of them is kept.
    for (const { solid } of fresh) kernel.free(solid);
  }
}

function combined(
  kind: 'join' | 'cut',
  targets: readonly Body[],
  fresh: readonly Fresh[],
  solids: readonly MadeSolid[],
  context: Making,
): StepResult {
  const { kernel } = context;
  const waiting = new Set(solids.map((s) => s.solid));
  try {
    if (solids.length === 0)
      throw new StepFailure(`This would cut ${listed(targets, context)} away entirely; nothing would be left.`);
    const names = [...targets, ...fresh].map((argument) => argument.faceNames);
    const made: { body: Body; from: Body }[] = [];
    const untouched = new Set<Body>();
    for (const own of solids) {
      const from = [...new Set(own.faces.flatMap((parents) => parents.map((p) => p.argument)))].sort((a, b) => a - b);
      const target = targets[from[0] ?? Infinity];
      if (!target)
        throw new StepFailure(
          `This does not touch ${listed(targets, context)}, so there is nothing to join; make it a new body, or move it.`,
        );
      const facts = new LazyFacts(kernel, own.solid);
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
      throw new StepFailure(
        kind === 'cut'
          ? `This cuts nothing: ${context.stepName(context.stepId)} does not reach ${listed(targets, context)}.`
          : `This adds nothing: ${context.stepName(context.stepId)} lies within ${listed(targets, context)}.`,
      );
    refuseImpossible(
      kind,
      targets,
      made.map((m) => m.body),
      untouched,
    );
    return { made, used: targets.filter((t) => !untouched.has(t)) };
  } finally {
    for (const solid of waiting) kernel.free(solid);
  }
}

/** A boolean that reports success may have done too much, or the contrary: the volume tells. */
function refuseImpossible(
  kind: 'join' | 'cut',
  targets: readonly Body[],
  made: readonly Body[],
  untouched: ReadonlySet<Body>,
): void {
  const total = (bodies: readonly Body[]) => bodies.reduce((sum, b) => sum + b.facts.volume, 0);
  const before = total(targets.filter((t) => !untouched.has(t)));
  const after = total(made);
  const slack = 1e-6 * Math.max(before, after);
  if (kind === 'cut' ? after > before + slack : after < before - slack)
    throw new StepFailure(
      `The kernel's outcome cannot be right: ${kind === 'cut' ? 'cutting added' : 'joining took away'} material; move what it makes a little.`,
    );
}

function same(a: number, b: number): boolean {
  return Math.abs(a - b) <= 1e-9 * Math.max(Math.abs(a), Math.abs(b));
}

function listed(bodies: readonly Body[], context: Making): string {
  const names = [...new Set(bodies.map((b) => context.stepName(b.name.step)))];
  return names.length > 3 ? `${names.length} bodies` : names.join(' or ');
}
