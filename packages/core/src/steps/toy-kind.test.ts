/** One more kind of step, declared here alone, is at work everywhere: nothing else had to know of it. */
import { describe, expect, test } from '@jest/globals';
import { z } from 'zod';
import {
  addDimension, addPart, addStep, applyEdit, copyStep, declareStep, deleteStep, editOf, emptyDesign, Ledger, numbersOf,
  PartEvaluator, readDesign, readingOf, registerStep, renameStep, sentenceOf, setDimension, setSlot, slotsOf, stepKinds, usersOfStep, writeDesign,
  type Design, type Step, type StepKind,
} from '../index.ts'; // prettier-ignore
import { edited } from '../commands/edited.ts';
import { nameOf } from '../names/name.ts';
import { choice } from '../slots/choice/choice.ts';
import { count } from '../slots/count/count.ts';
import { expression } from '../slots/expression/expression.ts';
import { faces } from '../slots/faces/faces.ts';
import { steps as stepsSlot } from '../slots/steps/steps.ts';
import { text } from '../slots/text/text.ts';
import type { SolidHandle, SolidKernel } from '../solid/kernel.ts';

let made = 0;
registerStep(
  declareStep({
    kind: 'toy', version: 1, label: 'Toy', key: 'q', says: 'A toy.',
    slots: {
      size: { of: expression('length') },
      often: { of: count(9) },
      look: { of: choice({ plain: 'plainly', loud: 'loudly' }) },
      mark: { of: text(), when: (s: Step) => s.look === 'loud', otherwise: () => 'TOY' },
      on: { of: faces('A face of the toy'), when: (s: Step) => s.on !== undefined },
      after: { of: stepsSlot(), when: (s: Step) => s.after !== undefined },
    },
    first: 'size',
    begin: ({ picks }) => (picks[0]?.kind === 'face' ? { size: '4 mm', often: '2', look: 'plain', on: [picks[0].ref] } : null),
    sentence: () => ['Toy', { slot: 'size' }, 'times', { slot: 'often' }, { slot: 'look' }, { slot: 'mark' }],
    make({ size, often }, context) {
      made++;
      const solid = context.kernel.extrude(null as never, [], 0, size * often).solid;
      return { made: [{ body: context.body(nameOf(context.stepId, 'body'), solid, [[nameOf(context.stepId, 'all')]]), from: null }], used: [] };
    },
  }) as unknown as StepKind,
); // prettier-ignore

/** A kernel of numbers: a solid is its size. */
const sizes: number[] = [];
const kernel = {
  extrude: (_frame: unknown, _loops: unknown, _from: number, to: number) => ({ solid: (sizes.push(to) - 1) as SolidHandle, faces: [[]] }),
  bulk: (s: SolidHandle) => ({ volume: sizes[s]!, center: [0, 0, 0] }),
  measure: (s: SolidHandle) => ({ volume: sizes[s]!, area: 1, center: [0, 0, 0], box: { min: [0, 0, 0], max: [1, 1, 1] } }),
  isValid: () => true,
  faces: () => [{ kind: 'plane', area: 1, center: [0, 0, 0], normal: [0, 0, 1], radius: null, axis: null }],
  edges: () => [],
  free: () => {},
  sizeOf: () => 1,
} as unknown as SolidKernel; // prettier-ignore

const toy: Step = { kind: 'toy', name: 'Toy 1', size: 'wide / 2', often: '3', look: 'plain' };
const base = () =>
  edited(emptyDesign('Toys'), addDimension('w', { name: 'wide', value: '10 mm' }), addPart('p', 'Part'), addStep('p', 't', toy)); // prettier-ignore
const evaluator = new PartEvaluator(kernel);
const evaluate = (d: Design) => evaluator.evaluate(d, Ledger.of(d), 'p');

