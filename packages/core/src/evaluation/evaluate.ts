/** Evaluates a part's recipe step by step, doing again only what an edit touches. */
import type { Design } from '../document/schema.ts';
import { hashText } from '../ids/hash.ts';
import type { Ledger } from '../ledger/ledger.ts';
import { StepFailure, type Body } from '../names/body.ts';
import { isBorrowed } from '../names/borrowed.ts';
import { LazyFacts } from '../names/facts.ts';
import { KernelDown, KernelError, type SolidKernel } from '../solid/kernel.ts';
import { kindOf } from '../steps/register.ts';
import type { Step } from '../steps/schema.ts';
import { inPlace } from '../steps/result/in-place.ts';
import { outsideOf, slotsOf } from '../steps/slots-of.ts';
import { SketchFailure, type Making, type StepResult } from '../steps/step.ts';
import { Beyond } from './beyond.ts';
import { contextOf, type Told, type World } from './context.ts';
import type { PartOutcome, StepOutcome } from '../part/outcome.ts';
import { BUDGET_BYTES, Results, type Kept } from './results.ts';

export interface EvaluationHooks {
  /** Called before each step that is made, not of those known already. */
  progress?(done: number, total: number, stepName: string): void;
  /** Awaited between steps, so that a worker can hear that it is no longer wanted. */
  breathe?(): Promise<void>;
}

/** An evaluation was called off because a newer one replaces it. */
export class Superseded extends Error {}

export class PartEvaluator {
  private readonly results: Results;
  /** What brought the kernel down, by its key, and what is said of it: it is not tried again. */
  private readonly deadly = new Map<string, string>();
  /** What steps tried that brought the kernel down, by their keys. */
  private readonly perils = new Map<string, Set<string>>();
  /** Steps made, not found among the results; for tests and measuring. */
  made = 0;

  /** @param budgetBytes what results may take of the kernel's memory between two pieces of work */
  constructor(
    private readonly kernel: SolidKernel,
    budgetBytes = BUDGET_BYTES,
  ) {
    this.results = new Results(kernel, budgetBytes);
  }

  /**
   * Where a step brings the kernel down, it is started again, and that step then fails with a sentence; what was
   * evaluated before is gone with it.
   * @throws KernelDown when it falls over otherwise; Superseded
   */
  async evaluate(design: Design, ledger: Ledger, partId: string, hooks: EvaluationHooks = {}): Promise<PartOutcome> {
    for (;;) {
      if (this.kernel.isDown) {
        this.results.forget();
        await this.kernel.restart();
      }
      const known = this.peril;
      try {
        return await this.evaluateOnce(design, ledger, partId, hooks, []);
      } catch (error) {
        if (!(error instanceof KernelDown) || this.peril === known) throw error;
      }
    }
  }

  /** How much is known to bring the kernel down: it grows each time it is started again. */
  private get peril(): number {
    return [...this.perils.values()].reduce((sum, own) => sum + own.size, this.deadly.size);
  }

  private async evaluateOnce(
    design: Design,
    ledger: Ledger,
    partId: string,
    hooks: EvaluationHooks,
    waiting: readonly string[],
  ): Promise<PartOutcome> {
    const part = design.parts[partId];
    if (!part) throw new Error(`no part ${partId}`);
    const chain = [...waiting, partId];
    const beyond = new Beyond(design, ledger, chain, (other) =>
      this.evaluateOnce(design, ledger, other, hooks.breathe ? { breathe: hooks.breathe } : {}, chain),
    );
    const outcomes: StepOutcome[] = [];
    let bodies: readonly Body[] = [];
    for (const [i, id] of part.stepOrder.entries()) {
      const step = part.steps[id]!;
      await hooks.breathe?.();
      if (!step.suppressed) await beyond.gather(outsideOf(step));
      const outcome = this.step({ kernel: this.kernel, ledger, part, before: outcomes, beyond }, id, step, bodies, () =>
        hooks.progress?.(i, part.stepOrder.length, step.name),
      );
      outcomes.push(outcome);
      bodies = outcome.bodies;
    }
    return { part: partId, steps: outcomes, bodies: bodies.filter((b) => !isBorrowed(b)) };
  }

