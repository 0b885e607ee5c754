/** The expression now being typed; a dimension pointed at elsewhere puts its name into it. */
import { scopeOf } from '@helb/core';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { useDesign } from '../design/design-store.ts';

export interface OpenField {
  /** The dimension whose expression it is. */
  readonly reference: string;
  /** Something has been typed into it. */
  readonly touched: () => boolean;
  insert(text: string): void;
}

export const useOpenField = defineStore('open-field', () => {
  const design = useDesign();
  const field = shallowRef<OpenField | null>(null);

  /** Put the name of a dimension where the caret is. False when no field waits for one. */
  function take(reference: string): boolean {
    const ledger = design.ledger;
    if (!field.value || !ledger || field.value.reference === reference) return false;
    const [into, named] = [field.value.reference, reference].map((r) => ledger.index.byReference(r));
    if (!into || !named) return false;
    field.value.insert(ledger.index.nameFrom(named, scopeOf(into)));
    return true;
  }

  /**
   * For a number pointed at outside the stage. One that is to be edited itself is
   * more often meant there, unless an expression is half written.
   */
  function takePointed(event: Event, reference: string): void {
    // The field keeps the focus.
    if (field.value?.touched() && take(reference)) event.preventDefault();
  }

  return { field, take, takePointed };
});
