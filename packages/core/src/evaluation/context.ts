/** What a step may ask of the part as it is before it. */
import type { Part } from '../document/schema.ts';
import type { Ledger } from '../ledger/ledger.ts';
import { StepFailure, type Body } from '../names/body.ts';
import type { Doubt } from '../slots/resolving.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { kindOf } from '../steps/register.ts';
import { slotsOf } from '../steps/slots-of.ts';
import type { Handle, Making } from '../steps/step.ts';
import type { Beyond } from './beyond.ts';
import type { StepOutcome } from '../part/outcome.ts';

export interface World {
  readonly kernel: SolidKernel;
  readonly ledger: Ledger;
  readonly part: Part;
  /** What came of the steps before. */
  readonly before: readonly StepOutcome[];
  readonly beyond: Pick<Beyond, 'borrowed'>;
}

/** What a step tells besides what it makes. */
export interface Told {
  readonly doubts: Doubt[];
  readonly handles: Handle[];
  readonly notes: string[];
}

/** @param told what is told is added here */
export function contextOf(world: World, stepId: string, bodies: readonly Body[], told: Told): Making {
  const { kernel, ledger, part, before, beyond } = world;

  /** @throws StepFailure when it cannot be built upon */
  function outcomeOf(id: string, what: string): StepOutcome {
    const name = part.steps[id]?.name;
    if (name === undefined) throw new StepFailure(`${what} this step uses was deleted; choose another.`);
    const outcome = before.find((o) => o.id === id);
    if (!outcome) throw new StepFailure(`${name} comes after this step; move it before, or choose another.`);
    if (outcome.status === 'suppressed') throw new StepFailure(`${name} is suppressed, and this step needs it.`);
    if (outcome.status === 'failed') throw new StepFailure(`${name} has a fault of its own, and this step needs it.`);
    return outcome;
  }

  return {
    stepId,
    kernel,
    bodies,
    number: (key) => {
      const value = ledger.valueOf(`${stepId}.${key}`);
      if (value.ok) return value.quantity.value;
      const entry = ledger.index.byReference(`${stepId}.${key}`);
      throw new StepFailure(`${entry?.name ?? key}: ${value.message}`);
    },
    stepName: (id) => part.steps[id]?.name ?? 'a deleted step',
    sketch(id) {
      const { sketch } = outcomeOf(id, 'The sketch');
      const name = part.steps[id]!.name;
      if (!sketch) throw new StepFailure(`${name} is no sketch; choose another.`);
      return { name, outcome: sketch };
    },
    datum(id, kind) {
      const { datum } = outcomeOf(id, `The ${kind}`);
      if (datum?.kind !== kind) throw new StepFailure(`${part.steps[id]!.name} is no ${kind}; choose another.`);
      return datum as never;
    },
    made(id) {
      const outcome = outcomeOf(id, 'A step');
      return { digest: outcome.key!, place: before.indexOf(outcome) };
    },
    doubt: (doubt) => void told.doubts.push(doubt),
    handle: (handle) => void told.handles.push(handle),
    note: (sentence) => void told.notes.push(sentence),
    borrowed: (source) => beyond.borrowed(source),
    perils: new Set(),
    body: () => {
      throw new Error('bodies are made only while a step makes');
    },
    again(id) {
      outcomeOf(id, 'A step');
      const step = part.steps[id]!;
      return {
        kind: kindOf(step),
        then: before[before.findIndex((outcome) => outcome.id === id) - 1]?.bodies ?? [],
        resolved(now, change) {
          const doubts: Doubt[] = [];
          const context = contextOf(world, id, now, { doubts, handles: [], notes: [] });
          const inputs = slotsOf(step).map(({ name, slot, stored }) => {
            const meant: unknown = change ? slot.of.rewritten(stored, change) : stored;
            return [name, slot.of.resolve(meant, name, context).value];
          });
          // What the step itself is unsure of it says itself.
          if (change && doubts.length > 0) throw new StepFailure(doubts[0]!.says);
          return Object.fromEntries(inputs) as Readonly<Record<string, unknown>>;
        },
      };
    },
  };
}
