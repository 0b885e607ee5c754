/** Tolerances of sizes as they are typed and shown for typing. */
import type { SheetSize } from '../document/sheet.ts';
import { displayFactor, formatNumber, type DisplayUnits } from '../units/units.ts';

const FIT = /^[A-Za-z]{1,2}\d{1,2}$/;
const EVEN = /^(?:±|\+\/?-)\s*(\d*\.?\d+)$/;
const PAIR = /^([+-−]?\s*\d*\.?\d+)\s*\/\s*([+-−]?\s*\d*\.?\d+)$/u;
/** mm or rad: what is more is a slip. */
const MOST = 100;

const factorOf = ({ kind }: Pick<SheetSize, 'kind'>, units: DisplayUnits) => displayFactor(kind === 'angle' ? 'angle' : 'length', units); // prettier-ignore

/** @returns null where it is none; `none` of nothing typed */
export function readLimits(
  typed: string,
  size: Pick<SheetSize, 'kind'>,
  units: DisplayUnits,
): SheetSize['limits'] | 'none' | null {
  // prettier-ignore
  const text = typed.trim().replaceAll(',', '.').replaceAll('−', '-');
  if (text === '') return 'none';
  if (FIT.test(text)) return size.kind === 'angle' ? null : { fit: text };
  const by = factorOf(size, units);
  const even = EVEN.exec(text);
  const pair = PAIR.exec(text);
  const [plus, minus] = even ? [Number(even[1]) * by, Number(even[1]) * by] : pair ? [signed(pair[1]!) * by, -signed(pair[2]!) * by] : [NaN, NaN]; // prettier-ignore
  const fits = Math.abs(plus) <= MOST && Math.abs(minus) <= MOST && plus + minus >= 0;
  return fits ? { plus: plus === 0 ? 0 : plus, minus: minus === 0 ? 0 : minus } : null;
}
const signed = (text: string) => Number(text.replace(/\s/g, ''));

export function limitsTyped({ kind, limits }: Pick<SheetSize, 'kind' | 'limits'>, units: DisplayUnits): string {
  if (!limits) return '';
  if ('fit' in limits) return limits.fit;
  const shown = (v: number) => formatNumber(v / factorOf({ kind }, units), units.decimals);
  const { plus, minus } = limits;
  const sign = (v: number) => (v < 0 ? `-${shown(-v)}` : `+${shown(v)}`);
  return plus === minus ? `±${shown(plus)}` : `${sign(plus)}/${sign(-minus)}`;
}