  private step(world: World, id: string, step: Step, bodies: readonly Body[], making: () => void): StepOutcome {
    const told: Told = { doubts: [], handles: [], notes: [] };
    const { doubts, handles } = told;
    const unchanged = { id, sketch: null, datum: null, bodies, doubts, handles, key: null, cure: null, tells: null };
    if (step.suppressed) return { ...unchanged, status: 'suppressed', message: null };
    try {
      const { key, result } = this.resultOf(step, contextOf(world, id, bodies, told), making);
      const { made, used, sketch, datum, note, tells = null } = result;
      const lent = made.find((m) => m.from && isBorrowed(m.from));
      if (lent)
        throw new StepFailure(`${world.part.steps[lent.from!.name.step]?.name ?? 'A borrowed body'} is borrowed and stays as it is; change it in its own part, or choose another body.`); // prettier-ignore
      return {
        id,
        key,
        status: 'ok',
        message: note ?? told.notes[0] ?? null,
        tells,
        cure: null,
        doubts,
        handles,
        sketch: sketch ?? null,
        datum: datum ?? null,
        bodies: inPlace(bodies, { made, used }),
      };
    } catch (error) {
      if (error instanceof SketchFailure)
        return { ...unchanged, status: 'failed', message: error.message, sketch: error.outcome };
      if (error instanceof StepFailure || error instanceof KernelError)
        return { ...unchanged, status: 'failed', message: error.message, cure: cureOf(error) };
      throw error;
    }
  }

  /** What the step makes of its slots; the same slots make the same, so it is done once. */
  private resultOf(
    step: Step,
    context: Making,
    making: () => void,
  ): { readonly key: string; readonly result: StepResult } {
    const kind = kindOf(step);
    const inputs: Record<string, unknown> = {};
    // Names that slots hand on: what fails may speak of them.
    const heard = new Map<string, string>();
    const hearing: Making = {
      ...context,
      stepName: (id) => noted(heard, id, context.stepName(id)),
      sketch(id) {
        const sketch = context.sketch(id);
        noted(heard, id, sketch.name);
        return sketch;
      },
    };
    const digests = slotsOf(step).map(({ name, slot, stored }) => {
      const { value, digest } = slot.of.resolve(stored, name, hearing);
      inputs[name] = value;
      return [name, digest];
    });
    const key = hashText(JSON.stringify([kind.kind, kind.version, context.stepId, digests]));
    const known = this.results.get(key, context.stepName);
    if (known) {
      for (const doubt of known.told.doubts) context.doubt(doubt);
      for (const handle of known.told.handles) context.handle(handle);
      for (const sentence of known.told.notes) context.note(sentence);
      if (known.failure) throw known.failure;
      return { key, result: known.result! };
    }
    const deadly = this.deadly.get(key);
    if (deadly !== undefined) throw new StepFailure(deadly);
    making();
    return { key, result: this.makeOnce(key, context, heard, (making) => kind.make(inputs as never, making)) };
  }

  private makeOnce(
    key: string,
    context: Making,
    heard: ReadonlyMap<string, string>,
    make: (making: Making) => StepResult,
  ): StepResult {
    this.made++;
    const owned: Body[] = [];
    const told: Told = { doubts: [], handles: [], notes: [] };
    const names = new Map<string, string>();
    const perils = this.perils.get(key) ?? new Set<string>();
    const before = perils.size;
    const keep = (kept: Pick<Kept, 'result' | 'failure'>) => this.results.keep(key, { ...kept, owned, told, names });
    try {
      const result = make({
        ...context,
        perils,
        stepName: (id) => noted(names, id, context.stepName(id)),
        doubt: (doubt) => {
          told.doubts.push(doubt);
          context.doubt(doubt);
        },
        handle: (handle) => {
          told.handles.push(handle);
          context.handle(handle);
        },
        note: (sentence) => {
          told.notes.push(sentence);
          context.note(sentence);
        },
        body: (name, solid, faceNames, facts = new LazyFacts(this.kernel, solid)) => {
          const body = { name, solid, faceNames, facts, key: `${key}.${owned.length}` };
          owned.push(body);
          if (!facts.valid || !(facts.volume > 0))
            throw new StepFailure(
              'The outcome is not a sound solid; look for faces that nearly coincide or a shape that runs into itself, and change it a little.',
            );
          return body;
        },
      });
      keep({ result });
      return result;
    } catch (error) {
      // What the step itself knows to leave alone the next time does not condemn it.
      if (error instanceof KernelDown) {
        if (perils.size > before) this.perils.set(key, perils);
        else this.deadly.set(key, error.message);
      }
      for (const { solid } of owned.splice(0)) this.kernel.free(solid);
      // Failing again would cost as much, and take memory of the kernel each time.
      heard.forEach((name, id) => names.set(id, name));
      if (error instanceof StepFailure || error instanceof KernelError) keep({ failure: error });
      throw error;
    }
  }

  /** Free what was not used lately and is over the budget. Call when no outcome is in use. */
  sweep(): void {
    this.results.sweep();
  }
}

function noted(names: Map<string, string>, id: string, name: string): string {
  names.set(id, name);
  return name;
}

const cureOf = (error: Error) => (error instanceof StepFailure ? error.cure : null);
