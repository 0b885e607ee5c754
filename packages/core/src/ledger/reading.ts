/** What slots are labelled from: the names of steps, and numbers as people read them. */
import type { Design } from '../document/schema.ts';
import type { Reading } from '../slots/slot.ts';
import type { Ledger } from './ledger.ts';

export function readingOf(design: Design, partId: string, stepId: string, ledger: Ledger): Reading {
  const part = design.parts[partId]!;
  return {
    outside: {
      partName: (id) => design.parts[id]?.name ?? null,
      stepName: (other, id) => design.parts[other]?.steps[id]?.name ?? null,
      assemblyName: (id) => design.assemblies?.[id]?.name ?? null,
    },
    stepName: (id) => part.steps[id]?.name ?? null,
    number(key) {
      const entry = ledger.index.byReference(`${stepId}.${key}`);
      if (!entry) return { label: 'a number' };
      const label = ledger.shown(entry);
      const value = ledger.format(ledger.valueOfEntry(entry));
      return { label, ...(value !== label.replace(/ deg$/, '°') ? { value } : {}) };
    },
  };
}
