/** What differs between two states of a design, as a designer would say it. */
import type { Design } from '../document/schema.ts';
import { same } from '../document/touches.ts';
import { Ledger } from '../ledger/ledger.ts';
import { asSketch, type Step } from '../steps/schema.ts';

type How = 'added' | 'removed' | 'changed';

export interface Comparison {
  /** Numbers whose value differs, as shown; null where there is none. `follows`: what is written there is the same. */
  readonly numbers: readonly {
    readonly name: string;
    readonly before: string | null;
    readonly after: string | null;
    readonly follows: boolean;
  }[];
  readonly steps: readonly { readonly part: string; readonly name: string; readonly how: How }[];
  readonly parts: readonly { readonly id: string; readonly name: string; readonly how: How }[];
}

export function compareDesigns(before: Design, after: Design): Comparison {
  const [was, is] = [Ledger.of(before), Ledger.of(after)];
  const shown = (ledger: Ledger, ref: string) => {
    const entry = ledger.index.byReference(ref);
    return entry ? ledger.format(ledger.valueOfEntry(entry)) : null;
  };
  const refs = new Set([...was.entries, ...is.entries].map((e) => e.ref));
  const numbers = [...refs].flatMap((ref) => {
    const [a, b] = [shown(was, ref), shown(is, ref)];
    const entry = is.index.byReference(ref) ?? was.index.byReference(ref)!;
    const written = (ledger: Ledger) => ledger.index.byReference(ref)?.expression;
    const follows = Boolean(entry.measured) || written(was) === written(is);
    return a === b ? [] : [{ name: entry.path.join('.'), before: a, after: b, follows }];
  });
  return {
    numbers,
    steps: compared(stepsOf(before), stepsOf(after), (a, b) => same(decided(a.step), decided(b.step))).map(({ of, how }) => ({ part: of.part, name: of.step.name, how })), // prettier-ignore
    parts: compared(before.parts, after.parts, (a, b) => a.name === b.name && a.material === b.material).map(({ id, of, how }) => ({ id, name: of.name, how })), // prettier-ignore
  };
}

const stepsOf = (design: Design) =>
  Object.fromEntries(
    Object.values(design.parts).flatMap((part) =>
      Object.entries(part.steps).map(([id, step]) => [id, { part: part.name, step }]),
    ),
  );

/** Without where solving left the points of a sketch. */
function decided(step: Step): unknown {
  if (!asSketch(step)) return step;
  const { points, curves, ...rest } = step as Step & { points: object; curves: Record<string, object> };
  const shapes = Object.fromEntries(Object.entries(curves).map(([id, c]) => [id, { ...c, radius: 0, minor: 0 }]));
  return { ...rest, points: Object.keys(points).sort(), curves: shapes };
}

function compared<T extends object>(
  before: Readonly<Record<string, T>>,
  after: Readonly<Record<string, T>>,
  alike: (a: T, b: T) => boolean,
): { id: string; of: T; how: How }[] {
  return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((id) => {
    const [a, b] = [before[id], after[id]];
    const how: How | null = !a ? 'added' : !b ? 'removed' : alike(a, b) ? null : 'changed';
    return how ? [{ id, of: (b ?? a)!, how }] : [];
  });
}
