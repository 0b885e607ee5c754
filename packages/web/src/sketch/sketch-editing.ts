/** The open sketch: its solved picture, and what pointer and keys do to it. */
import {
  asSketch,  BUILT_IN, constraintOf, cutLoose, describeConstraints, editSketch, expressionOf, isDimension, measureDimension, mendGaps, quantityOf, readingsFor, removeFromSketch, SketchDrag,
  type Place, type Reading, type SketchGeometry, type SketchStep,
} from '@helb/core'; // prettier-ignore
import { computed, ref, shallowRef, watch } from 'vue';
import { toast } from 'vue-sonner';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useClashOffer } from './clash-offer.ts';
import { regionsFor } from '../stage/sketch-regions.ts';
import { useChanging } from './changing.ts';
import { useDrawing } from './drawing.ts';
import { entitiesInBox, entityAt } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';
import { useSolution } from './solution.ts';
import { movedLoans, takeOver } from './taking-over.ts';

const DRAG_STARTS_AFTER_PX = 4;

export function useSketchEditing() {
  const design = useDesign();
  const session = useSession();
  const clash = useClashOffer();
  const evaluation = useEvaluation();

  const stored = computed<SketchStep | null>(() => {
    const found =
      session.activePart && session.sketching
        ? design.design?.parts[session.activePart]?.steps[session.sketching]
        : null;
    return asSketch(found ?? undefined);
  });
  /** The sketch with what it borrows where the part now has it. */
  const step = computed<SketchStep | null>(() => {
    if (!stored.value?.borrowed) return stored.value;
    const seen = evaluation.parts.get(session.activePart!)?.steps.find((s) => s.id === session.sketching)
      ?.sketch?.geometry;
    const moved = seen ? movedLoans(stored.value, seen) : null;
    return moved
      ? {
          ...stored.value,
          points: { ...stored.value.points, ...moved.points },
          curves: { ...stored.value.curves, ...moved.curves },
        }
      : stored.value;
  });

  /** Value of a dimension in mm or rad. @throws when it has none */
  function numberOf(id: string): number {
    return design.ledger!.number(`${session.sketching}.${id}`);
  }

  const solution = useSolution(step, numberOf);

  const preview = shallowRef<SketchGeometry | null>(null);
  const geometry = computed<SketchGeometry | null>(() => preview.value ?? solution.value?.geometry ?? step.value);
  const hovered = ref<string | null>(null);
  const position = ref<Place>([0, 0]);
  const allMarks = ref(false);
  /** Where each picked thing was clicked last, mm. */
  const clicked = new Map<string, Place>();
  /** A box being drawn round what to pick, on the plane. */
  const box = shallowRef<{ from: Place; to: Place } | null>(null);
  const drawing = useDrawing(geometry, hovered, change);
  const changing = useChanging(geometry, numberOf, change);

  let pressed: { x: number; y: number; entity: string | null; at: Place } | null = null;
  let drag: SketchDrag | null = null;
  /** Where the pointer was last, not yet followed: many moves may fall into one frame, and only the last is seen. */
  let ahead: Place | null = null;

  watch(
    () => session.sketching,
    () => {
      drawing.drop();
      drag = null;
      ahead = null;
      preview.value = null;
      hovered.value = null;
      box.value = null;
    },
  );

  /** Change the open sketch; a refusal is shown beside the verbs. */
  function change(label: string, run: (sketch: SketchGeometry) => void): boolean {
    if (!session.activePart || !session.sketching) return false;
    const moved = step.value !== stored.value && step.value ? movedLoans(stored.value!, step.value) : null;
    const edit = editSketch(session.activePart, session.sketching, label, (sketch) => {
      // What is borrowed moves along with the first edit after its source moved.
      if (moved) Object.assign(sketch.points, moved.points);
      if (moved) Object.assign(sketch.curves, moved.curves);
      run(sketch);
    });
    const refused = (sentence: string): void => {
      session.notice = sentence;
      if (step.value) void clash.consider(step.value, label, run);
    };
    session.notice = null;
    const refusal = design.edit(edit, refused);
    if (refusal === null) clash.drop();
    else refused(refusal);
    return refusal === null;
  }

  function move(map: PlaneMap, x: number, y: number, free: boolean): void {
    const sketch = geometry.value;
    if (!sketch) return;
    position.value = map.toPlane(x, y);
    if (session.tool) {
      drawing.follow(map, x, y, free);
      return;
    }
    const far = pressed !== null && Math.hypot(x - pressed.x, y - pressed.y) > DRAG_STARTS_AFTER_PX;
    if (pressed && far && !drag && !session.changing) {
      if (pressed.entity) beginDrag(pressed.entity, pressed.at);
      else box.value = { from: pressed.at, to: position.value };
    }
    if (drag) followInFrame(position.value);
    else if (!box.value) hovered.value = entityAt(sketch, map, x, y);
  }

  function followInFrame(to: Place): void {
    if (!ahead) requestAnimationFrame(catchUp);
    ahead = to;
  }
  function catchUp(): void {
    if (drag && ahead) preview.value = drag.moveTo(ahead);
    ahead = null;
  }

  function beginDrag(entity: string, at: Place): void {
    if (!step.value || !solution.value?.solved) return;
    try {
      drag = new SketchDrag({ ...solution.value.geometry }, numberOf, entity, at);
    } catch {
      drag = null;
    }
  }

  function press(map: PlaneMap, x: number, y: number): void {
    const sketch = geometry.value;
    if (!sketch) return;
    const entity = session.tool ? null : entityAt(sketch, map, x, y);
    pressed = { x, y, entity, at: map.toPlane(x, y) };
  }

  function release(map: PlaneMap, x: number, y: number, add: boolean, free: boolean): void {
    const was = pressed;
    pressed = null;
    if (drag) {
      finishDrag();
      return;
    }
    if (box.value && geometry.value) {
      const found = entitiesInBox(geometry.value, box.value.from, map.toPlane(x, y));
      for (const e of found) clicked.delete(e);
      session.entities = add ? [...new Set([...session.entities, ...found])] : found;
      box.value = null;
      return;
    }
    if (!was || Math.hypot(x - was.x, y - was.y) > DRAG_STARTS_AFTER_PX) return;
    move(map, x, y, free);
    if (session.tool) drawing.click();
    else if (session.changing) changing.click(map, was.entity, map.toPlane(x, y), x, y);
    else pick(was.entity, add, was.at);
  }

  function finishDrag(): void {
    catchUp();
    const moved = preview.value;
    drag = null;
    if (moved) change('Drag in the sketch', (sketch) => takeOver(sketch, moved));
    preview.value = null;
  }

  function pick(entity: string | null, add: boolean, at: Place): void {
    if (!entity) {
      if (!add) session.entities = [];
      return;
    }
    if (session.entities.length === 0) clicked.clear();
    clicked.set(entity, at);
    if (!add && session.entities.length === 1 && session.entities[0] === entity) session.entities = [];
    else if (session.entities.includes(entity)) session.entities = session.entities.filter((e) => e !== entity);
    else session.entities = [...session.entities, entity];
    session.notice = null;
  }

  /** Verbs that fit the picked entities. */
  const readings = computed<Reading[]>(() =>
    geometry.value
      ? readingsFor(
          geometry.value,
          session.entities.filter((e) => !(e in (step.value?.constraints ?? {}))),
          clicked,
        )
      : [],
  );

  /** Add a constraint or dimension on what is picked. A dimension starts at its present value and opens for typing. */
  function apply(reading: Reading, expressionOf: (value: number, angle: boolean) => string): void {
    let added = '';
    const made = change(`Add ${reading.label.toLowerCase()}`, (sketch) => {
      const value = reading.value === undefined ? undefined : expressionOf(reading.value, reading.kind === 'angle');
      added = addConstraint(sketch, constraintOf(reading, value));
    });
    if (!made) return;
    session.entities = [];
    if (reading.value !== undefined) session.dimensionToEdit = `${session.sketching}.${added}`;
  }

  /** Picked curves become construction, or real again when all of them were construction. */
  function toggleConstruction(): void {
    const curves = session.entities.filter((e) => e in (step.value?.curves ?? {}));
    change('Switch construction', (sketch) => {
      const all = curves.every((id) => sketch.curves[id]?.construction);
      for (const id of curves) {
        const curve = sketch.curves[id]!;
        if (all) delete curve.construction;
        else curve.construction = true;
      }
    });
  }

  /** Let picked borrowed geometry go its own way. */
  function cutPickedLoose(): void {
    const picked = [...session.entities];
    change('Cut loose', (sketch) => cutLoose(sketch, picked));
  }

  /** Ends that nearly meet, made one. */
  function mend(): void {
    if (!geometry.value) return;
    const { gaps } = regionsFor(geometry.value);
    let mended = 0;
    if (change('Close the gaps', (sketch) => (mended = mendGaps(sketch, gaps))))
      toast(`Closed ${mended} ${mended === 1 ? 'gap' : 'gaps'}.`);
  }

  /** A dimension that only tells what it measures, or holds it again at what it reads. */
  function switchDriven(id: string): void {
    change('Switch a dimension', (sketch) => {
      const c = sketch.constraints[id];
      if (!c || !isDimension(c)) return;
      if (c.driven) {
        delete c.driven;
        const kind = quantityOf(c);
        c.value = expressionOf(Number(measureDimension(sketch, c).toFixed(6)), kind, design.design!.units);
      } else c.driven = true;
    });
  }

  function setTolerance(id: string, text: string): void {
    change('Write a tolerance', (sketch) => {
      const c = sketch.constraints[id];
      if (!c || !isDimension(c)) return;
      if (text.trim()) c.tolerance = text.trim().slice(0, 40);
      else delete c.tolerance;
    });
  }

  function removePicked(): void {
    const before = step.value;
    if (session.entities.length === 0 || !before) return;
    const ids = session.entities.filter((e) => !Object.values<string>(BUILT_IN).includes(e));
    let dangling: string[] = [];
    if (!change('Delete from the sketch', (sketch) => (dangling = removeFromSketch(sketch, ids)))) return;
    session.entities = [];
    if (dangling.length > 0) {
      const named = describeConstraints(dangling.map((id) => before.constraints[id]!));
      toast(
        `${named} went along with what ${dangling.length === 1 ? 'it was' : 'they were'} on; undo brings all back.`,
      );
    }
  }

  /** Entities under constraints that disagree. */
  const clashing = computed(() => {
    if (clash.entities.size > 0) return clash.entities;
    const ids = solution.value?.clash ?? [];
    return new Set(ids.flatMap((id) => step.value?.constraints[id]?.of ?? []));
  });
  const borrowed = computed(() => new Set(Object.values(step.value?.borrowed ?? {}).flatMap((b) => b.of)));

  const dimensions = computed(() =>
    Object.entries(geometry.value?.constraints ?? {}).flatMap(([id, c]) =>
      isDimension(c) ? [{ id, constraint: c }] : [],
    ),
  );

  return {
    step, solution, geometry, hovered, position, allMarks, readings, clashing, borrowed, dimensions, box, drawing, changing, preview,
    numberOf, move, press, release, apply, removePicked, toggleConstruction, switchDriven, setTolerance, cutPickedLoose, mend, change,
  }; // prettier-ignore
}

export type SketchEditing = ReturnType<typeof useSketchEditing>;

export function addConstraint(sketch: SketchGeometry, constraint: ReturnType<typeof constraintOf>): string {
  let n = Object.keys(sketch.constraints).length + 1;
  while (`k${n}` in sketch.constraints) n++;
  sketch.constraints[`k${n}`] = constraint;
  return `k${n}`;
}
