/** Steps are made when, and only when, what they are made of has changed: with a step and a kernel of the test's own. */
import { beforeEach, describe, expect, test } from '@jest/globals';
import {
  addDimension, addPart, addStep, declareStep, deleteStep, emptyDesign, Ledger, moveStep, PartEvaluator, registerStep, renameStep, setDimension, setSlot, suppressStep, Superseded,
  type Design, type Step, type StepKind,
} from '../index.ts'; // prettier-ignore
import { edited } from '../commands/edited.ts';
import { StepFailure } from '../names/body.ts';
import { nameOf } from '../names/name.ts';
import { expression } from '../slots/expression/expression.ts';
import { flag } from '../slots/flag/flag.ts';
import { steps as stepsSlot } from '../slots/steps/steps.ts';
import type { Resolving } from '../slots/resolving.ts';
import { text } from '../slots/text/text.ts';
import { KernelDown, KernelError, type SolidHandle, type SolidKernel } from '../solid/kernel.ts';
import { SketchFailure, type Making, type StepResult } from '../steps/step.ts';

interface Inputs {
  readonly size: number;
  readonly beside?: string;
}
/** What the step of the test does beyond making a body of its size. */
let also: (inputs: Inputs, context: Making) => Partial<StepResult> | undefined;
const made: string[] = [];

registerStep(
  declareStep({
    kind: 'peg', version: 1, label: 'Peg', key: 'q', says: 'A peg.',
    slots: {
      size: { of: expression('length') },
      tall: { of: flag('low', 'tall') },
      beside: { of: { ...text(), resolve: (stored: string, _: string, context: Resolving) => ({ value: context.stepName(stored), digest: stored }) }, when: (s: Step) => s.beside !== undefined },
      after: { of: stepsSlot(), when: (s: Step) => s.after !== undefined },
    },
    first: 'size',
    begin: () => null,
    sentence: () => ['Peg', { slot: 'size' }],
    make(inputs, context) {
      made.push(context.stepId);
      const more = also(inputs as Inputs, context);
      const { solid } = context.kernel.extrude(null as never, [], 0, inputs.size);
      const body = context.body(nameOf(context.stepId, 'body'), solid, [[nameOf(context.stepId, 'all')]]);
      return { made: [{ body, from: null }], used: [], ...more };
    },
  }) as unknown as StepKind,
); // prettier-ignore

/** A kernel of numbers: a solid is its size. */
function numbers() {
  const sizes: number[] = [];
  const freed: number[] = [];
  const kernel = {
    isDown: false,
    restart: async () => void ((kernel.isDown = false), kernel.restarts++),
    restarts: 0,
    extrude: (_frame: unknown, _loops: unknown, _from: number, to: number) => ({ solid: (sizes.push(to) - 1) as SolidHandle, faces: [[]] }),
    bulk: (s: SolidHandle) => ({ volume: sizes[s]!, center: [0, 0, 0] }),
    isValid: (s: SolidHandle) => sizes[s] !== 13,
    faces: () => [{ kind: 'plane', area: 1, center: [0, 0, 0], normal: [0, 0, 1], radius: null, axis: null }],
    edges: () => [],
    free: (s: SolidHandle) => void freed.push(s),
    sizeOf: () => 1000,
  }; // prettier-ignore
  return { kernel, freed, asKernel: kernel as unknown as SolidKernel };
}

const peg = (name: string, size: string, more: object = {}): Step => ({ kind: 'peg', name, size, ...more }) as Step;
const base = () =>
  edited(emptyDesign('Pegs'), addDimension('w', { name: 'wide', value: '10 mm' }), addPart('p', 'Part'), addStep('p', 'a', peg('A', 'wide')), addStep('p', 'b', peg('B', '7 mm')), addStep('p', 'c', peg('C', '5 mm', { after: ['a'] }))); // prettier-ignore

