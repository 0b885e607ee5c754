/** Edits of a part's recipe. */
import { Ledger } from '../../ledger/ledger.ts';
import { ExpressionError } from '../../dimensions/lexer.ts';
import { numberSlots, setNumberSlot } from '../../steps/numbers.ts';
import type { Step } from '../../steps/schema.ts';
import { EditRefused, type Edit } from '../change.ts';
import type { Design, Part } from '../schema.ts';
import { plain } from './plain.ts';

function partOf(draft: Design, part: string): Part {
  return draft.parts[part] ?? refuse('This part no longer exists.');
}

function stepOf(draft: Design, part: string, step: string): Step {
  return partOf(draft, part).steps[step] ?? refuse('This step no longer exists.');
}

function refuse(message: string): never {
  throw new EditRefused(message);
}

/** Add a step, at the end or before position `at`. Names typed in its numbers become references. */
export function addStep(part: string, id: string, step: Step, at?: number): Edit {
  return {
    command: 'add-step',
    label: `Add ${step.name}`,
    run(draft) {
      const home = partOf(draft, part);
      home.steps[id] = { ...step };
      home.stepOrder.splice(at ?? home.stepOrder.length, 0, id);
      const ledger = Ledger.of(plain(draft));
      for (const slot of numberSlots(step)) {
        try {
          setNumberSlot(home.steps[id]!, slot.key, ledger.bind(slot.expression, { part, step: id }, slot.kind));
        } catch (error) {
          if (error instanceof ExpressionError) refuse(error.message);
          throw error;
        }
      }
    },
  };
}

/** Change a step's slots. */
export function changeStep(part: string, id: string, label: string, change: (step: Step) => void): Edit {
  return {
    command: 'change-step',
    label,
    run(draft) {
      change(stepOf(draft, part, id));
    },
  };
}

export function renameStep(part: string, id: string, name: string): Edit {
  return {
    command: 'rename-step',
    label: `Rename a step to ${name}`,
    run(draft) {
      if (!name.trim()) refuse('A step needs a name.');
      stepOf(draft, part, id).name = name.trim().slice(0, 80);
    },
  };
}

export function suppressStep(part: string, id: string, suppressed: boolean): Edit {
  return {
    command: 'suppress-step',
    label: suppressed ? 'Suppress a step' : 'Bring a step back',
    run(draft) {
      const step = stepOf(draft, part, id);
      if (suppressed) step.suppressed = true;
      else delete step.suppressed;
    },
  };
}

/** Steps that would lose something they use if this one went. */
export function usersOfStep(part: Part, id: string): string[] {
  return Object.entries(part.steps).flatMap(([other, step]) => {
    const usesSketch = step.kind === 'extrude' && step.sketch === id;
    const usesFace = step.kind === 'sketch' && 'face' in step.plane && step.plane.face.name.startsWith(`${id}:`);
    return other !== id && (usesSketch || usesFace) ? [step.name] : [];
  });
}

/** Delete a step. Steps that used it stay and say what they miss. Refused while other numbers use its numbers. */
export function deleteStep(part: string, id: string): Edit {
  return {
    command: 'delete-step',
    label: 'Delete a step',
    run(draft) {
      const home = partOf(draft, part);
      const step = stepOf(draft, part, id);
      const ledger = Ledger.of(plain(draft));
      // What is measured on the part reads on without the step.
      const user = ledger.entries.find(
        (e) =>
          !e.measured &&
          !e.ref.startsWith(`${id}.`) &&
          ledger.dependenciesOf(e).some((ref) => ref.startsWith(`${id}.`)),
      );
      if (user) refuse(`${step.name} holds a number that ${user.path.join('.')} uses; change that first.`);
      delete home.steps[id];
      home.stepOrder.splice(home.stepOrder.indexOf(id), 1);
    },
  };
}

export function moveStep(part: string, id: string, to: number): Edit {
  return {
    command: 'move-step',
    label: 'Move a step',
    run(draft) {
      const { stepOrder } = partOf(draft, part);
      const from = stepOrder.indexOf(id);
      if (from < 0) refuse('This step no longer exists.');
      stepOrder.splice(from, 1);
      stepOrder.splice(Math.max(0, Math.min(to, stepOrder.length)), 0, id);
    },
  };
}

/** A sketch drawn again after itself, for another plane. What it borrowed is cut loose. */
export function copySketch(part: string, id: string, copy: string, name: string): Edit {
  return {
    command: 'copy-sketch',
    label: `Copy ${name}`,
    run(draft) {
      const home = partOf(draft, part);
      const own = stepOf(draft, part, id);
      if (own.kind !== 'sketch') refuse('Only a sketch can be copied to another plane.');
      // Its numbers that speak of each other go on doing so within the copy.
      const text = JSON.stringify(plain(draft).parts[part]!.steps[id]).replaceAll(`$${id}.`, `$${copy}.`);
      const fresh = JSON.parse(text) as typeof own;
      delete fresh.borrowed;
      fresh.name = name;
      home.steps[copy] = fresh;
      home.stepOrder.splice(home.stepOrder.indexOf(id) + 1, 0, copy);
    },
  };
}
