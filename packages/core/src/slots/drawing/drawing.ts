/** What is drawn in a sketch: points, curves, constraints, patterns, and what is borrowed. It stands in the step itself. */
import { stepsIn } from '../../names/name.ts';
import { hashText } from '../../ids/hash.ts';
import { dimensionNames, quantityOf } from '../../sketch/dimension-names.ts';
import { faultsOf } from '../../sketch/faults.ts';
import { measureDimension } from '../../sketch/edit/measure.ts';
import { isDimension, SketchGeometry, type BorrowSource } from '../../sketch/schema.ts';
import { slotKind, type SlotKind, type StepData } from '../slot.ts';

export interface Drawing {
  readonly sketch: SketchGeometry;
  /** The value of one of its dimensions. */
  readonly number: (id: string) => number;
}

const drawn = (step: StepData) => step as StepData & SketchGeometry;

export function drawing(): SlotKind<SketchGeometry, Drawing> {
  return slotKind<SketchGeometry, Drawing>({
    kind: 'drawing',
    fields: () => SketchGeometry.shape,
    read: drawn,
    write(step, _, { points, curves, constraints, patterns, borrowed }) {
      Object.assign(step, { points, curves, constraints });
      for (const [key, value] of Object.entries({ patterns, borrowed })) {
        if (value) step[key] = value;
        else delete step[key];
      }
    },
    numbers(stored) {
      const names = dimensionNames(stored.constraints);
      return Object.entries(stored.constraints).flatMap(([key, c]) =>
        isDimension(c)
          ? [
              {
                key,
                name: names.get(key)!,
                kind: quantityOf(c),
                expression: c.value,
                level: 'sketch' as const,
                measured: c.driven ? measureDimension(stored, c) : null,
              },
            ]
          : [],
      );
    },
    holds: (stored, _, key) => Object.hasOwn(stored.constraints, key),
    setNumber(step, _, key, expression) {
      const c = drawn(step).constraints[key];
      if (c && isDimension(c)) c.value = expression;
    },
    setName(step, _, key, name) {
      // The other default names are written down first, so that none shifts.
      for (const [id, own] of dimensionNames(drawn(step).constraints)) {
        const c = drawn(step).constraints[id]!;
        if (isDimension(c)) c.name = id === key ? name : own;
      }
    },
    removeNumber: (step, _, key) => delete drawn(step).constraints[key],
    steps: (stored) => Object.values(stored.borrowed ?? {}).flatMap(({ source }) => stepsOfSource(source)),
    rewritten(stored, { expression }) {
      const copy = structuredClone(stored);
      // What it borrowed is cut loose: elsewhere it would be borrowed from elsewhere.
      delete copy.borrowed;
      for (const c of Object.values(copy.constraints)) if (isDimension(c)) c.value = expression(c.value);
      return copy;
    },
    faults: (stored, where) => faultsOf(stored, where),
    resolve(stored, _, context) {
      const numbers: Record<string, number> = {};
      for (const [id, c] of Object.entries(stored.constraints))
        if (isDimension(c) && !c.driven) numbers[id] = context.number(id);
      const from = stored.borrowed ? context.bodies.map((b) => b.key) : null;
      const text = geometryText(stored);
      return {
        value: { sketch: stored, number: (id) => numbers[id] ?? context.number(id) },
        digest: hashText(JSON.stringify([text, numbers, from])),
      };
    },
    label(stored) {
      const n = Object.values(stored.constraints).filter(isDimension).length;
      return { label: `${n} dimension${n === 1 ? '' : 's'}` };
    },
  });
}

const texts = new WeakMap<SketchGeometry, string>();

/** All that solving depends on, as a text made once for each state of the document. */
function geometryText(stored: SketchGeometry): string {
  let text = texts.get(stored);
  if (text === undefined) {
    const { points, curves, constraints, patterns, borrowed } = stored;
    // How numbers are named, written and placed makes no difference to where things go.
    const held = Object.entries(constraints).map(([id, c]) =>
      isDimension(c) ? [id, { ...c, value: '', name: '', label: null, tolerance: '' }] : [id, c],
    );
    text = hashText(JSON.stringify([points, curves, held, patterns, borrowed]));
    texts.set(stored, text);
  }
  return text;
}

function stepsOfSource(source: BorrowSource): string[] {
  if (source.kind === 'edge' || source.kind === 'vertex') return source.edge.faces.flatMap(stepsIn);
  return stepsIn(source.kind === 'face' ? source.face.name : source.body.name);
}
