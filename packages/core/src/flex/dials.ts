/** The dials of a design and how far each is to be moved. */
import { rangeOf } from '../commands/dimensions.ts';
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { kindOfPowers, type QuantityKind } from '../units/units.ts';

export interface DialRange {
  readonly ref: string;
  readonly name: string;
  readonly kind: QuantityKind;
  /** All in mm, rad or plain. */
  readonly now: number;
  readonly min: number;
  readonly max: number;
  /** It moves by this much; null when by any amount. */
  readonly step: number | null;
  /** The dial has no range of its own; this one is tried to find one. */
  readonly proposed: boolean;
}

/** Where a dial allows anything, from half of what it is to half as much again. */
const PROPOSED_SHARE = 0.5;

/** @returns why a dial cannot be moved, as sentences, beside those that can */
export function dialRanges(design: Design): { readonly dials: readonly DialRange[]; readonly left: readonly string[] } {
  const ledger = Ledger.of(design);
  const dials: DialRange[] = [];
  const left: string[] = [];
  for (const entry of ledger.entries) {
    if (!entry.dial) continue;
    const value = ledger.valueOfEntry(entry);
    const kind = value.ok ? kindOfPowers(value.quantity.powers) : null;
    if (!value.ok || !kind) {
      left.push(`${entry.name} is not moved: ${value.ok ? 'it is neither a length, an angle nor a number' : value.message}`); // prettier-ignore
      continue;
    }
    const now = value.quantity.value;
    const own = rangeOf(ledger, entry);
    const away = Math.abs(now) * PROPOSED_SHARE || 1;
    const whole = kind === 'number' && [now, own.min ?? now, own.max ?? now].every(Number.isInteger);
    const round = (x: number, to: (x: number) => number) => (whole ? to(x) : x);
    const [min, max] = [own.min ?? round(now - away, Math.floor), own.max ?? round(now + away, Math.ceil)];
    if (!(max > min)) {
      left.push(`${entry.name} is not moved: its range from least to most is empty.`);
      continue;
    }
    const step = own.step && own.step > 0 ? own.step : whole ? 1 : null;
    dials.push({ ref: entry.ref, name: entry.name, kind, now, min, max, step, proposed: own.min === null || own.max === null }); // prettier-ignore
  }
  return { dials, left };
}

const UNIT: Readonly<Record<QuantityKind, string>> = { length: ' mm', angle: ' rad', number: '' };
const DIGITS = 12;

/** A value of a dial as an expression. */
export const dialText = ({ kind }: Pick<DialRange, 'kind'>, value: number): string =>
  `${Number(value.toPrecision(DIGITS))}${UNIT[kind]}`;
