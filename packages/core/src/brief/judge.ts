/** Each number of a brief against the recipe and the finished part: used, used as something else, never used, or measured otherwise. */
import type { Brief, GivenKind, GivenNumber } from '../document/brief.ts';
import type { Part } from '../document/schema.ts';
import type { Ledger } from '../ledger/ledger.ts';
import { formatNumber, formatQuantity, type DisplayUnits, type QuantityKind } from '../units/units.ts';
import type { Finished } from './finished.ts';
import { usesOfNumbers, type NumberUse } from './uses.ts';

export interface GivenVerdict {
  /** `other`: used, but nothing in the part measures so. */
  readonly state: 'right' | 'wrong' | 'other' | 'unused' | 'unread';
  /** A sentence, but where all is right. */
  readonly says: string | null;
  /** References of the numbers that use it. */
  readonly uses: readonly string[];
}

/** Numbers that differ by less, of mm, rad or one, are the same. */
const SAME = 1e-6;
const alike = (a: number, b: number) => Math.abs(a - b) <= SAME * Math.max(1, Math.abs(b));

export const quantityOfGiven = (kind: GivenKind): QuantityKind =>
  kind === 'angle' ? 'angle' : kind === 'count' || kind === 'mass' ? 'number' : 'length';

/** @param finished null while there is no body */
export function judgeBrief(
  brief: Brief,
  part: string,
  own: Part,
  ledger: Ledger,
  finished: Finished | null,
  units: DisplayUnits,
): ReadonlyMap<string, GivenVerdict> {
  // prettier-ignore
  const uses = usesOfNumbers(part, own, ledger);
  return new Map(
    brief.numberOrder.map((id) => {
      const given = brief.numbers[id]!;
      const value = ledger.read(given.value, {}, quantityOfGiven(given.kind));
      if (!value.ok) return [id, { state: 'unread', says: value.message, uses: [] }];
      return [id, judged(given, value.quantity.value, uses, finished, units)];
    }),
  );
}

function judged(
  given: GivenNumber,
  v: number,
  uses: readonly NumberUse[],
  finished: Finished | null,
  units: DisplayUnits,
): GivenVerdict {
  // prettier-ignore
  const result = resultOf(given.kind, finished);
  if (result !== undefined) return judgedResult(given, v, result, units);
  const measured = finished ? isMeasured(given, v, finished) : null;
  const right = uses.filter((u) => isRight(given.kind, v, u, measured === true));
  const wrong = uses.filter((u) => isMistaken(given.kind, v, u));
  const refs = (some: readonly NumberUse[]) => [...new Set(some.map((u) => u.entry.ref))];
  const named = (some: readonly NumberUse[]) => [...new Set(some.map((u) => u.entry.path.slice(1).join('.')))].slice(0, 3).join(', '); // prettier-ignore
  if (wrong.length > 0 && (right.length === 0 || measured === false))
    return { state: 'wrong', says: `Given as a ${given.kind}, used as a ${wrong[0]!.as} in ${named(wrong)}.`, uses: refs(wrong) }; // prettier-ignore
  const other = finished ? mistakenRound(given.kind, v, finished) : null;
  if (right.length === 0 && other && !measured)
    return { state: 'wrong', says: `Given as a ${given.kind}, but the part has it as a ${other}.`, uses: [] };
  const inSums = uses.filter(
    (u) => u.within.some((n) => alike(n, v)) && (given.kind !== 'angle') === (u.as !== 'angle'),
  );
  if (right.length === 0 && !measured && inSums.length > 0 && given.kind !== 'count')
    return { state: 'other', says: `Stands only within a sum, in ${named(inSums)}; nothing in the part measures so.`, uses: refs(inSums) }; // prettier-ignore
  if (right.length === 0)
    return measured
      ? { state: 'other', says: 'No number of the recipe is this, though the part measures so.', uses: [] }
      : { state: 'unused', says: 'Used nowhere yet.', uses: [] };
  if (measured === false)
    return { state: other ? 'wrong' : 'other', says: `Used in ${named(right)}, but nothing in the part measures so${other ? `; it is there as a ${other}` : ''}.`, uses: refs(right) }; // prettier-ignore
  const there = given.times === undefined ? null : countOf(given, v, finished);
  if (there !== null && there !== given.times)
    return { state: 'wrong', says: `Given ${given.times} times; the part has ${there}.`, uses: refs(right) };
  return { state: 'right', says: null, uses: refs(right) };
}

