/**
 * The units a designer may write, and the kinds of quantity they measure.
 * Inside the core lengths are mm and angles rad, always.
 */

/** What a number field or a dimension holds. */
export type QuantityKind = 'length' | 'angle' | 'number';

/** Powers of length and angle; `{ length: 2, angle: 0 }` is an area. */
export interface Powers {
  readonly length: number;
  readonly angle: number;
}

export interface Unit {
  /** Factor from this unit to mm or rad. */
  readonly factor: number;
  readonly powers: Powers;
}

export const NO_POWERS: Powers = { length: 0, angle: 0 };
const LENGTH: Powers = { length: 1, angle: 0 };
const ANGLE: Powers = { length: 0, angle: 1 };

/** International inch, exact since 1959: 25.4 mm. */
export const MM_PER_INCH = 25.4;
export const RAD_PER_DEGREE = Math.PI / 180;

export const UNITS: Readonly<Record<string, Unit>> = {
  mm: { factor: 1, powers: LENGTH },
  cm: { factor: 10, powers: LENGTH },
  m: { factor: 1000, powers: LENGTH },
  in: { factor: MM_PER_INCH, powers: LENGTH },
  inch: { factor: MM_PER_INCH, powers: LENGTH },
  ft: { factor: MM_PER_INCH * 12, powers: LENGTH },
  thou: { factor: MM_PER_INCH / 1000, powers: LENGTH },
  deg: { factor: RAD_PER_DEGREE, powers: ANGLE },
  rad: { factor: 1, powers: ANGLE },
};

export const LENGTH_UNITS = ['mm', 'cm', 'm', 'in', 'ft', 'thou'] as const;
export const ANGLE_UNITS = ['deg', 'rad'] as const;
export type LengthUnit = (typeof LENGTH_UNITS)[number];
export type AngleUnit = (typeof ANGLE_UNITS)[number];

/** Parts an inch may be cut into for showing. */
export const FRACTIONS = [8, 16, 32, 64, 128] as const;
export type Fractions = (typeof FRACTIONS)[number];

/** The units in which a design shows its numbers and reads bare ones. */
export interface DisplayUnits {
  readonly length: LengthUnit;
  readonly angle: AngleUnit;
  /** Digits shown after the decimal point. */
  readonly decimals: number;
  /** With inches: what is a whole number of these parts of an inch is shown as a fraction. */
  readonly fractions?: Fractions | undefined;
}

/** Unit names are plain keys; a guard against names like `constructor`. */
export function unitNamed(name: string): Unit | undefined {
  return Object.hasOwn(UNITS, name) ? UNITS[name] : undefined;
}

export function powersOfKind(kind: QuantityKind): Powers {
  return kind === 'length' ? LENGTH : kind === 'angle' ? ANGLE : NO_POWERS;
}

export function samePowers(a: Powers, b: Powers): boolean {
  return a.length === b.length && a.angle === b.angle;
}

/** The quantity kind these powers stand for, or null for areas, products and the like. */
export function kindOfPowers(p: Powers): QuantityKind | null {
  if (samePowers(p, LENGTH)) return 'length';
  if (samePowers(p, ANGLE)) return 'angle';
  return samePowers(p, NO_POWERS) ? 'number' : null;
}

/** A word for these powers, for error sentences: "a length", "an area", "a plain number". */
export function describePowers(p: Powers): string {
  const kind = kindOfPowers(p);
  if (kind === 'length') return 'a length';
  if (kind === 'angle') return 'an angle';
  if (kind === 'number') return 'a plain number';
  if (p.angle === 0 && p.length === 2) return 'an area';
  if (p.angle === 0 && p.length === 3) return 'a volume';
  const parts: string[] = [];
  if (p.length !== 0) parts.push(p.length === 1 ? 'length' : `length^${p.length}`);
  if (p.angle !== 0) parts.push(p.angle === 1 ? 'angle' : `angle^${p.angle}`);
  return parts.join(' × ');
}

