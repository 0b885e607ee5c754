/** What of an assembly holds numbers that expressions name: its joints, couplings, and the motions of its runs. */
import type { QuantityKind } from '../units/units.ts';
import { COUPLING_NUMBERS, JOINT_NUMBERS, type Assembly } from './assembly.ts';
import { driveNumbers } from './run.ts';

export interface Numbered {
  readonly id: string;
  readonly name: string;
  readonly numbers: Record<string, string | undefined>;
  readonly kinds: Readonly<Record<string, QuantityKind>>;
}

export const numberedIn = ({ joints, jointOrder, couplings = {}, runs = {} }: Assembly): Numbered[] => [
  ...jointOrder.flatMap((id) => (joints[id] ? [{ id, name: joints[id].name, numbers: joints[id].numbers, kinds: JOINT_NUMBERS }] : [])), // prettier-ignore
  ...Object.entries(couplings).map(([id, c]) => ({ id, name: c.name, numbers: c.numbers, kinds: COUPLING_NUMBERS })),
  ...Object.values(runs).flatMap(
    (run) =>
    Object.entries(run.drives).map(([id, d]) => ({ id, name: `${run.name} ${d.name}`, numbers: d.numbers, kinds: driveNumbers(d.motion) })), // prettier-ignore
  ),
];

export const numberedOf = (assembly: Assembly, id: string): Numbered | undefined =>
  numberedIn(assembly).find((n) => n.id === id);
