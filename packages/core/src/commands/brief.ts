/** Edits of what a part was given to be. */
import { z } from 'zod';
import { Brief, emptyBrief, GivenDrawing, GivenNumber, MAX_DRAWINGS, MAX_GIVEN, Underlay } from '../document/brief.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import type { Design } from '../document/schema.ts';
import { Id } from '../ids/ids.ts';

function briefOf(draft: Design, part: string): Brief {
  const own = draft.parts[part];
  if (!own) throw new EditRefused('This part no longer exists.');
  return (own.brief ??= emptyBrief());
}

const putNumbersCommand = declareCommand({
  name: 'put-given-numbers',
  args: z.strictObject({ part: Id, numbers: z.array(z.tuple([Id, GivenNumber])).min(1).max(MAX_GIVEN) }), // prettier-ignore
  label: ({ numbers }) => (numbers.length === 1 ? 'Set a given number' : `Set ${numbers.length} given numbers`),
  run(draft, { part, numbers }) {
    const own = briefOf(draft, part);
    for (const [id, number] of numbers) {
      if (!own.numbers[id]) {
        if (own.numberOrder.length >= MAX_GIVEN) throw new EditRefused(`A brief holds at most ${MAX_GIVEN} numbers.`);
        own.numberOrder.push(id);
      }
      own.numbers[id] = structuredClone(number);
    }
  },
});
/** New ones, or others in place of those of the same ids. */
export const putGivenNumbers = (part: string, numbers: readonly (readonly [string, GivenNumber])[]): Edit =>
  putNumbersCommand({ part, numbers: numbers.map(([id, number]): [string, GivenNumber] => [id, number]) });

const removeNumbersCommand = declareCommand({
  name: 'remove-given-numbers',
  args: z.strictObject({ part: Id, ids: z.array(Id).min(1).max(MAX_GIVEN) }),
  label: ({ ids }) => (ids.length === 1 ? 'Take a number off the brief' : `Take ${ids.length} numbers off the brief`),
  run(draft, { part, ids }) {
    const own = briefOf(draft, part);
    for (const id of ids) {
      if (!own.numbers[id]) throw new EditRefused('This number is no longer in the brief.');
      delete own.numbers[id];
    }
    own.numberOrder = own.numberOrder.filter((id) => own.numbers[id]);
  },
});
export const removeGivenNumbers = (part: string, ids: readonly string[]): Edit => removeNumbersCommand({ part, ids: [...ids] }); // prettier-ignore

const addDrawingCommand = declareCommand({
  name: 'add-given-drawing',
  args: z.strictObject({ part: Id, id: Id, drawing: GivenDrawing }),
  label: ({ drawing }) => `Add the drawing ${drawing.name}`,
  run(draft, { part, id, drawing }) {
    const own = briefOf(draft, part);
    if (own.drawings[id]) throw new EditRefused('A drawing of this id is there already.');
    if (own.drawingOrder.length >= MAX_DRAWINGS) throw new EditRefused(`A part keeps at most ${MAX_DRAWINGS} drawings; take one off first.`); // prettier-ignore
    own.drawings[id] = structuredClone(drawing);
    own.drawingOrder.push(id);
  },
});
export const addGivenDrawing = (part: string, id: string, drawing: GivenDrawing): Edit =>
  addDrawingCommand({ part, id, drawing });

const removeDrawingCommand = declareCommand({
  name: 'remove-given-drawing',
  args: z.strictObject({ part: Id, id: Id }),
  label: () => 'Take a drawing off the brief',
  run(draft, { part, id }) {
    const own = briefOf(draft, part);
    if (!own.drawings[id]) throw new EditRefused('This drawing is no longer in the brief.');
    delete own.drawings[id];
    own.drawingOrder = own.drawingOrder.filter((other) => other !== id);
    for (const [sketch, { drawing }] of Object.entries(own.underlays)) if (drawing === id) delete own.underlays[sketch];
  },
});
export const removeGivenDrawing = (part: string, id: string): Edit => removeDrawingCommand({ part, id });

const layUnderCommand = declareCommand({
  name: 'lay-drawing-under',
  args: z.strictObject({ part: Id, sketch: Id, underlay: Underlay.nullable() }),
  label: ({ underlay }) => (underlay ? 'Lay a drawing under a sketch' : 'Take the drawing from under a sketch'),
  run(draft, { part, sketch, underlay }) {
    const own = briefOf(draft, part);
    if (!underlay) delete own.underlays[sketch];
    else if (!own.drawings[underlay.drawing]) throw new EditRefused('This drawing is no longer in the brief.');
    else if (!draft.parts[part]!.steps[sketch]) throw new EditRefused('This sketch no longer exists.');
    else own.underlays[sketch] = structuredClone(underlay);
  },
});
export const layDrawingUnder = (part: string, sketch: string, underlay: Underlay | null): Edit =>
  layUnderCommand({ part, sketch, underlay });
