/** The open sketch: its solved picture, and what pointer and keys do to it. */
import {
  BUILT_IN, constraintOf, editSketch, isDimension, readingsFor, removeFromSketch, SketchDrag, solveSketch,
  type Place, type Reading, type SketchGeometry, type SketchSolution, type SketchStep,
} from '@helb/core'; // prettier-ignore
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { drawStroke, type Typed } from './draw-tool.ts';
import { entityAt, snapAt, type Snap } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';

const DRAG_STARTS_AFTER_PX = 4;
/** Two clicks this near in place are one. */
const SAME_PLACE_MM = 1e-6;

export function useSketchEditing() {
  const design = useDesign();
  const session = useSession();

  const step = computed<SketchStep | null>(() => {
    const found =
      session.activePart && session.sketching
        ? design.design?.parts[session.activePart]?.steps[session.sketching]
        : null;
    return found?.kind === 'sketch' ? found : null;
  });

  /** Value of a dimension in mm or rad. @throws when it has none */
  function numberOf(id: string): number {
    return design.ledger!.number(`${session.sketching}.${id}`);
  }

  const solution = computed<SketchSolution | null>(() => {
    if (!step.value || !design.ledger) return null;
    try {
      return solveSketch(step.value, numberOf);
    } catch {
      // A number without value: the ledger says so; the sketch is shown as drawn.
      return null;
    }
  });

  const preview = shallowRef<SketchGeometry | null>(null);
  const geometry = computed<SketchGeometry | null>(() => preview.value ?? solution.value?.geometry ?? step.value);
  const hovered = ref<string | null>(null);
  /** First click of the stroke being drawn. */
  const start = shallowRef<Snap | null>(null);
  const end = shallowRef<Snap | null>(null);
  const typed = shallowRef<Record<string, { expression: string; value: number } | undefined>>({});
  const position = ref<Place>([0, 0]);
  const allMarks = ref(false);

  let pressed: { x: number; y: number; entity: string | null; at: Place } | null = null;
  let drag: SketchDrag | null = null;

  watch(
    () => session.sketching,
    () => {
      dropStroke();
      preview.value = null;
      hovered.value = null;
    },
  );
  watch(() => session.tool, dropStroke);

  function dropStroke(): void {
    start.value = null;
    end.value = null;
    typed.value = {};
  }

  /** A size typed for the stroke being drawn; undefined leaves it to the pointer. */
  function setTyped(field: string, value: { expression: string; value: number } | undefined): void {
    typed.value = { ...typed.value, [field]: value };
  }

  /** Change the open sketch; a refusal is shown beside the verbs. */
  function change(label: string, run: (sketch: SketchGeometry) => void): boolean {
    if (!session.activePart || !session.sketching) return false;
    session.notice = design.edit(editSketch(session.activePart, session.sketching, label, run));
    return session.notice === null;
  }

  function move(map: PlaneMap, x: number, y: number, free: boolean): void {
    const sketch = geometry.value;
    if (!sketch) return;
    position.value = map.toPlane(x, y);
    if (session.tool) {
      const snap = snapAt(sketch, map, x, y, session.tool === 'line' ? (start.value?.at ?? null) : null, free);
      end.value = snap;
      hovered.value = snap.point ?? snap.on ?? null;
      return;
    }
    if (pressed?.entity && !drag && Math.hypot(x - pressed.x, y - pressed.y) > DRAG_STARTS_AFTER_PX)
      beginDrag(pressed.entity, pressed.at);
    if (drag) preview.value = drag.moveTo(position.value);
    else hovered.value = entityAt(sketch, map, x, y);
  }

  function beginDrag(entity: string, at: Place): void {
    if (!step.value || !solution.value?.solved) return;
    try {
      drag = new SketchDrag({ ...solution.value.geometry }, numberOf, entity, at);
    } catch {
      drag = null;
    }
  }

  /** True when the press is the sketch's own and must not turn the view. */
  function press(map: PlaneMap, x: number, y: number): boolean {
    const sketch = geometry.value;
    if (!sketch) return false;
    const entity = session.tool ? null : entityAt(sketch, map, x, y);
    pressed = { x, y, entity, at: map.toPlane(x, y) };
    return true;
  }

  function release(map: PlaneMap, x: number, y: number, add: boolean, free: boolean): void {
    const was = pressed;
    pressed = null;
    if (drag) {
      finishDrag();
      return;
    }
    if (!was || Math.hypot(x - was.x, y - was.y) > DRAG_STARTS_AFTER_PX) return;
    move(map, x, y, free);
    if (session.tool) click();
    else pick(was.entity, add);
  }

  function finishDrag(): void {
    const moved = preview.value;
    drag = null;
    if (moved) {
      change('Drag in the sketch', (sketch) => {
        for (const [id, p] of Object.entries(moved.points))
          if (p !== sketch.points[id]) sketch.points[id] = [p[0], p[1]];
        for (const [id, c] of Object.entries(moved.curves)) {
          const own = sketch.curves[id];
          if (c.kind === 'circle' && own?.kind === 'circle') own.radius = c.radius;
        }
      });
    }
    preview.value = null;
  }

  function pick(entity: string | null, add: boolean): void {
    if (!entity) {
      if (!add) session.entities = [];
      return;
    }
    if (!add && session.entities.length === 1 && session.entities[0] === entity) session.entities = [];
    else if (session.entities.includes(entity)) session.entities = session.entities.filter((e) => e !== entity);
    else session.entities = [...session.entities, entity];
    session.notice = null;
  }

  /** Take the pointer's place as the next point of the stroke. */
  function click(): void {
    const at = end.value;
    const tool = session.tool;
    if (!at || !tool) return;
    // A point takes one click, all else two.
    if (!start.value && tool !== 'point') {
      start.value = at;
      return;
    }
    const begun = start.value ?? at;
    const numbers = { ...typed.value } as Typed;
    const hasNumbers = Object.values(numbers).some(Boolean);
    if (tool !== 'point' && !hasNumbers && Math.hypot(at.at[0] - begun.at[0], at.at[1] - begun.at[1]) < SAME_PLACE_MM)
      return;
    let outcome: ReturnType<typeof drawStroke> = {};
    const made = change(`Draw a ${tool}`, (sketch) => {
      outcome = drawStroke(sketch, tool, begun, at, numbers);
    });
    typed.value = {};
    end.value = null;
    const next = made && outcome.chainFrom ? step.value?.points[outcome.chainFrom] : undefined;
    start.value = next && outcome.chainFrom ? { at: next, point: outcome.chainFrom } : null;
  }

  /** Verbs that fit the picked entities. */
  const readings = computed<Reading[]>(() =>
    geometry.value
      ? readingsFor(
          geometry.value,
          session.entities.filter((e) => !(e in (step.value?.constraints ?? {}))),
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

  function removePicked(): void {
    if (session.entities.length === 0) return;
    const ids = session.entities.filter((e) => !Object.values<string>(BUILT_IN).includes(e));
    if (change('Delete from the sketch', (sketch) => void removeFromSketch(sketch, ids))) session.entities = [];
  }

  /** Entities under constraints that disagree. */
  const clashing = computed(() => {
    const ids = solution.value?.clash ?? [];
    return new Set(ids.flatMap((id) => step.value?.constraints[id]?.of ?? []));
  });

  const dimensions = computed(() =>
    Object.entries(geometry.value?.constraints ?? {}).flatMap(([id, c]) =>
      isDimension(c) ? [{ id, constraint: c }] : [],
    ),
  );

  return {
    step, solution, geometry, hovered, start, end, typed, position, allMarks, readings, clashing, dimensions,
    move, press, release, click, apply, removePicked, toggleConstruction, change, dropStroke,
    setTyped,
  }; // prettier-ignore
}

export type SketchEditing = ReturnType<typeof useSketchEditing>;

function addConstraint(sketch: SketchGeometry, constraint: ReturnType<typeof constraintOf>): string {
  let n = Object.keys(sketch.constraints).length + 1;
  while (`k${n}` in sketch.constraints) n++;
  sketch.constraints[`k${n}`] = constraint;
  return `k${n}`;
}
