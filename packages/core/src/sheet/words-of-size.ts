/** How a size reads. */
import type { SheetSize } from '../document/sheet.ts';
import { formatQuantity, type DisplayUnits } from '../units/units.ts';
import type { Measured } from './measured.ts';

/** The words of a size: its number as the design shows numbers, with what stands round it. */
export function wordsOfSize({ text }: Pick<SheetSize, 'text'>, measured: Measured, units: DisplayUnits): string {
  if (measured.is === 'note') return text?.trim() || 'Note';
  const number =
    measured.is === 'angle' ? formatQuantity(measured.value, 'angle', units) : lengthText(measured.value, units);
  const sign = measured.is === 'diameter' ? 'Ø' : measured.is === 'radius' ? 'R' : '';
  const shown = `${sign}${number}${'true' in measured && !measured.true ? ' (not true)' : ''}`;
  return text ? (text.includes('<>') ? text.replace('<>', shown) : `${shown} ${text}`) : shown;
}

/** Without its unit, which the title block says once. */
const lengthText = (mm: number, units: DisplayUnits): string =>
  formatQuantity(mm, 'length', units).replace(new RegExp(` ${units.length}$`), '');