function isRight(kind: GivenKind, v: number, { as, value, within }: NumberUse, measured: boolean): boolean {
  const is = (wanted: NumberUse['as'], number: number) => as === wanted && alike(value, number);
  const holds = (number: number) => within.some((n) => alike(n, number));
  if (kind === 'diameter') return is('diameter', v) || is('radius', v / 2) || (as === 'length' && (alike(value, v) || alike(value, v / 2))) || (measured && (holds(v) || holds(v / 2))); // prettier-ignore
  if (kind === 'radius') return is('radius', v) || is('diameter', 2 * v) || (as === 'length' && (alike(value, v) || alike(value, 2 * v))) || (measured && (holds(v) || holds(2 * v))); // prettier-ignore
  if (kind === 'angle') return as === 'angle' && [v, Math.PI - v, Math.PI / 2 - v, v / 2].some((angle) => alike(value, angle) || holds(angle)); // prettier-ignore
  if (kind === 'count') return as === 'count' && (alike(value, v) || holds(v));
  return is('length', v) || (measured && is('length', v / 2)) || (as === 'length' && holds(v));
}

/** The slips by which a number of one kind stands as another. */
function isMistaken(kind: GivenKind, v: number, { as, value }: NumberUse): boolean {
  if (!alike(value, v)) return false;
  if (kind === 'diameter') return as === 'radius';
  if (kind === 'radius') return as === 'diameter';
  return kind === 'length' && (as === 'radius' || as === 'diameter');
}

/** As what else the finished part has this number: the slip between diameter and radius. */
function mistakenRound(kind: GivenKind, v: number, { rounds }: Finished): 'radius' | 'diameter' | null {
  if (kind === 'diameter' && rounds.some((r) => alike(r.radius, v))) return 'radius';
  return kind === 'radius' && rounds.some((r) => alike(2 * r.radius, v)) ? 'diameter' : null;
}

/** Null where the part cannot tell. */
function isMeasured({ kind }: GivenNumber, v: number, { rounds, lengths, angles, box }: Finished): boolean | null {
  if (kind === 'diameter') return rounds.some((r) => alike(2 * r.radius, v));
  if (kind === 'radius') return rounds.some((r) => alike(r.radius, v));
  if (kind === 'length') return [...lengths, ...box].some((l) => alike(l, v));
  if (kind === 'angle') return angles.some((a) => [v, Math.PI - v, Math.PI / 2 - v, Math.PI / 2 + v].some((other) => alike(a, other))); // prettier-ignore
  return null;
}

function countOf({ kind }: GivenNumber, v: number, finished: Finished | null): number | null {
  const radius = kind === 'diameter' ? v / 2 : kind === 'radius' ? v : null;
  if (radius === null || !finished) return null;
  return finished.rounds.find((r) => alike(r.radius, radius))?.count ?? 0;
}

/** Of a result what the part comes to; null while it comes to nothing; undefined of sizes. */
function resultOf(kind: GivenKind, finished: Finished | null): number | null | undefined {
  const [what, axis] = kind.split('_') as [string, string | undefined];
  if (what === 'mass') return finished?.mass ?? null;
  if (what !== 'box' && what !== 'centre') return undefined;
  return finished?.[what][['x', 'y', 'z'].indexOf(axis!)] ?? null;
}

function judgedResult(given: GivenNumber, v: number, is: number | null, units: DisplayUnits): GivenVerdict {
  if (is === null)
    return { state: 'unused', says: given.kind === 'mass' ? 'The part has no mass yet; it needs a body and a material.' : 'The part has no body yet.', uses: [] }; // prettier-ignore
  if (Math.abs(is - v) <= halfOfLastDigit(given.value, v)) return { state: 'right', says: null, uses: [] };
  const told = given.kind === 'mass' ? `${formatNumber(is, 4)} kg` : formatQuantity(is, 'length', units);
  return { state: 'wrong', says: `The part comes to ${told}.`, uses: [] };
}

/** A result is given rounded: 0.24 kg is anything from 0.235 to 0.245. In mm or kg. */
function halfOfLastDigit(text: string, v: number): number {
  const digits = /-?\d+(?:\.(\d+))?/.exec(text);
  if (!digits || Number(digits[0]) === 0) return 0.5 * 10 ** -(digits?.[1]?.length ?? 0);
  const unit = Math.abs(v / Number(digits[0]));
  return (0.5 + 1e-9) * 10 ** -(digits[1]?.length ?? 0) * unit;
}
