/** What can be done with what is picked in a sketch: relations, dimensions, changes. */
import { expressionOf, isDimension, type Reading } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import type { ChangeKind } from '../sketch/changing.ts';
import { copyPicked, pasteCopied } from '../sketch/clipboard.ts';
import { MARKS } from '../sketch/constraint-marks.ts';
import type { SketchEditing } from '../sketch/sketch-editing.ts';
import { regionsFor } from '../stage/sketch-regions.ts';
import type { Verb } from './verbs.ts';

/** Relations that stand in the verb line itself; what else fits is in the list. */
const MOST_SHOWN = 6;

export function useSketchVerbs(editing: SketchEditing) {
  const design = useDesign();
  const session = useSession();

  function apply(reading: Reading): void {
    editing.apply(reading, (value, angle) =>
      expressionOf(Number(value.toFixed(angle ? 6 : 4)), angle ? 'angle' : 'length', design.design!.units),
    );
  }
  const verbOf = (r: Reading): Verb => ({
    id: r.kind + r.label,
    label: r.label,
    ...(MARKS[r.kind] ? { key: MARKS[r.kind]!.mark } : {}),
    run: () => apply(r),
  });

  const dimensions = computed<Verb[]>(() =>
    editing.readings.value
      .filter((r) => r.value !== undefined)
      .map((r, i) => ({ ...verbOf(r), ...(i === 0 ? { key: 'd' } : {}) })),
  );
  const relations = computed<Verb[]>(() => editing.readings.value.filter((r) => r.value === undefined).map(verbOf));

  const pickedDimension = computed(() => {
    const [id] = session.entities;
    const c = id && session.entities.length === 1 ? editing.step.value?.constraints[id] : undefined;
    return c && isDimension(c) ? { id: id!, constraint: c } : null;
  });

  /** In the verb line: the likeliest dimension, and the relations. */
  const picked = computed<Verb[]>(() => {
    if (pickedDimension.value)
      return ofDimension(pickedDimension.value.id, pickedDimension.value.constraint.driven === true);
    return [...dimensions.value.slice(0, 1), ...relations.value.slice(0, MOST_SHOWN)];
  });

  function ofDimension(id: string, driven: boolean): Verb[] {
    return [
      {
        id: 'driven',
        label: driven ? 'Let it drive' : 'Only measure',
        run: () => editing.switchDriven(id),
      },
      { id: 'tolerance', label: 'Tolerance', run: () => (session.toleranceOf = id) },
    ];
  }

  const begin = (kind: ChangeKind, label: string, key?: string): Verb => ({
    id: kind,
    label,
    ...(key ? { key } : {}),
    run: () => editing.changing.begin(kind),
  });

  /** Not counted while something moves: that would be once a frame. */
  const gaps = computed<number>((before = 0) =>
    editing.preview.value || !editing.geometry.value ? before : regionsFor(editing.geometry.value).gaps.length,
  );

  const plain = computed<Verb[]>(() => [
    begin('trim', 'Trim', 'T'),
    begin('extend', 'Extend', 'E'),
    begin('split', 'Split'),
    begin('round corner', 'Round corners', 'o'),
    begin('bevel corner', 'Bevel corners'),
    begin('borrow', 'Borrow edges and faces', 'w'),
    begin('borrow section', 'Borrow a section'),
    begin('borrow silhouette', 'Borrow an outline'),
    { id: 'dxf', label: 'Read a DXF drawing', run: () => (session.readingDxf = true) },
    ...(gaps.value > 0
      ? [{ id: 'mend', label: `Close ${gaps.value} ${gaps.value === 1 ? 'gap' : 'gaps'}`, run: () => editing.mend() }]
      : []),
    { id: 'paste', label: 'Paste', key: 'Ctrl V', run: () => void pasteCopied(editing) },
  ]);

  const changesOfPicked = computed<Verb[]>(() => {
    const step = editing.step.value;
    const geometric = session.entities.some((e) => e in (step?.curves ?? {}) || e in (step?.points ?? {}));
    const curve = session.entities.some((e) => e in (step?.curves ?? {}));
    return [
      ...(curve
        ? [
            { id: 'construction', label: 'Construction', key: 'g', run: () => editing.toggleConstruction() },
            begin('offset', 'Offset'),
          ]
        : []),
      ...(session.entities.some((e) => step?.curves[e]?.kind === 'text')
        ? [begin('lettering', 'Change the lettering')]
        : []),
      ...(geometric
        ? [
            begin('mirror', 'Mirror'),
            begin('linear pattern', 'Repeat along a line'),
            begin('circular pattern', 'Repeat about a point'),
            begin('move', 'Move, turn, scale'),
            { id: 'copy', label: 'Copy', key: 'Ctrl C', run: () => void copyPicked(editing) },
          ]
        : []),
      ...(session.entities.some((e) => editing.borrowed.value.has(e))
        ? [{ id: 'cut-loose', label: 'Cut loose from the part', run: () => editing.cutPickedLoose() }]
        : []),
      ...(curve ? [{ id: 'chain', label: 'Pick the whole chain', run: () => editing.changing.pickChain() }] : []),
      { id: 'delete', label: 'Delete', key: 'Del', run: () => editing.removePicked() },
    ];
  });

  return { picked, dimensions, relations, plain, changesOfPicked };
}
