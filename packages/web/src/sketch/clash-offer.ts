/** An edit that cannot hold with what is there: which constraints disagree, and how it could be had instead. */
import {
  clashReadings, describeConstraint, editSketch, formatQuantity, isDimension, quantityOf, removeFromSketch,
  type SketchGeometry, type SketchStep,
} from '@helb/core'; // prettier-ignore
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { inSlices } from '../shell/slices.ts';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';

export interface ClashRow {
  readonly constraint: string;
  readonly text: string;
  /** What it is on. */
  readonly of: readonly string[];
  /** “would read 52.5 mm without the others being changed”; null for a relation. */
  readonly without: string | null;
  readonly dimension: boolean;
}

export const useClashOffer = defineStore('clash offer', () => {
  const design = useDesign();
  const session = useSession();
  const rows = shallowRef<readonly ClashRow[]>([]);
  /** Entities under what disagrees, to be marked on the stage. */
  const entities = shallowRef<ReadonlySet<string>>(new Set());
  const label = ref('');
  /** Counts what was considered or dropped, so that only the last is shown. */
  let considered = 0;
  let wanted: ((sketch: SketchGeometry) => void) | null = null;

  function drop(): void {
    considered++;
    rows.value = [];
    entities.value = new Set();
    wanted = null;
  }

  /**
   * Called when an edit of the open sketch was refused; finds out what disagrees. What was offered before stays
   * until then: a field that loses the focus to the offer's button is refused again, and the button is still wanted.
   */
  async function consider(step: SketchStep, name: string, run: (sketch: SketchGeometry) => void): Promise<void> {
    const mine = ++considered;
    const copy = JSON.parse(JSON.stringify(step)) as SketchStep;
    try {
      run(copy);
      const number = (id: string) => numberIn(copy, id);
      // The refusal is shown first.
      await new Promise((shown) => setTimeout(shown));
      const members = await inSlices(clashReadings(copy, number), () => mine === considered);
      if (!members || mine !== considered) return;
      if (members.length === 0) return drop();
      rows.value = members.map(({ constraint, without }) => {
        const c = copy.constraints[constraint]!;
        const kind = isDimension(c) ? quantityOf(c) : 'length';
        return {
          constraint,
          text: isDimension(c)
            ? `${describeConstraint(copy, constraint)} = ${formatQuantity(number(constraint), kind, design.design!.units)}`
            : describeConstraint(copy, constraint),
          of: c.of,
          without: without === null ? null : formatQuantity(without, kind, design.design!.units),
          dimension: isDimension(c),
        };
      });
      entities.value = new Set(members.flatMap(({ constraint }) => copy.constraints[constraint]!.of));
      label.value = name;
      wanted = run;
    } catch {
      // A number without value, or an edit that cannot be made at all: its own sentence says so.
      if (mine === considered) drop();
    }
  }

  function numberIn(sketch: SketchGeometry, id: string): number {
    const c = sketch.constraints[id]!;
    if (!isDimension(c)) return 0;
    const scope = { part: session.activePart!, step: session.sketching! };
    const value = design.ledger!.read(c.value, scope, quantityOf(c));
    if (!value.ok) throw new Error(value.message);
    return value.quantity.value;
  }

  /** Have the edit after all, with one of the others only measuring, or gone. */
  function take(row: ClashRow, how: 'measure' | 'remove'): void {
    const run = wanted;
    if (!run || !session.activePart || !session.sketching) return;
    const edit = editSketch(session.activePart, session.sketching, label.value, (sketch) => {
      run(sketch);
      const c = sketch.constraints[row.constraint];
      if (how === 'measure' && c && isDimension(c)) c.driven = true;
      else removeFromSketch(sketch, [row.constraint]);
    });
    drop();
    session.notice = design.edit(edit);
  }

  return { rows, entities, consider, take, drop };
});
