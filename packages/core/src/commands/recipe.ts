/** Edits of a recipe as a whole: groups of steps, steps taken to another part, one sketch in place of another. */
import { z } from 'zod';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { plain } from '../document/plain.ts';
import { emptyPart, type Design, type Part } from '../document/schema.ts';
import { BodyRef } from '../references/references.ts';
import { Id } from '../ids/ids.ts';
import { MAX_STEPS } from '../ids/limits.ts';
import { Name } from '../ids/name.ts';
import { asSketch, type Step } from '../steps/schema.ts';
import { stepsUsedBy, withStepsIn } from '../steps/slots-of.ts';

function refuse(message: string): never {
  throw new EditRefused(message);
}

const partOf = (draft: Design, part: string): Part => draft.parts[part] ?? refuse('This part no longer exists.');
const stepOf = (part: Part, id: string): Step => part.steps[id] ?? refuse('This step no longer exists.');

const groupStepsCommand = declareCommand({
  name: 'group-steps',
  args: z.strictObject({ part: Id, steps: z.array(Id).min(1).max(MAX_STEPS), group: Name.nullable() }),
  label: ({ group }) => (group === null ? 'Take steps out of their group' : `Group steps as ${group}`),
  run(draft, { part, steps, group }) {
    const home = partOf(draft, part);
    for (const id of steps) {
      const step = stepOf(home, id);
      if (group === null) delete step.group;
      else step.group = group;
    }
  },
});

/** Show steps that follow one another under one name; null takes them out of their group. */
export const groupSteps = (part: string, steps: readonly string[], group: string | null): Edit =>
  groupStepsCommand({ part, steps: [...steps], group });

/** A step and all it rests on, in the recipe’s order. */
export function stepWithRests(part: Part, id: string): string[] {
  const wanted = new Set<string>();
  const add = (step: string) => {
    if (wanted.has(step) || !part.steps[step]) return;
    wanted.add(step);
    stepsUsedBy(part.steps[step]).forEach(add);
  };
  add(id);
  return part.stepOrder.filter((step) => wanted.has(step));
}

const copyStepsCommand = declareCommand({
  name: 'copy-steps',
  args: z.strictObject({
    part: Id,
    to: Id,
    copies: z
      .array(z.tuple([Id, Id]))
      .min(1)
      .max(MAX_STEPS),
  }),
  label: ({ copies }) => (copies.length === 1 ? 'Copy a step to another part' : `Copy ${copies.length} steps to another part`), // prettier-ignore
  reads: ({ part, copies }) => copies.map(([id]) => ['parts', part, 'steps', id]),
  run(draft, { part, to, copies }) {
    copyInto(draft, part, to, copies);
  },
});

function copyInto(draft: Design, part: string, to: string, copies: readonly (readonly [string, string])[]): void {
  const [from, home] = [partOf(draft, part), partOf(draft, to)];
  const originals = plain(from).steps;
  const ids = new Map(copies);
  for (const [original, copy] of copies) {
    stepOf(from, original);
    addAtEnd(draft, home, copy, withStepsIn(originals[original]!, ids));
  }
}

function addAtEnd(draft: Design, home: Part, id: string, step: Step): void {
  if (Object.values(draft.parts).some((p) => p.steps[id])) refuse('A step of this id is there already.');
  home.steps[id] = step;
  home.stepOrder.push(id);
}

/**
 * Steps made again at the end of another part. Where they speak of each other the copies do; numbers of the design and
 * of the part they came from stay linked.
 * @param copies ids of the steps and of their copies, in the recipe’s order
 */
export const copySteps = (part: string, to: string, copies: readonly (readonly [string, string])[]): Edit =>
  copyStepsCommand({ part, to, copies: copies.map(([a, b]) => [a, b]) });

const bodyToPartCommand = declareCommand({
  name: 'body-to-part',
  args: z.strictObject({
    part: Id,
    body: BodyRef,
    others: z.array(BodyRef).min(1).max(MAX_STEPS),
    to: Id,
    name: Name,
    copies: z.array(z.tuple([Id, Id])).max(MAX_STEPS),
    removes: z.tuple([Id, Id]),
  }),
  label: ({ name }) => `Make ${name} of a body`,
  reads: ({ part }) => [['parts', part]],
  run(draft, { part, body, others, to, name, copies, removes: [here, there] }) {
    const home = partOf(draft, part);
    if (draft.parts[to]) refuse('A part of this id is there already.');
    if (copies.length !== home.stepOrder.length || copies.some(([id], i) => id !== home.stepOrder[i]))
      refuse(`${home.name} was changed meanwhile; try again.`);
    draft.parts[to] = { ...emptyPart(name), ...(home.material ? { material: home.material } : {}) };
    draft.partOrder.splice(draft.partOrder.indexOf(part) + 1, 0, to);
    copyInto(draft, part, to, copies);
    const without = (step: string, bodies: readonly BodyRef[]): Step => ({ kind: 'remove', name: step, bodies });
    const ids = new Map(copies);
    addAtEnd(draft, draft.parts[to]!, there, withStepsIn(without('Bodies left behind', others), ids));
    addAtEnd(draft, home, here, without('Body made a part', [body]));
  },
});

/**
 * A body goes to a part of its own, made by the same steps there; here it is removed by a step at the end. Numbers of
 * the design and of the part it came from stay linked.
 * @param others all bodies there are beside it
 * @param copies ids of all steps of the part, in order, and of their copies
 * @param removes ids of the step that removes the body here, and of the one that removes the others there
 */
export const bodyToPart = (args: {
  readonly part: string;
  readonly body: BodyRef;
  readonly others: readonly BodyRef[];
  readonly to: string;
  readonly name: string;
  readonly copies: readonly (readonly [string, string])[];
  readonly removes: readonly [string, string];
}): Edit =>
  bodyToPartCommand({ ...args, others: [...args.others], copies: args.copies.map(([a, b]) => [a, b]), removes: [...args.removes] }); // prettier-ignore

const replaceSketchCommand = declareCommand({
  name: 'replace-sketch',
  args: z.strictObject({ part: Id, sketch: Id, by: Id }),
  label: () => 'Use another sketch',
  run(draft, { part, sketch, by }) {
    const home = partOf(draft, part);
    const [old, fresh] = [stepOf(home, sketch), stepOf(home, by)];
    if (sketch === by || !asSketch(old) || !asSketch(fresh)) refuse('Only a sketch can take the place of another.');
    const { steps } = plain(home);
    const users = home.stepOrder.filter((id) => id !== by && stepsUsedBy(steps[id]!).includes(sketch));
    if (users.length === 0) refuse(`No step uses ${old.name}.`);
    const rests = new Set(stepWithRests(plain(home), by));
    const circle = users.find((id) => rests.has(id));
    if (circle) refuse(`${fresh.name} rests on ${steps[circle]!.name}, which uses ${old.name}.`);
    const early = users.find((id) => home.stepOrder.indexOf(id) < home.stepOrder.indexOf(by));
    if (early) refuse(`${steps[early]!.name} stands before ${fresh.name}; move that up first.`);
    const to = new Map([[sketch, by]]);
    for (const id of users) home.steps[id] = withStepsIn(steps[id]!, to);
  },
});

/** Let all steps that use a sketch use another. What they took of it and is not found there, they say. */
export const replaceSketch = (part: string, sketch: string, by: string): Edit =>
  replaceSketchCommand({ part, sketch, by });
