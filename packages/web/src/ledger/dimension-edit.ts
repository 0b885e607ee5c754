/** Editing a dimension from wherever its number stands. */
import {
  asSketch,
  addDimension,
  expressionOf,
  isDimension,
  kindOfPowers,
  newId,
  renameDimension,
  scopeOf,
  setDimension,
  type Edit,
} from '@helb/core';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useClashOffer } from '../sketch/clash-offer.ts';
import { useTrial } from '../trial/trial-store.ts';
import { useProjectDimensions } from './project-dimensions.ts';

export function useDimensionEdit() {
  const design = useDesign();
  const session = useSession();
  const clash = useClashOffer();
  const trial = useTrial();
  const project = useProjectDimensions();

  const isShared = (ref: string) => design.ledger?.index.byReference(ref)?.owner.level === 'project';

  /** Make an edit where the dimension belongs: in the design, or in its project for all designs. */
  async function at(ref: string, edit: Edit): Promise<boolean> {
    session.notice = isShared(ref) ? await project.change(edit) : design.edit(edit);
    return session.notice === null;
  }

  /** Give a dimension the typed expression; returns the refusal, or null. */
  function commit(ref: string, typed: string): string | null {
    trial.dropTyping();
    // What is typed beside a trial is tried with it.
    if (trial.holds || isShared(ref)) return trial.hold(ref, typed);
    const refusal = design.edit(setDimension(ref, typed));
    if (refusal === null || !offerWaysOut(ref, typed)) clash.drop();
    return refusal;
  }

  /** In the open sketch, a number that clashes can be had if another gives way. False when it is not of that sketch. */
  function offerWaysOut(ref: string, typed: string): boolean {
    const [step = '', key = ''] = ref.split('.');
    const part = session.activePart ? design.design?.parts[session.activePart] : undefined;
    const sketch = asSketch(part?.steps[step]);
    if (session.sketching !== step || !sketch) return false;
    const entry = design.ledger!.index.byReference(ref);
    let bound: string;
    try {
      bound = design.ledger!.bind(typed.trim(), scopeOf(entry!), entry!.kind);
    } catch {
      // It could not even be read; the field says so.
      return false;
    }
    void clash.consider(sketch, `Set a dimension to ${typed}`, (s) => {
      const c = s.constraints[key];
      if (c && isDimension(c)) c.value = bound;
    });
    return true;
  }

  function rename(ref: string, name: string): string | null {
    if (!isShared(ref)) return design.edit(renameDimension(ref, name));
    void at(ref, renameDimension(ref, name));
    return null;
  }

  /** Make a dimension of the design called `name`, starting at the value this one has now. */
  function make(ref: string, name: string): string | null {
    const ledger = design.ledger!;
    const value = ledger.valueOf(ref);
    const kind = value.ok ? (kindOfPowers(value.quantity.powers) ?? 'number') : 'length';
    const expression = value.ok ? expressionOf(value.quantity.value, kind, design.design!.units) : '10 mm';
    return design.edit(addDimension(newId('d'), { name, value: expression, dial: {} }));
  }

  return { commit, rename, make, at, isShared };
}