let it = numbers();
let evaluator = new PartEvaluator(it.asKernel);
const evaluate = (d: Design, hooks = {}) => evaluator.evaluate(d, Ledger.of(d), 'p', hooks);
/** The steps that are made by evaluating this. */
async function madeBy(d: Design): Promise<string[]> {
  made.length = 0;
  await evaluate(d);
  return [...made];
}
beforeEach(() => {
  also = () => undefined;
  made.length = 0;
  it = numbers();
  evaluator = new PartEvaluator(it.asKernel);
});

describe('a recipe', () => {
  test('is made once, and only what an edit touches again', async () => {
    const d = base();
    expect(await madeBy(d)).toEqual(['a', 'b', 'c']);
    expect(evaluator.made).toBe(3);
    expect(await madeBy(d)).toEqual([]);
    expect(await madeBy(edited(d, renameStep('p', 'a', 'Other')))).toEqual([]);
    expect(await madeBy(edited(d, setDimension('w', '20 / 2 mm')))).toEqual([]);
    // c comes after a.
    expect(await madeBy(edited(d, setDimension('w', '11 mm')))).toEqual(['a', 'c']);
    expect(await madeBy(edited(d, setSlot('p', 'b', 'tall', true)))).toEqual(['b']);
    expect(await madeBy(edited(d, suppressStep('p', 'b', true)))).toEqual([]);
    expect(await madeBy(edited(d, moveStep('p', 'b', 0)))).toEqual([]);
    expect(await madeBy(d)).toEqual([]);
  });

  test('never takes one step’s result for another’s, though they are alike', async () => {
    const d = edited(base(), addStep('p', 'e', peg('E', '7 mm')));
    const { bodies, steps } = await evaluate(d);
    expect(bodies.map((b) => [b.name.text, b.facts.volume])).toEqual([['a:body', 10], ['b:body', 7], ['c:body', 5], ['e:body', 7]]); // prettier-ignore
    expect(new Set(bodies.map((b) => b.key)).size).toBe(4);
    expect(new Set(steps.map((s) => s.key)).size).toBe(4);
    expect(steps.map((s) => s.status)).toEqual(['ok', 'ok', 'ok', 'ok']);
  });

  test('tells how far it is, of what is made alone, and can be called off between steps', async () => {
    const d = base();
    const told: unknown[] = [];
    const progress = (...all: unknown[]) => void told.push(all);
    await evaluate(d, { progress });
    expect(told).toEqual([[0, 3, 'A'], [1, 3, 'B'], [2, 3, 'C']]); // prettier-ignore
    await evaluate(edited(d, setSlot('p', 'b', 'tall', true)), { progress });
    expect(told.slice(3)).toEqual([[1, 3, 'B']]);
    let left = 2;
    const breathe = async () => {
      if (left-- === 0) throw new Superseded();
    };
    made.length = 0;
    await expect(evaluate(edited(d, setDimension('w', '12 mm')), { breathe })).rejects.toThrow(Superseded);
    expect(made).toEqual(['a']);
    await expect(evaluator.evaluate(d, Ledger.of(d), 'none')).rejects.toThrow('no part none');
  });

  test('keeps within the budget, and what was freed is made again', async () => {
    evaluator = new PartEvaluator(it.asKernel, 21_000);
    await evaluate(base());
    expect(it.freed).toEqual([]);
    evaluator.sweep();
    expect(it.freed.sort()).toEqual([0, 1]);
    expect(await madeBy(base())).toEqual(['a', 'b']);
  });
});

