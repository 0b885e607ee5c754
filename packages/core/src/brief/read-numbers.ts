/** Numbers of a drawing, pasted as they stand there or as rows of a table. */
import Papa from 'papaparse';
import { GIVEN_KINDS, type GivenKind, type GivenNumber } from '../document/brief.ts';
import type { DisplayUnits } from '../units/units.ts';

export interface ReadNumbers {
  readonly numbers: readonly GivenNumber[];
  /** Lines that say no number, as sentences. */
  readonly unread: readonly string[];
}

const WORDS: Readonly<Record<string, GivenKind>> = {
  dia: 'diameter', diam: 'diameter', ø: 'diameter', d: 'diameter', rad: 'radius', r: 'radius', len: 'length', distance: 'length', l: 'length', width: 'length', height: 'length', depth: 'length', thickness: 'length', deg: 'angle', pieces: 'count', number: 'count', weight: 'mass',
}; // prettier-ignore
const kindOfWord = (word: string): GivenKind | null => {
  const plain = word.trim().toLowerCase().replaceAll(' ', '_');
  return GIVEN_KINDS.find((k) => k === plain) ?? (Object.hasOwn(WORDS, plain) ? WORDS[plain]! : null);
};

/** 4× Ø6.6 mm: how many, which sign, the number, its unit, and what is said of it. */
const LINE =
  /^(?:(\d{1,4})\s*[x×*]\s*)?(ø|⌀|Ø|dia\.?|sr|r)?\s*(\d+(?:[.,]\d+)?|\.\d+)\s*(mm|cm|m|in|ft|thou|"|″|°|deg|rad|kg|g)?(?:\s+(.*))?$/i;
const LENGTHS: Readonly<Record<string, string>> = { '"': 'in', '″': 'in' };
const MOST_LINES = 2000;

/**
 * Each line is one number. Columns, where there are any, are kind, value, how many and what it is of, in any order a
 * first line of titles gives, else in this one.
 */
export function readGivenNumbers(text: string, units: Pick<DisplayUnits, 'length' | 'angle'>): ReadNumbers {
  const delimiter = ['\t', ';', ','].find((d) => text.split('\n').some((line) => new RegExp(`[^\\d]${d}|${d}[^\\d]`).test(line))); // prettier-ignore
  const rows = delimiter
    ? Papa.parse<string[]>(text, { delimiter, skipEmptyLines: false }).data
    : text.split(/\r?\n/).map((line) => [line]);
  const numbers: GivenNumber[] = [];
  const unread: string[] = [];
  let columns = ['kind', 'value', 'times', 'note'];
  for (const [i, cells] of rows.slice(0, MOST_LINES).entries()) {
    const filled = cells.map((c) => c.trim());
    if (filled.every((c) => c === '')) continue;
    const titles = filled.map((c) => c.toLowerCase());
    if (i === 0 && titles.includes('value')) {
      columns = titles;
      continue;
    }
    const one = filled.length > 1 ? fromColumns(filled, columns, units) : fromLine(filled[0]!, null, units);
    if (one) numbers.push(one);
    else unread.push(`Line ${i + 1}, “${filled.join(' ').slice(0, 40)}”, says no number that could be read.`);
  }
  if (rows.length > MOST_LINES) unread.push(`Only the first ${MOST_LINES} lines were read.`);
  return { numbers, unread };
}

function fromColumns(
  cells: readonly string[],
  columns: readonly string[],
  units: Pick<DisplayUnits, 'length' | 'angle'>,
): GivenNumber | null {
  // prettier-ignore
  const at = (name: string) => cells[columns.indexOf(name)] ?? '';
  const kind = at('kind') === '' ? null : kindOfWord(at('kind'));
  if (kind === null && at('kind') !== '') return null;
  const one = fromLine(at('value'), kind, units);
  if (!one) return null;
  const times = at('times') === '' ? one.times : Number(at('times'));
  if (times !== undefined && !(Number.isInteger(times) && times >= 1 && times <= 1000)) return null;
  const { times: _, ...rest } = one;
  const note = at('note').slice(0, 120) || one.note;
  return { ...rest, ...(times !== undefined && times > 1 ? { times } : {}), ...(note ? { note } : {}) };
}

function fromLine(
  line: string,
  wanted: GivenKind | null,
  units: Pick<DisplayUnits, 'length' | 'angle'>,
): GivenNumber | null {
  // prettier-ignore
  const read = LINE.exec(line.trim());
  if (!read) return null;
  const [, count, sign = '', digits, unitTyped = '', note] = read;
  const unit = unitTyped.toLowerCase();
  const value = digits!.replace(',', '.');
  const isAngle = unit === '°' || unit === 'deg' || unit === 'rad';
  const isMass = unit === 'kg' || unit === 'g';
  const signed: GivenKind | null = /^s?r$/i.test(sign) ? 'radius' : sign !== '' ? 'diameter' : null;
  const kind = wanted ?? signed ?? (isAngle ? 'angle' : isMass ? 'mass' : 'length');
  // A sign or a unit that is of another kind than the column says was misread in one of them.
  if (signed && kind !== signed) return null;
  if (isAngle !== (kind === 'angle') && unit !== '') return null;
  if (isMass && kind !== 'mass') return null;
  if (kind === 'mass' && unit !== '' && !isMass) return null;
  if (kind === 'count' && (unit !== '' || !Number.isInteger(Number(value)))) return null;
  const times = count && Number(count) > 1 ? { times: Number(count) } : {};
  const said = note?.trim() ? { note: note.trim().slice(0, 120) } : {};
  return { kind, value: written(kind, value, unit, units), ...times, ...said };
}

function written(kind: GivenKind, value: string, unit: string, units: Pick<DisplayUnits, 'length' | 'angle'>): string {
  if (kind === 'count') return value;
  if (kind === 'mass') return unit === 'g' ? String(Number(value) / 1000) : value;
  if (kind === 'angle') return `${value} ${unit === 'rad' || (unit === '' && units.angle === 'rad') ? 'rad' : 'deg'}`;
  return `${value} ${unit === '' ? units.length : (LENGTHS[unit] ?? unit)}`;
}
