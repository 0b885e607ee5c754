/** What can be done now with what is picked. The verb line, the list and the keys all read from here. */
import {
  addPart, addStep, DRAW_TOOLS, changeStep, DATUM_PLANES, expressionOf, findRegions, newId, refOf, suppressStep, usersOfStep, deleteStep,
  type PlaneRef, type RegionRef, type Step,
} from '@helb/core'; // prettier-ignore
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useMeasuring } from '../ledger/measuring.ts';

export interface Verb {
  readonly id: string;
  readonly label: string;
  readonly key?: string;
  readonly active?: boolean;
  run(): void;
}

const FIRST_DISTANCE_MM = 10;

export function useVerbs() {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const { verbsFor } = useMeasuring();

  const part = computed(() => (session.activePart ? design.design?.parts[session.activePart] : undefined));
  const view = computed(() => (session.activePart ? evaluation.parts.get(session.activePart) : undefined));

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

  function sketchOn(plane: PlaneRef): void {
    if (!session.activePart) return;
    const id = newId('s');
    const step: Step = { kind: 'sketch', name: freshName('Sketch'), plane, points: {}, curves: {}, constraints: {} };
    if (refuse(design.edit(addStep(session.activePart, id, step)))) session.openSketch(id);
  }

  function movePlane(step: string, plane: PlaneRef): void {
    if (!session.activePart) return;
    const moved = design.edit(
      changeStep(session.activePart, step, 'Put a sketch on another plane', (s) => {
        if (s.kind === 'sketch') s.plane = plane;
      }),
    );
    if (refuse(moved)) session.pickingFor = null;
  }

  /** Begin an extrude; its sentence opens, Enter keeps it, Escape drops it. */
  function extrude(sketch: string, regions: RegionRef[]): void {
    const home = part.value;
    if (!session.activePart || !home) return;
    const own = home.steps[sketch];
    const hasBody = (view.value?.bodies.length ?? 0) > 0;
    const onFace = own?.kind === 'sketch' && 'face' in own.plane;
    const id = newId('s');
    const before = design.undoCount;
    const step: Step = {
      kind: 'extrude',
      name: freshName('Extrude'),
      sketch,
      regions,
      way: 'one_way',
      distance: expressionOf(FIRST_DISTANCE_MM, 'length', design.design!.units),
      result: hasBody && onFace ? 'join' : 'new_body',
    };
    if (!refuse(design.edit(addStep(session.activePart, id, step)))) return;
    session.leaveSketch();
    session.picks = [];
    session.editing = id;
    session.draftSince = before;
  }

  /** From inside a sketch: its largest region, which is most often the one meant. */
  function extrudeOpenSketch(): void {
    const id = session.sketching;
    const sketch = id ? part.value?.steps[id] : undefined;
    if (!id || sketch?.kind !== 'sketch') return;
    const regions = [...findRegions(sketch).regions].sort((a, b) => b.area - a.area);
    if (regions.length === 0) {
      session.notice = 'There is no closed region to extrude yet; join the ends of the outline.';
      return;
    }
    extrude(id, [refOf(regions[0]!)]);
  }

  function keepStep(): void {
    session.editing = null;
    session.draftSince = null;
    session.pickingFor = null;
  }

  async function dropStep(): Promise<void> {
    const since = session.draftSince;
    session.editing = null;
    session.pickingFor = null;
    session.draftSince = null;
    if (since !== null) while (design.undoCount > since) if ((await design.undo()) !== null) break;
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
    { id: 'extrude', label: 'Extrude', key: 'x', run: extrudeOpenSketch },
    { id: 'finish', label: 'Finish', key: 'Enter', run: () => session.leaveSketch() },
  ]);

  const partVerbs = computed<Verb[]>(() => {
    const picks = session.picks;
    const [first] = picks;
    if (first?.kind === 'face' && picks.length === 1) {
      const target = session.pickingFor;
      if (target?.slot === 'plane') {
        return first.flat
          ? [
              {
                id: 'put-here',
                label: 'Put the sketch here',
                key: 'k',
                run: () => movePlane(target.step, { face: first.ref }),
              },
            ]
          : [];
      }
      const here = { id: 'sketch-here', label: 'Sketch here', key: 'k', run: () => sketchOn({ face: first.ref }) };
      return [...(first.flat ? [here] : []), ...verbsFor(picks)];
    }
    if (first?.kind === 'region') {
      const refs = picks.flatMap((p) => (p.kind === 'region' && p.step === first.step ? [p.ref] : []));
      return [{ id: 'extrude', label: 'Extrude', key: 'x', run: () => extrude(first.step, refs) }];
    }
    if (picks.length > 0) return verbsFor(picks);
    const target = session.pickingFor;
    if (target?.slot === 'plane')
      return DATUM_PLANES.map((datum) => ({
        id: `put-${datum}`,
        label: `Put it on the ${datum}`,
        run: () => movePlane(target.step, { datum }),
      }));
    return [
      { id: 'sketch-floor', label: 'Sketch on floor', run: () => sketchOn({ datum: 'floor' }) },
      { id: 'sketch-wall', label: 'Sketch on wall', run: () => sketchOn({ datum: 'wall' }) },
      { id: 'sketch-side', label: 'Sketch on side', run: () => sketchOn({ datum: 'side' }) },
      { id: 'new-part', label: 'New part', run: newPart },
    ];
  });

  return {
    toolVerbs,
    sketchVerbs,
    partVerbs,
    sketchOn,
    movePlane,
    extrude,
    keepStep,
    dropStep,
    newPart,
    removeStep,
    setSuppressed,
    freshName,
  };
}
