/** Edits of a part's recipe. */
import { z } from 'zod';
import { ExpressionError } from '../dimensions/lexer.ts';
import { declareCommand } from '../document/command.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import { plain } from '../document/plain.ts';
import { requirementNaming } from '../document/requirement.ts';
import type { Design, Part } from '../document/schema.ts';
import { Id } from '../ids/ids.ts';
import { Name } from '../ids/name.ts';
import { Ledger } from '../ledger/ledger.ts';
import { Kept } from '../slots/kept/kept.ts';
import { kindOf } from '../steps/register.ts';
import { Step } from '../steps/schema.ts';
import { freeName } from './free-name.ts';
import { copyOfStep, numbersOf, setNumber, stepsUsedBy } from '../steps/slots-of.ts';

const at = { part: Id, step: Id };

function partOf(draft: Design, part: string): Part {
  return draft.parts[part] ?? refuse('This part no longer exists.');
}

function stepOf(draft: Design, part: string, step: string): Step {
  return partOf(draft, part).steps[step] ?? refuse('This step no longer exists.');
}

function refuse(message: string): never {
  throw new EditRefused(message);
}

/** Names typed in the step's numbers become references. */
function bindNumbers(draft: Design, part: string, id: string): void {
  const ledger = Ledger.of(plain(draft));
  const step = partOf(draft, part).steps[id]!;
  for (const { key, expression, kind } of numbersOf(step)) {
    try {
      setNumber(step, key, ledger.bind(expression, { part, step: id }, kind));
    } catch (error) {
      if (error instanceof ExpressionError) refuse(error.message);
      throw error;
    }
  }
}

const addStepCommand = declareCommand({
  name: 'add-step',
  args: z.strictObject({ part: Id, id: Id, step: Step, after: Id.nullable().optional() }),
  label: ({ step }) => `Add ${step.name}`,
  bound: (args, after) => ({ ...args, step: after.parts[args.part]?.steps[args.id] ?? args.step }),
  run(draft, { part, id, step, after }) {
    const home = partOf(draft, part);
    if (Object.values(draft.parts).some((p) => p.steps[id])) refuse('A step of this id is there already.');
    // Its own copy: what was given may be held by others.
    home.steps[id] = { ...structuredClone(step), name: freeName(step.name, Object.values(home.steps)) };
    home.stepOrder.splice(placeAfter(home, after), 0, id);
    bindNumbers(draft, part, id);
  },
});

/** Where in the order what comes after this step stands: first for null, last where none is told or it is gone. */
function placeAfter({ stepOrder }: Part, after: string | null | undefined): number {
  if (after === null) return 0;
  const at = after === undefined ? -1 : stepOrder.indexOf(after);
  return at < 0 ? stepOrder.length : at + 1;
}

/** Add a step, at the end or after another, null for none. Names typed in its numbers become references. */
export const addStep = (part: string, id: string, step: Step, after?: string | null): Edit =>
  addStepCommand({ part, id, step, ...(after === undefined ? {} : { after }) });

const setSlotCommand = declareCommand({
  name: 'set-slot',
  args: z.strictObject({ ...at, slot: z.string().max(40), value: z.unknown() }),
  label: () => 'Change a step',
  run(draft, { part, step: id, slot: name, value }) {
    const step = stepOf(draft, part, id);
    const slot = kindOf(step).slots[name];
    if (!slot) refuse(`This step has no ${name} any more.`);
    const fields = z.object(slot.of.fields(name)).safeParse({ [name]: value });
    if (!fields.success) refuse(`This cannot be the ${name} of ${step.name}.`);
    slot.of.write(step, name, value);
  },
});

/** Fill one slot of a step anew. */
export const setSlot = (part: string, step: string, slot: string, value: unknown): Edit =>
  setSlotCommand({ part, step, slot, value });

const cutBorrowLooseCommand = declareCommand({
  name: 'cut-borrow-loose',
  args: z.strictObject({ ...at, kept: Kept }),
  label: ({ kept }) => `Cut ${kept.name} loose`,
  run(draft, { part, step: id, kept }) {
    const step = stepOf(draft, part, id);
    if (step.kind !== 'borrow' || step.from === undefined) refuse(`${step.name} is cut loose already.`);
    delete step.from;
    step.kept = structuredClone(kept);
  },
});

/** What a step borrows of another part is kept as it is, and follows that no longer. */
export const cutBorrowLoose = (part: string, step: string, kept: Kept): Edit =>
  cutBorrowLooseCommand({ part, step, kept });

const renameStepCommand = declareCommand({
  name: 'rename-step',
  args: z.strictObject({ ...at, name: z.string().max(500) }),
  label: ({ name }) => `Rename a step to ${name}`,
  run(draft, { part, step, name }) {
    if (!name.trim()) refuse('A step needs a name.');
    stepOf(draft, part, step).name = Name.parse(name.trim().slice(0, 80));
  },
});

export const renameStep = (part: string, step: string, name: string): Edit => renameStepCommand({ part, step, name });

