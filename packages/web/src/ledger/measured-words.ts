/** What a measured dimension is read from, in words. */
import type { Design, DimensionEntry } from '@helb/core';

export function measuredWords(design: Design, entry: DimensionEntry): string {
  const { measured, owner } = entry;
  if (!measured) return '';
  const part = design.parts[measured.part];
  if (measured.of === 'sketch') return 'as drawn, drives nothing here';
  const home = owner.level === 'part' ? design.parts[owner.part]?.dimensions : design.dimensions;
  const measure = home?.[entry.ref]?.measured;
  if (!part || !measure) return 'measured';
  const what = measure.what === 'size' ? `size along ${measure.along}` : measure.what === 'distance' || measure.what === 'angle' ? `${measure.what} on` : `${measure.what} of`; // prettier-ignore
  const after = measure.after ? ` after ${part.steps[measure.after]?.name ?? 'a deleted step'}` : '';
  const kg = measure.what === 'mass' ? ', kg' : '';
  return `${what}${measure.what === 'size' ? ' of' : ''} ${part.name}${after}${kg}`;
}
