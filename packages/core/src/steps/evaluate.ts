import type { StepContext, StepResult } from './context.ts';
import { evaluateExtrude } from './extrude/evaluate.ts';
import type { Step } from './schema.ts';
import { evaluateSketch } from './sketch/evaluate.ts';

/** The register: how each kind of step is made. @throws StepFailure */
export function evaluateStep(step: Step, context: StepContext): StepResult {
  switch (step.kind) {
    case 'sketch':
      return evaluateSketch(step, context);
    case 'extrude':
      return evaluateExtrude(step, context);
  }
}