/** Factor from the design's unit of this kind to the core's unit. */
export function displayFactor(kind: QuantityKind, units: DisplayUnits): number {
  if (kind === 'length') return UNITS[units.length]!.factor;
  if (kind === 'angle') return UNITS[units.angle]!.factor;
  return 1;
}

/** Digits that survive the trip from binary to decimal and back without noise. */
const CLEAN_DIGITS = 12;

/**
 * Write a core value (mm, rad, or a number) in the design's units: `6 mm`, `42°`, `3`.
 * Trailing zeros are dropped.
 */
export function formatQuantity(value: number, kind: QuantityKind, units: DisplayUnits): string {
  const fraction = kind === 'length' ? asFraction(value, units) : null;
  if (fraction) return fraction;
  const text = formatNumber(value / displayFactor(kind, units), units.decimals);
  if (kind === 'length') return `${text} ${units.length}`;
  if (kind === 'angle') return units.angle === 'deg' ? `${text}°` : `${text} rad`;
  return text;
}

/** Write a product of lengths and angles, in mm and rad, in the design's units: `12 mm²`, `3 mm·deg`. */
export function formatProduct(value: number, powers: Powers, units: DisplayUnits): string {
  const kind = kindOfPowers(powers);
  if (kind) return formatQuantity(value, kind, units);
  const factor = UNITS[units.length]!.factor ** powers.length * UNITS[units.angle]!.factor ** powers.angle;
  const written = [
    ...(powers.length ? [`${units.length}${raised(powers.length)}`] : []),
    ...(powers.angle ? [`${units.angle}${raised(powers.angle)}`] : []),
  ];
  return `${formatQuantity(value / factor, 'number', units)} ${written.join('·')}`;
}

function raised(n: number): string {
  return n === 1 ? '' : n === 2 ? '²' : n === 3 ? '³' : `^${n}`;
}

/** Share of an inch by which a length may miss a fraction and still be one; beyond it the fraction would lie. */
const FRACTION_NOISE = 1e-9;

/** `2 1/8 in`; null where the design shows decimals, or the length is no such fraction. */
function asFraction(mm: number, { length, fractions }: DisplayUnits): string | null {
  if (length !== 'in' || !fractions) return null;
  const parts = (Math.abs(mm) / MM_PER_INCH) * fractions;
  let [above, below] = [Math.round(parts), fractions as number];
  if (Math.abs(parts - above) > FRACTION_NOISE * fractions) return null;
  while (above % 2 === 0 && below > 1) [above, below] = [above / 2, below / 2];
  const [whole, rest] = [Math.floor(above / below), above % below];
  const sign = mm < 0 && above > 0 ? '-' : '';
  if (rest === 0) return `${sign}${whole} in`;
  return `${sign}${whole > 0 ? `${whole} ` : ''}${rest}/${below} in`;
}

/** A number with at most `decimals` digits after the point, no trailing zeros, never `-0`. */
export function formatNumber(value: number, decimals: number): string {
  if (!Number.isFinite(value)) return '?';
  const text = Number(value.toPrecision(CLEAN_DIGITS)).toFixed(decimals);
  const trimmed = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return trimmed === '-0' ? '0' : trimmed;
}

/**
 * An expression that reads back to exactly this value up to 1e-12 relative:
 * what a drag or a typed sketch length is stored as.
 */
export function expressionOf(value: number, kind: QuantityKind, units: DisplayUnits): string {
  const inUnit = Number((value / displayFactor(kind, units)).toPrecision(CLEAN_DIGITS));
  const text = plainDecimal(inUnit);
  return kind === 'number' ? text : `${text} ${kind === 'length' ? units.length : units.angle}`;
}

function plainDecimal(value: number): string {
  const text = String(value);
  if (!text.includes('e')) return text;
  return value.toFixed(Math.min(20, CLEAN_DIGITS)).replace(/\.?0+$/, '') || '0';
}
