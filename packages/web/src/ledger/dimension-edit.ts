/** Editing a dimension from wherever its number stands. */
import { addDimension, expressionOf, kindOfPowers, newId, renameDimension, setDimension } from '@helb/core';
import { useDesign } from '../design/design-store.ts';

export function useDimensionEdit() {
  const design = useDesign();

  /** Give a dimension the typed expression; returns the refusal, or null. */
  const commit = (ref: string, typed: string): string | null => design.edit(setDimension(ref, typed));

  const rename = (ref: string, name: string): string | null => design.edit(renameDimension(ref, name));

  /** Make a dimension of the design called `name`, starting at the value this one has now. */
  function make(ref: string, name: string): string | null {
    const ledger = design.ledger!;
    const value = ledger.valueOf(ref);
    const kind = value.ok ? (kindOfPowers(value.quantity.powers) ?? 'number') : 'length';
    const expression = value.ok ? expressionOf(value.quantity.value, kind, design.design!.units) : '10 mm';
    return design.edit(addDimension(newId('d'), { name, value: expression, dial: {} }));
  }

  return { commit, rename, make };
}
