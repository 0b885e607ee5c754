/** Values and faults of a flexed design as people read them. */
import type { Design } from '../document/schema.ts';
import { displayFactor, formatNumber, type DisplayUnits } from '../units/units.ts';
import type { Fault } from './standing.ts';
import type { DialRange } from './dials.ts';

/** A value of a dial, in the units shown: `11.4 mm`. */
export function shownValue({ kind }: Pick<DialRange, 'kind'>, value: number, units: DisplayUnits): string {
  const number = formatNumber(value / displayFactor(kind, units), units.decimals);
  return kind === 'number' ? number : `${number} ${kind === 'length' ? units.length : units.angle}`;
}

/** What does not stand, with its part and step, or its assembly and joint, where it has them. */
export function faultSentence(design: Design, { part, step, assembly, joint, message }: Fault): string {
  const own = part === undefined ? undefined : design.parts[part];
  if (own) return `${own.name}, ${own.steps[step!]?.name ?? 'a step'}: ${message}`;
  const whole = assembly === undefined ? undefined : design.assemblies?.[assembly];
  return whole ? `${whole.name}${joint ? `, ${joint.name}` : ''}: ${message}` : message;
}
