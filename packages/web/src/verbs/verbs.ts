/** What can be done now with what is picked. The verb line, the list and the keys all read from here. */
import {
  addPart, addStep, asSketch, DATUM_PLANES, deleteStep, DRAW_TOOLS, kindOf, newId, refOf, stepKinds, stepsUsedBy, suppressStep, usersOfStep,
  type Part, type Picked, type Step, type StoredFile, type StepKind,
} from '@helb/core'; // prettier-ignore
import { computed } from 'vue';
import { regionsFor, regionsWhenFound } from '../stage/sketch-regions.ts';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { pickerOf } from '../slots/pickers.ts';
import { useMeasuring } from '../ledger/measuring.ts';
import { useInPlace } from '../together/in-place.ts';
import { useLookVerbs } from './look-verbs.ts';

export interface Verb {
  readonly id: string;
  readonly label: string;
  readonly key?: string;
  readonly active?: boolean;
  run(): void;
}

/** What people call a thing that is picked. */
export function wordFor(pick: Picked): string {
  if (pick.kind === 'step') return pick.is;
  if (pick.kind === 'vertex') return 'corner';
  return pick.kind === 'sketch_point' ? 'point' : pick.kind;
}

export function useVerbs() {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const { verbsFor } = useMeasuring();

  const part = computed(() => (session.activePart ? design.design?.parts[session.activePart] : undefined));
  const view = computed(() => (session.activePart ? evaluation.parts.get(session.activePart) : undefined));

  /** Those there are where one stands in the recipe. */
  const bodiesHere = computed(() => {
    const around = view.value?.around;
    return around && around.step === session.standing ? around.after : (view.value?.bodies ?? []);
  });
  const lookVerbs = useLookVerbs(bodiesHere);
  /** Where a new step goes: after the one at which one stands, else at the end. */
  const placeHere = (): string | undefined => session.standing ?? undefined;

  /** A step's name not yet used in this part: Sketch 1, Sketch 2, … */
  function freshName(base: string): string {
    const taken = new Set(Object.values(part.value?.steps ?? {}).map((s) => s.name));
    let n = 1;
    while (taken.has(`${base} ${n}`)) n++;
    return `${base} ${n}`;
  }

  function refuse(message: string | null): boolean {
    session.notice = message;
    return message === null;
  }

  /** The slots of a new step of this kind begun from picks; null when they begin none. */
  function beginning(kind: StepKind, picks: readonly Picked[]): Record<string, unknown> | null {
    if (!design.design) return null;
    return kind.begin({
      picks,
      bodies: bodiesHere.value.length,
      units: design.design.units,
      unused: part.value ? sketchesUnused(part.value) : [],
      sketch(id) {
        const step = asSketch(part.value?.steps[id]);
        if (!step) return null;
        const solved = view.value?.steps.find((s) => s.id === id)?.sketch?.geometry;
        return { geometry: solved ?? step, onFace: 'face' in step.plane };
      },
    });
  }

  function sketchesUnused({ steps, stepOrder }: Part): string[] {
    const used = new Set(stepOrder.flatMap((id) => stepsUsedBy(steps[id]!)));
    return stepOrder.filter((id) => asSketch(steps[id]) && !used.has(id));
  }

  /** Begin a step: its sentence opens as a trial, Enter keeps it, Escape drops it. A sketch is opened for drawing. */
  function begin(kind: StepKind, picks: readonly Picked[]): void {
    const slots = beginning(kind, picks);
    if (slots) beginWith(kind, slots);
  }

  function beginWith(kind: StepKind, slots: Record<string, unknown>, name = freshName(kind.label)): void {
    if (!session.activePart) return;
    const id = newId('s');
    const step: Step = { ...slots, kind: kind.kind, name };
    const add = addStep(session.activePart, id, step, placeHere());
    if (asSketch(step)) {
      if (!refuse(design.edit(add))) return;
      if (session.standing) session.standing = id;
      session.openSketch(id);
      return;
    }
    if (!refuse(design.tryOut(add))) return;
    session.leaveSketch();
    session.picks = [];
    session.editing = id;
  }

  const inPlace = useInPlace();
  const othersToBorrow = computed(() => (design.design?.partOrder ?? []).filter((id) => id !== session.activePart));

  /** Begin a step that borrows; it comes before what draws from it. */
  function borrowPart({ name, from }: Step): void {
    session.beside = null;
    beginWith(kindOf({ kind: 'borrow' }), { from }, name);
  }

  /** Begin a step from a file. */
  function bringIn(file: StoredFile): void {
    beginWith(kindOf({ kind: 'import' }), { file, result: 'new_body' });
  }

  /** The open sketch picked as a whole: some begin from its open outline, or its points. */
  const wholeSketch = () => [{ kind: 'step', step: session.sketching ?? '', is: 'sketch' } as const];

  /** From inside a sketch: from the region with the largest outline, which is most often the one meant; else from its open outline. */
  async function beginInSketch(kind: StepKind): Promise<void> {
    const id = session.sketching;
    const sketch = id ? asSketch(part.value?.steps[id]) : null;
    if (!id || !sketch) return;
    const { regions } = regionsFor(sketch);
    const all = regions.length > 0 ? regions : (await regionsWhenFound(sketch)).regions;
    if (session.sketching !== id) return;
    // A tube is drawn as two circles: what is meant reaches out farthest, though the bore may be the larger area.
    const [largest] = [...all].sort((a, b) => b.loops[0]!.area - a.loops[0]!.area);
    if (largest) begin(kind, [{ kind: 'region', sketch: id, ref: refOf(largest, all) }]);
    else if (beginning(kind, wholeSketch())) {
      begin(kind, wholeSketch());
      session.notice ??=
        'There is no closed region, so this is a wall along the open outline; join its ends for a solid.';
    } else
      session.notice = `There is no closed region to ${kind.label.toLowerCase()} yet; join the ends of the outline.`;
  }

  const sketchOn = (datum: (typeof DATUM_PLANES)[number]) => {
    const kind = stepKinds().find((k) => beginning(k, [{ kind: 'datum', datum }]));
    if (kind) begin(kind, [{ kind: 'datum', datum }]);
  };

  function keepStep(): void {
    const isNew = design.attempt !== null;
    if (isNew && !refuse(design.keepAttempt())) return;
    if (isNew && session.standing) session.standing = session.editing;
    session.editing = null;
    session.pickingFor = null;
  }

  function dropStep(): void {
    design.dropAttempt();
    session.editing = null;
    session.pickingFor = null;
  }

  function newPart(): void {
    const names = new Set(Object.values(design.design?.parts ?? {}).map((p) => p.name));
    let n = 1;
    while (names.has(`Part ${n}`)) n++;
    const id = newId('p');
    if (refuse(design.edit(addPart(id, `Part ${n}`)))) session.openPart(id);
  }

  function removeStep(id: string): void {
    const home = part.value;
    if (!home || !session.activePart) return;
    const users = usersOfStep(home, id);
    const name = home.steps[id]?.name;
    if (!refuse(design.edit(deleteStep(session.activePart, id)))) return;
    if (session.sketching === id) session.leaveSketch();
    if (session.editing === id) keepStep();
    if (session.standing === id) session.standing = home.stepOrder[home.stepOrder.indexOf(id) - 1] ?? null;
    if (users.length > 0)
      session.notice = `${users.join(', ')} used ${name} and ${users.length === 1 ? 'says' : 'say'} what is missing; undo brings it back.`;
  }

  function setSuppressed(id: string, suppressed: boolean): void {
    if (session.activePart) refuse(design.edit(suppressStep(session.activePart, id, suppressed)));
  }

  const toolVerbs = computed<Verb[]>(() =>
    DRAW_TOOLS.map((tool) => ({
      id: tool.name,
      label: tool.name.charAt(0).toUpperCase() + tool.name.slice(1),
      ...(tool.key ? { key: tool.key } : {}),
      active: session.tool === tool.name,
      run: () => {
        session.entities = [];
        session.tool = session.tool === tool.name ? null : tool.name;
      },
    })),
  );

  /** What can be done in a sketch with nothing picked, besides drawing. */
  const sketchVerbs = computed<Verb[]>(() => [
    { id: 'finish', label: 'Finish', key: 'Enter', run: () => session.leaveSketch() },
    ...stepKinds()
      .filter(beginsFromRegion)
      .map((kind) => verbOf(kind, () => void beginInSketch(kind))),
    ...stepKinds()
      .filter((kind) => !beginsFromRegion(kind) && beginning(kind, wholeSketch()))
      .map((kind) => verbOf(kind, () => begin(kind, wholeSketch()))),
  ]);

  /** Asked with an empty sketch, so that nothing is looked for in the open one before it is wanted. */
  function beginsFromRegion(kind: StepKind): boolean {
    const geometry = { points: {}, curves: {}, constraints: {} };
    return (
      kind.begin({
        picks: [{ kind: 'region', sketch: 'any', ref: { outer: ['any'] } }],
        bodies: 0,
        units: design.design!.units,
        unused: [],
        sketch: () => ({ geometry, onFace: false }),
      }) !== null
    );
  }

  function verbOf(kind: StepKind, run: () => void): Verb {
    return { id: kind.kind, label: kind.verb ?? kind.label, ...(kind.key ? { key: kind.key } : {}), run };
  }

  const takesPicks = ({ slots }: StepKind) => {
    const kinds = Object.values(slots).map(({ of }) => of.kind);
    return kinds.some(pickerOf) && !kinds.includes('file');
  };

  /** Said before anything is picked: the step begins as soon as what is picked is enough for it. */
  const saidFirst = computed<Verb[]>(() =>
    stepKinds()
      .filter(takesPicks)
      .map((kind) => verbOf(kind, () => (session.said = kind.kind))),
  );

  /** The kind of step that was said, and waits for what it is made of. */
  const said = computed(() => (session.said === null ? null : kindOf({ kind: session.said })));

  /** Why what was said cannot do with such a pick, as a sentence; null where it can. */
  function unfitForSaid(pick: Picked): string | null {
    const kind = said.value;
    if (!kind || Object.values(kind.slots).some(({ of }) => of.take?.(undefined, pick))) return null;
    if ([[pick], [...session.picks, pick]].some((picks) => beginning(kind, picks))) return null;
    return `${kind.label} takes no ${wordFor(pick)}; pick something else, or drop it with Escape.`;
  }

  /** Begin what was said, once enough is picked. */
  function beginSaid(): void {
    const kind = said.value;
    const slots = kind && session.picks.length > 0 ? beginning(kind, session.picks) : null;
    if (!kind || !slots) return;
    session.said = null;
    beginWith(kind, slots);
  }

  const partVerbs = computed<Verb[]>(() => {
    const { picks } = session;
    const lending = inPlace.chosen;
    if (lending) {
      const { member } = lending;
      return [
        { id: 'borrow', label: `Borrow ${member.name}`, run: () => borrowPart(inPlace.stepFor(lending)) },
        { id: 'go-beside', label: `Work on ${member.name}`, run: () => session.openInPlace(member.part, { assembly: session.inPlace!.assembly, instance: member.path }) }, // prettier-ignore
      ];
    }
    if (picks.length > 0)
      return [
        ...stepKinds()
          .filter((kind) => beginning(kind, picks))
          .map((kind) => verbOf(kind, () => begin(kind, picks))),
        ...verbsFor(picks),
        ...lookVerbs(picks),
      ];
    return [
      ...DATUM_PLANES.map((datum) => ({
        id: `sketch-${datum}`,
        label: `Sketch on ${datum}`,
        run: () => sketchOn(datum),
      })),
      ...lookVerbs([]),
      ...(othersToBorrow.value.length > 0 ? [{ id: 'borrow-part', label: 'Borrow a part', run: () => borrowPart({ kind: 'borrow', name: freshName('Borrow'), from: { part: othersToBorrow.value[0]! } }) }] : []), // prettier-ignore
      { id: 'new-part', label: 'New part', run: newPart },
    ];
  });

  return {
    toolVerbs,
    sketchVerbs,
    partVerbs,
    saidFirst,
    said,
    unfitForSaid,
    beginSaid,
    beginning,
    begin,
    bringIn,
    sketchOn,
    keepStep,
    dropStep,
    newPart,
    removeStep,
    setSuppressed,
    freshName,
  };
}