describe('a step', () => {
  test('that fails says why, leaves the rest standing, and is not tried again as it is', async () => {
    let tries = 0;
    also = ({ size }, context) => {
      if (size !== 7) return undefined;
      tries++;
      const { solid } = context.kernel.extrude(null as never, [], 0, 99);
      context.body(nameOf('b', 'half'), solid, []);
      throw new StepFailure('Too small.', { slot: 'tall', stored: true, says: 'Make it tall' });
    };
    const { steps, bodies } = await evaluate(base());
    expect(steps.map((s) => s.status)).toEqual(['ok', 'failed', 'ok']);
    expect(steps[1]).toMatchObject({ message: 'Too small.', cure: { slot: 'tall' }, key: null, sketch: null, datum: null, tells: null }); // prettier-ignore
    expect(bodies.map((b) => b.name.step)).toEqual(['a', 'c']);
    // What it had made by then is freed.
    expect(it.freed).toEqual([1]);
    expect((await evaluate(base())).steps[1]).toMatchObject({ status: 'failed', message: 'Too small.', cure: { slot: 'tall' } }); // prettier-ignore
    expect(tries).toBe(1);
    expect(it.freed).toEqual([1]);
  });

  test('that failed is tried again when a step it speaks of is called otherwise, even if a slot told it the name', async () => {
    also = ({ beside }) => {
      if (beside) throw new StepFailure(`${beside} is too near.`);
      return undefined;
    };
    const d = edited(base(), addStep('p', 'e', peg('E', '4 mm', { beside: 'a' })));
    expect((await evaluate(d)).steps[3]!.message).toBe('A is too near.');
    expect(await madeBy(d)).toEqual([]);
    expect((await evaluate(edited(d, renameStep('p', 'a', 'Post')))).steps[3]!.message).toBe('Post is too near.');
    also = () => undefined;
    const done = edited(d, setSlot('p', 'e', 'size', '6 mm'));
    await evaluate(done);
    // What was made does not speak of it, and stays.
    expect(await madeBy(edited(done, renameStep('p', 'a', 'Other')))).toEqual([]);
  });

  test('that the kernel refuses fails with its sentence; a fault of ours is no failure of the step', async () => {
    also = ({ size }) => {
      if (size === 7) throw new KernelError('It cannot be made.');
      return undefined;
    };
    expect((await evaluate(base())).steps[1]).toMatchObject({ status: 'failed', message: 'It cannot be made.', cure: null }); // prettier-ignore
    also = () => {
      throw new TypeError('ours');
    };
    const other = edited(base(), setDimension('w', '3 mm'));
    await expect(evaluate(other)).rejects.toThrow('ours');
    also = () => undefined;
    expect((await evaluate(other)).steps[0]!.status).toBe('ok');
  });

  test.each([['not valid', '13 mm'], ['of no volume', '0 mm'], ['turned inside out', '-4 mm']])('whose solid is %s fails', async (_, size) => {
    const { steps, bodies } = await evaluate(edited(base(), setSlot('p', 'b', 'size', size)));
    expect(steps[1]).toMatchObject({ status: 'failed', message: expect.stringMatching(/^The outcome is not a sound solid/) });
    expect(bodies).toHaveLength(2);
    expect(it.freed).toEqual([1]);
  }); // prettier-ignore

  test('that is suppressed changes nothing; one that needs it, or a failed one, says so', async () => {
    const off = (await evaluate(edited(base(), suppressStep('p', 'a', true)))).steps;
    expect(off[0]).toMatchObject({ status: 'suppressed', message: null, bodies: [], key: null });
    expect(off[2]).toMatchObject({ status: 'failed', message: 'A is suppressed, and this step needs it.' });
    const failed = (await evaluate(edited(base(), setDimension('w', '0 mm')))).steps;
    expect(failed[2]!.message).toBe('A has a fault of its own, and this step needs it.');
    const later = (await evaluate(edited(base(), setSlot('p', 'a', 'after', ['b'])))).steps;
    expect(later[0]!.message).toBe('B comes after this step; move it before, or choose another.');
    const gone = edited(base(), setSlot('p', 'c', 'after', ['b']), deleteStep('p', 'b'));
    expect((await evaluate(gone)).steps[1]!.message).toMatch(/^A step this step uses was deleted/);
  });

  test('yields a sketch or a datum to those after it; a sketch that has a fault is shown all the same', async () => {
    const [sketch, datum] = [{ frame: 'here' } as never, { kind: 'point', at: [1, 2, 3], into: null } as const];
    also = ({ size }) => {
      if (size === 5) throw new SketchFailure('It clashes.', sketch);
      return size === 7 ? { sketch, datum } : undefined;
    };
    const { steps } = await evaluate(base());
    expect(steps[0]).toMatchObject({ sketch: null, datum: null });
    expect(steps[1]!.sketch).toBe(sketch);
    expect(steps[1]!.datum).toBe(datum);
    expect(steps[2]).toMatchObject({ status: 'failed', message: 'It clashes.', key: null });
    expect(steps[2]!.sketch).toBe(sketch);
    expect(steps[2]!.bodies).toBe(steps[1]!.bodies);
  });

  test('says again what it said, though it is not made again; by the names that steps have now', async () => {
    also = ({ size }, context) => {
      if (size !== 7) return undefined;
      context.note(`Beside ${context.stepName('a')}.`);
      context.note('And more.');
      context.handle({ slot: 'size', index: 0, at: [1, 2, 3], center: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0] });
      context.doubt({ slot: 'size', how: 'probably', says: 'Perhaps.', proposed: 1 } as never);
      return undefined;
    };
    for (let i = 0; i < 2; i++) {
      const { steps } = await evaluate(base());
      expect(steps[1]).toMatchObject({ status: 'ok', message: 'Beside A.' });
      expect(steps[1]!.handles).toMatchObject([{ at: [1, 2, 3] }]);
      expect(steps[1]!.doubts).toMatchObject([{ says: 'Perhaps.' }]);
      expect(steps[0]!.message).toBeNull();
    }
    made.length = 0;
    const renamed = (await evaluate(edited(base(), renameStep('p', 'a', 'Other')))).steps[1]!;
    expect(renamed.message).toBe('Beside Other.');
    expect(made).toEqual(['b']);
    also = () => ({ note: 'First.', tells: 'Seven.' });
    const told = (await evaluate(edited(base(), setSlot('p', 'b', 'tall', true)))).steps[1]!;
    expect(told).toMatchObject({ message: 'First.', tells: 'Seven.' });
  });
});