describe('a kind of step declared in one file', () => {
  test('is in the file, the ledger and the sentence', () => {
    const design = base();
    const read = readDesign(writeDesign(design));
    expect(read.ok && read.design).toEqual(design);
    expect(readDesign(writeDesign({ ...design, parts: { p: { ...design.parts.p!, steps: { t: { ...toy, look: 'odd' } } } } })).ok).toBe(false); // prettier-ignore
    const ledger = Ledger.of(design);
    expect(numbersOf(design.parts.p!.steps.t!).map((n) => n.key)).toEqual(['size', 'often']);
    expect([ledger.number('t.size'), ledger.number('t.often')]).toEqual([5, 3]);
    expect(design.parts.p!.steps.t!.size).toBe('$w / 2');
    const words = sentenceOf(design.parts.p!.steps.t!, readingOf(design, 'p', 't', ledger));
    expect(words.map((p) => ('text' in p ? p.text : p.label)).join(' ')).toBe('Toy wide / 2 times 3 plainly');
    const loud = edited(design, setSlot('p', 't', 'look', 'loud')).parts.p!;
    expect(sentenceOf(loud.steps.t!, readingOf({ ...design, parts: { p: loud } }, 'p', 't', ledger)).at(-1)).toMatchObject({ kind: 'text', label: '“TOY”' }); // prettier-ignore
  });

  test('begins from what it says it begins from, and from nothing else', () => {
    const kind = stepKinds().find((k) => k.kind === 'toy')!;
    const ref = { name: 't:all' };
    const from = { bodies: 1, units: emptyDesign('x').units, unused: [], sketch: () => null };
    const begun = kind.begin({ ...from, picks: [{ kind: 'face', ref, flat: true, round: false, cone: false }] });
    expect(begun).toMatchObject({ on: [ref] });
    expect(kind.begin({ ...from, picks: [{ kind: 'datum', datum: 'floor' }] })).toBeNull();
    const design = edited(base(), addStep('p', 'u', { ...begun, kind: 'toy', name: 'Toy 2' } as Step));
    const on = slotsOf(design.parts.p!.steps.u!).find((s) => s.name === 'on')!;
    expect(on.slot.of.take(on.stored, { kind: 'face', ref: { name: 't:other' }, flat: true, round: false, cone: false })).toHaveLength(2); // prettier-ignore
    expect(on.slot.of.take(on.stored, { kind: 'datum', datum: 'floor' })).toBeNull();
  });

  test('is copied, deleted and known by those that use it', () => {
    const design = edited(
      base(),
      addStep('p', 'u', { ...toy, name: 'Toy 2', size: 'toy_1.size', on: [{ name: 't:all' }], after: ['t'] } as Step),
    );
    expect(usersOfStep(design.parts.p!, 't')).toEqual(['Toy 2']);
    const held = applyEdit(design, deleteStep('p', 't'));
    expect(held.ok ? '' : held.message).toMatch(/^Toy 1 holds a number that part\.toy_2\.size uses/);
    const own = edited(design, addStep('p', 'v', { ...toy, name: 'Toy 3', often: 'size / (1 mm)' } as Step), copyStep('p', 'v', 'v2', 'Toy 4')); // prettier-ignore
    expect(own.parts.p!.steps.v2).toMatchObject({ often: '$v2.size / (1 mm)', name: 'Toy 4' });
    expect(edited(own, deleteStep('p', 'v')).parts.p!.stepOrder).toEqual(['t', 'u', 'v2']);
  });

  test('is made once for the same slots; a new name makes nothing, a new number does', async () => {
    const design = base();
    made = 0;
    const first = await evaluate(design);
    expect(first.bodies.map((b) => [b.name.text, b.facts.volume])).toEqual([['t:body', 15]]);
    await evaluate(edited(design, renameStep('p', 't', 'Renamed')));
    await evaluate(edited(design, setDimension('w', '20 / 2 mm')));
    expect(made).toBe(1);
    expect((await evaluate(edited(design, setDimension('w', '20')))).bodies[0]!.facts.volume).toBe(30);
    await evaluate(edited(design, setSlot('p', 't', 'look', 'loud')));
    expect(made).toBe(3);
    await evaluate(design);
    expect(made).toBe(3);
  });

  test('says what is wrong with its slots in a sentence', async () => {
    const wrong = async (often: string) => (await evaluate(edited(base(), setDimension('t.often', often)))).steps[0]!;
    expect(await wrong('2.5')).toMatchObject({ status: 'failed', message: 'often comes to 2.5, which is no whole number.' }); // prettier-ignore
    expect((await wrong('0')).message).toBe('often comes to 0; it must be from 1 to 9.');
    expect((await wrong('1e9')).message).toMatch(/must be from 1 to 9/);
    const lost = edited(base(), addStep('p', 'u', { ...toy, name: 'Toy 2', on: [{ name: 'x:gone' }] } as Step));
    const outcome = (await evaluate(lost)).steps[1]!;
    expect(outcome.message).toBe('A face of the toy is no longer found: nothing that made it is there any more; pick it again.'); // prettier-ignore
    expect(outcome.doubts).toMatchObject([{ slot: 'on', how: 'lost', proposed: [{ name: 't:all' }] }]);
  });

  test('its edits are commands that can be stored and run again', () => {
    const edits = [addStep('p', 'u', { ...toy, name: 'Toy 2' }), setSlot('p', 'u', 'look', 'loud'), renameStep('p', 'u', 'Loud')]; // prettier-ignore
    const stored = JSON.parse(JSON.stringify(edits.map(({ command, args }) => [command, args]))) as [string, unknown][];
    const again = edited(base(), ...stored.map(([name, args]) => editOf(name, args)));
    expect(again).toEqual(edited(base(), ...edits));
    expect(() => editOf('set-slot', { part: 7 })).toThrow('The arguments of “set-slot” cannot be read.');
    expect(() => editOf('no-such', {})).toThrow('There is no command called “no-such”.');
    expect(z.json().safeParse(stored).success).toBe(true);
  });
});
