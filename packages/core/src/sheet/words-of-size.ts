/** How a size reads. */
import type { SheetSize } from '../document/sheet.ts';
import { formatQuantity, type DisplayUnits } from '../units/units.ts';
import { wordsOfChamfer } from './chamfer.ts';
import type { HoleCall, Measured } from './measured.ts';

/** The words of a size: its number as the design shows numbers, with what stands round it. */
export function wordsOfSize(
  { text, limits }: Pick<SheetSize, 'text' | 'limits'>,
  measured: Measured,
  units: DisplayUnits,
): string {
  // prettier-ignore
  if (measured.is === 'note' || measured.is === 'surface') return text?.trim() || (measured.is === 'note' ? 'Note' : 'Ra 3.2'); // prettier-ignore
  const kind = measured.is === 'angle' ? 'angle' : 'length';
  const plain = (value: number) => (kind === 'angle' ? formatQuantity(value, 'angle', units) : lengthText(value, units)); // prettier-ignore
  const sign = measured.is === 'diameter' ? 'Ø' : measured.is === 'radius' ? 'R' : '';
  const hole = 'hole' in measured ? measured.hole : undefined;
  const number = measured.is === 'chamfer' ? wordsOfChamfer(measured.told, plain) : (hole?.thread ?? `${sign}${plain(measured.value)}`); // prettier-ignore
  const limited = `${number}${limitsText(limits, plain)}`;
  const called = hole ? callOut(hole, limited, units) : limited;
  const shown = `${called}${'true' in measured && !measured.true ? ' (not true)' : ''}`;
  return text ? (text.includes('<>') ? text.replace('<>', shown) : `${shown} ${text}`) : shown;
}

function limitsText(limits: SheetSize['limits'], plain: (value: number) => string): string {
  if (!limits) return '';
  if ('fit' in limits) return ` ${limits.fit}`;
  const { plus, minus } = limits;
  const signed = (v: number) => `${v < 0 ? '−' : '+'}${plain(Math.abs(v))}`;
  return plus === minus ? ` ±${plain(plus)}` : ` ${signed(plus)}/${signed(-minus)}`;
}

/** 4× Ø6.6 THRU, bored Ø11 × 6. */
function callOut({ times, depth, bore, sink }: HoleCall, number: string, units: DisplayUnits): string {
  const mm = (value: number) => lengthText(value, units);
  const parts = [
    `${times > 1 ? `${times}× ` : ''}${number} ${depth === null ? 'THRU' : `× ${mm(depth)} deep`}`,
    ...(bore ? [`bored Ø${mm(bore.diameter)} × ${mm(bore.depth)}`] : []),
    ...(sink ? [`sunk Ø${mm(sink.diameter)} × ${formatQuantity(sink.angle, 'angle', units)}`] : []),
  ];
  return parts.join(', ');
}

/** Without its unit, which the title block says once. */
const lengthText = (mm: number, units: DisplayUnits): string =>
  formatQuantity(mm, 'length', units).replace(new RegExp(` ${units.length}$`), '');
