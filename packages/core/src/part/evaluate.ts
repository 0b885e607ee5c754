/** Evaluates a part's recipe step by step, doing again only what an edit touches. */
import type { Design, Part } from '../document/schema.ts';
import type { Ledger } from '../ledger/ledger.ts';
import { KernelError, type SolidHandle, type SolidKernel } from '../solid/kernel.ts';
import type { SketchOutcome, StepContext, StepResult } from '../steps/context.ts';
import { evaluateStep } from '../steps/evaluate.ts';
import type { Step } from '../steps/schema.ts';
import { SketchFailure } from '../steps/sketch/evaluate.ts';
import { StepFailure, type Body } from './body.ts';
import { LazyFacts } from './facts.ts';

export interface StepOutcome {
  readonly id: string;
  readonly status: 'ok' | 'failed' | 'suppressed';
  /** Why it failed, or a note about how it was made. */
  readonly message: string | null;
  readonly sketch: SketchOutcome | null;
  /** All bodies after this step. */
  readonly bodies: readonly Body[];
}

export interface PartOutcome {
  readonly part: string;
  readonly steps: readonly StepOutcome[];
  readonly bodies: readonly Body[];
}

export interface EvaluationHooks {
  /** Called before each step. */
  progress?(done: number, total: number, stepName: string): void;
  /** Awaited between steps, so that a worker can hear that it is no longer wanted. */
  breathe?(): Promise<void>;
}

/** An evaluation was called off because a newer one replaces it. */
export class Superseded extends Error {}

interface Remembered {
  readonly bodies: readonly Body[];
  /** Solids this entry made and must free. */
  readonly owned: readonly SolidHandle[];
}

/** Results kept beyond those in use, so that undo and back-and-forth are instant. */
const SPARE_RESULTS = 60;

export class PartEvaluator {
  private readonly results = new Map<string, Remembered>();
  private readonly sketches = new WeakMap<Step, { key: string; outcome: SketchOutcome; note?: string }>();

  constructor(private readonly kernel: SolidKernel) {}

  async evaluate(design: Design, ledger: Ledger, partId: string, hooks: EvaluationHooks = {}): Promise<PartOutcome> {
    const part = design.parts[partId];
    if (!part) throw new Error(`no part ${partId}`);
    const outcomes: StepOutcome[] = [];
    let bodies: readonly Body[] = [];
    for (const [i, id] of part.stepOrder.entries()) {
      const step = part.steps[id]!;
      hooks.progress?.(i, part.stepOrder.length, step.name);
      await hooks.breathe?.();
      const outcome = this.step(ledger, part, id, step, bodies, outcomes);
      outcomes.push(outcome);
      bodies = outcome.bodies;
    }
    return { part: partId, steps: outcomes, bodies };
  }

  private step(
    ledger: Ledger,
    part: Part,
    id: string,
    step: Step,
    bodies: readonly Body[],
    before: readonly StepOutcome[],
  ): StepOutcome {
    const unchanged = { id, sketch: null, bodies };
    if (step.suppressed) return { ...unchanged, status: 'suppressed', message: null };
    try {
      const result = this.remembered(ledger, part, id, step, bodies, before);
      return { id, status: 'ok', message: result.note ?? null, sketch: result.sketch ?? null, bodies: result.bodies };
    } catch (error) {
      if (error instanceof SketchFailure)
        return { ...unchanged, status: 'failed', message: error.message, sketch: error.outcome };
      if (error instanceof StepFailure || error instanceof KernelError)
        return { ...unchanged, status: 'failed', message: error.message };
      throw error;
    }
  }

  /** Sketches are remembered by their own content; other steps remember their kernel work. */
  private remembered(
    ledger: Ledger,
    part: Part,
    id: string,
    step: Step,
    bodies: readonly Body[],
    before: readonly StepOutcome[],
  ): StepResult {
    const context = this.contextFor(ledger, part, id, bodies, before);
    if (step.kind !== 'sketch') return evaluateStep(step, context);
    const numbers = Object.entries(step.constraints).map(([c, constraint]) =>
      'value' in constraint && !constraint.driven ? context.number(c) : 0,
    );
    const fromBodies = 'face' in step.plane || step.borrowed !== undefined;
    const key = JSON.stringify([numbers, fromBodies ? bodies.map((b) => b.key) : null]);
    const known = this.sketches.get(step);
    if (known?.key === key) return { bodies, sketch: known.outcome, ...(known.note ? { note: known.note } : {}) };
    const result = evaluateStep(step, context);
    this.sketches.set(step, { key, outcome: result.sketch!, ...(result.note ? { note: result.note } : {}) });
    return result;
  }

  private contextFor(
    ledger: Ledger,
    part: Part,
    stepId: string,
    bodies: readonly Body[],
    before: readonly StepOutcome[],
  ): StepContext {
    let made: SolidHandle[] = [];
    let making = '';
    let count = 0;
    return {
      stepId,
      kernel: this.kernel,
      bodies,
      number: (key) => {
        const value = ledger.valueOf(`${stepId}.${key}`);
        if (value.ok) return value.quantity.value;
        const entry = ledger.index.byReference(`${stepId}.${key}`);
        throw new StepFailure(`${entry?.name ?? key}: ${value.message}`);
      },
      sketch: (sketchId) => {
        const outcome = before.find((o) => o.id === sketchId);
        const name = part.steps[sketchId]?.name;
        if (name === undefined) throw new StepFailure('The sketch this step uses was deleted; choose another.');
        if (!outcome) throw new StepFailure(`${name} comes after this step; move it before, or choose another sketch.`);
        if (outcome.status === 'suppressed') throw new StepFailure(`${name} is suppressed, and this step needs it.`);
        if (outcome.status === 'failed' || !outcome.sketch)
          throw new StepFailure(`${name} has a fault of its own, and this step needs it.`);
        return { name, outcome: outcome.sketch };
      },
      body: (id, name, solid, faceNames) => {
        made.push(solid);
        return { id, name, solid, faceNames, key: `${making}.${count++}`, facts: new LazyFacts(this.kernel, solid) };
      },
      once: (key, work) => {
        const known = this.results.get(key);
        if (known) {
          // Most recently used last.
          this.results.delete(key);
          this.results.set(key, known);
          return [...known.bodies];
        }
        making = key;
        count = 0;
        made = [];
        try {
          const result = work();
          this.results.set(key, { bodies: result, owned: made });
          return [...result];
        } catch (error) {
          for (const solid of made) this.kernel.free(solid);
          throw error;
        }
      },
    };
  }

  /**
   * Forget old results. Call when evaluations are done, with all bodies still shown.
   * A body made by one step and passed on by others is owned by the first.
   */
  sweep(inUse: Iterable<Body>): void {
    const wanted = new Set([...inUse].map((b) => b.solid));
    const idle = [...this.results].filter(([, r]) => !r.owned.some((s) => wanted.has(s)));
    for (const [key, result] of idle.slice(0, Math.max(0, idle.length - SPARE_RESULTS))) {
      this.results.delete(key);
      for (const solid of result.owned) this.kernel.free(solid);
    }
  }
}
