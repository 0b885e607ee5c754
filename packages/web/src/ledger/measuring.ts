/** Giving names to what the model measures, so that other numbers can use it. */
import { addMeasured, newId, type BodyView, type EdgeRef, type FaceRef, type Measure } from '@helb/core';
import { useDesign } from '../design/design-store.ts';
import { useSession, type Pick } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import type { Verb } from '../verbs/verbs.ts';

type What = Measure extends infer M ? (M extends Measure ? Omit<M, 'part' | 'after'> : never) : never;

export function useMeasuring() {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();

  /** Measure something of the active part; its name opens for typing. */
  async function measure(what: What): Promise<void> {
    const { design: now } = design;
    const part = session.activePart;
    if (!now || !part) return;
    const wanted = { ...what, part } as Measure;
    const reading = await evaluation
      .on(now)
      .read(wanted)
      .catch((error: Error) => ({ message: `This could not be measured: ${error.message}` }));
    if ('message' in reading) {
      session.notice = reading.message;
      return;
    }
    const taken = new Set(Object.values(design.kept!.dimensions).map((d) => d.name));
    const base = what.what === 'size' ? `size_${what.along}` : what.what;
    let name: string = base;
    for (let n = 2; taken.has(name); n++) name = `${base}_${n}`;
    const id = newId('d');
    session.notice = design.edit(addMeasured(id, name, wanted, reading.text));
    if (session.notice === null) {
      session.picks = [];
      session.dimensionToName = id;
    }
  }

  function bodyOf(pick: Pick & { body: string }): BodyView | undefined {
    return evaluation.parts.get(session.activePart ?? '')?.bodies.find((b) => b.id === pick.body);
  }

  const thing = (pick: Pick): FaceRef | EdgeRef | null =>
    pick.kind === 'face' || pick.kind === 'edge' ? pick.ref : null;

  const verb = (label: string, what: What): Verb => ({
    id: `measure-${what.what}`,
    label,
    run: () => void measure(what),
  });

  /** What can be measured on the picked faces and edges. */
  function verbsFor(picks: readonly Pick[]): Verb[] {
    const [one, two] = picks;
    if (!one || picks.length > 2) return [];
    const [a, b] = [thing(one), two ? thing(two) : null];
    if (!a || (two && !b)) return [];
    if (two && b) {
      const both = one.kind === 'face' && two.kind === 'face' && one.flat && two.flat;
      return [
        verb('Name the distance', { what: 'distance', between: [a, b] }),
        ...(both ? [verb('Name the angle', { what: 'angle', between: [one.ref, two.ref] })] : []),
      ];
    }
    if (one.kind === 'edge') return [verb('Name its length', { what: 'length', edge: a as EdgeRef })];
    if (one.kind !== 'face') return [];
    const round = bodyOf(one)?.faces[one.face]?.radius != null;
    return [
      verb('Name its area', { what: 'area', face: one.ref }),
      ...(round ? [verb('Name its radius', { what: 'radius', face: one.ref })] : []),
    ];
  }

  return { measure, verbsFor };
}