describe('a kernel that falls over', () => {
  test('is started again; the step that did it fails from then on without being tried', async () => {
    let tries = 0;
    also = ({ size }) => {
      if (size !== 7) return undefined;
      tries++;
      it.kernel.isDown = true;
      throw new KernelDown('The kernel fell over.');
    };
    const { steps, bodies } = await evaluate(base());
    expect(steps.map((s) => s.status)).toEqual(['ok', 'failed', 'ok']);
    expect(steps[1]!.message).toBe('The kernel fell over.');
    expect([it.kernel.restarts, tries]).toEqual([1, 1]);
    expect(bodies).toHaveLength(2);
    await evaluate(base());
    expect([it.kernel.restarts, tries]).toEqual([1, 1]);
    // What was made before went with it; after that it is kept as ever.
    expect(made).toEqual(['a', 'b', 'a', 'c']);
  });

  test('while a step tries what it may leave alone does not condemn the step', async () => {
    also = ({ size }, { perils }) => {
      if (size !== 7 || perils.has('rounding')) return undefined;
      perils.add('rounding');
      it.kernel.isDown = true;
      throw new KernelDown('The kernel fell over.');
    };
    const { steps } = await evaluate(base());
    expect(steps.map((s) => s.status)).toEqual(['ok', 'ok', 'ok']);
    expect(it.kernel.restarts).toBe(1);
  });

  test('outside of any step is told on', async () => {
    it.kernel.isDown = true;
    expect((await evaluate(base())).bodies).toHaveLength(3);
    expect(it.kernel.restarts).toBe(1);
    const breathe = async () => {
      throw new KernelDown('Gone.');
    };
    await expect(evaluate(base(), { breathe })).rejects.toThrow('Gone.');
  });
});