const suppressStepCommand = declareCommand({
  name: 'suppress-step',
  args: z.strictObject({ ...at, suppressed: z.boolean() }),
  label: ({ suppressed }) => (suppressed ? 'Suppress a step' : 'Bring a step back'),
  run(draft, { part, step: id, suppressed }) {
    const step = stepOf(draft, part, id);
    if (suppressed) step.suppressed = true;
    else delete step.suppressed;
  },
});

export const suppressStep = (part: string, step: string, suppressed: boolean): Edit =>
  suppressStepCommand({ part, step, suppressed });

/** Names of the steps that would lose something they use if this one went. */
export function usersOfStep(part: Part, id: string): string[] {
  return Object.entries(part.steps).flatMap(([other, step]) =>
    other !== id && stepsUsedBy(step).includes(id) ? [step.name] : [],
  );
}

const deleteStepCommand = declareCommand({
  name: 'delete-step',
  args: z.strictObject(at),
  label: () => 'Delete a step',
  run(draft, { part, step: id }) {
    const home = partOf(draft, part);
    const step = stepOf(draft, part, id);
    const ledger = Ledger.of(plain(draft));
    // What is measured on the part reads on without the step.
    const user = ledger.entries.find(
      (e) =>
        !e.measured && !e.ref.startsWith(`${id}.`) && ledger.dependenciesOf(e).some((ref) => ref.startsWith(`${id}.`)),
    );
    if (user) refuse(`${step.name} holds a number that ${user.path.join('.')} uses; change that first.`);
    const required = requirementNaming(draft.requirements, (ref) => ref.startsWith(`${id}.`));
    if (required) refuse(`${step.name} holds a number in the requirement “${ledger.shownAt(required, {})}”; change that first.`); // prettier-ignore
    delete home.steps[id];
    home.stepOrder.splice(home.stepOrder.indexOf(id), 1);
  },
});

/** Delete a step. Steps that used it stay and say what they miss. Refused while other numbers use its numbers. */
export const deleteStep = (part: string, step: string): Edit => deleteStepCommand({ part, step });

/** @param before the order that was; what was amiss in it may stay so. @throws EditRefused */
function refuseOutOfOrder({ steps, stepOrder }: Part, moved: string, before: readonly string[]): void {
  const refuseIf = (upper: string, lower: string) => {
    if (stepOrder.indexOf(upper) < stepOrder.indexOf(lower) && before.indexOf(lower) < before.indexOf(upper))
      refuse(`${steps[upper]!.name} rests on ${steps[lower]!.name}, so it cannot stand before it.`);
  };
  for (const used of stepsUsedBy(plain(steps[moved]!))) if (steps[used]) refuseIf(moved, used);
  for (const id of stepOrder) if (id !== moved && stepsUsedBy(plain(steps[id]!)).includes(moved)) refuseIf(id, moved);
}

const moveStepCommand = declareCommand({
  name: 'move-step',
  args: z.strictObject({ ...at, after: Id.nullable() }),
  label: () => 'Move a step',
  run(draft, { part, step, after }) {
    const home = partOf(draft, part);
    const from = home.stepOrder.indexOf(step);
    // Where it, or what it was to follow, was deleted meanwhile, there is nothing to move.
    if (from < 0 || after === step || (after !== null && !home.stepOrder.includes(after))) return;
    const before = [...home.stepOrder];
    home.stepOrder.splice(from, 1);
    home.stepOrder.splice(placeAfter(home, after), 0, step);
    refuseOutOfOrder(home, step, before);
  },
});

/**
 * Refused where it would come before what it rests on, or after what rests on it.
 * @param after the step it follows from now on; null to be the first
 */
export const moveStep = (part: string, step: string, after: string | null): Edit =>
  moveStepCommand({ part, step, after });

const copyStepCommand = declareCommand({
  name: 'copy-step',
  args: z.strictObject({ ...at, copy: Id, name: Name }),
  label: ({ name }) => `Copy as ${name}`,
  reads: ({ part, step }) => [['parts', part, 'steps', step]],
  run(draft, { part, step: id, copy, name }) {
    const home = partOf(draft, part);
    stepOf(draft, part, id);
    if (Object.values(draft.parts).some((p) => p.steps[copy])) refuse('A step of this id is there already.');
    const fresh = copyOfStep(plain(draft).parts[part]!.steps[id]!, id, copy);
    fresh.name = freeName(name, Object.values(home.steps));
    home.steps[copy] = fresh;
    home.stepOrder.splice(home.stepOrder.indexOf(id) + 1, 0, copy);
  },
});

/** A step made again after itself; where it speaks of itself, the copy does. */
export const copyStep = (part: string, step: string, copy: string, name: string): Edit =>
  copyStepCommand({ part, step, copy, name });

const acceptCommand = declareCommand({
  name: 'accept-reference',
  args: z.strictObject({ ...at, loan: Id, source: z.unknown() }),
  label: () => 'Take what was found',
  run(draft, { part, step: id, loan, source }) {
    const borrowed = (stepOf(draft, part, id) as { borrowed?: Record<string, { source: unknown }> }).borrowed?.[loan];
    if (!borrowed) refuse('What was borrowed is no longer there.');
    borrowed.source = source;
  },
});

/** Let a borrowed thing follow this source from now on. */
export const acceptLoan = (part: string, step: string, loan: string, source: unknown): Edit =>
  acceptCommand({ part, step, loan, source });
