/** Names and functions that may be meant by what has been typed so far. */
import { FUNCTION_NAMES } from '../dimensions/evaluate.ts';
import { reachedFrom } from './changed.ts';
import type { DimensionEntry } from './entries.ts';
import type { Ledger } from './ledger.ts';
import { scopeOf } from './names.ts';

export interface Suggestion {
  /** What would stand in the text. */
  readonly text: string;
  /** Its value, or what it is. */
  readonly about: string;
  /** The dimension it names; null for a function. */
  readonly ref: string | null;
}

export interface Suggestions {
  /** The part of the text they would replace. */
  readonly from: number;
  readonly to: number;
  readonly list: readonly Suggestion[];
}

const MOST = 8;
const WORD_BEFORE = /[\p{L}_][\p{L}\p{N}_.]*$/u;
const WORD_AFTER = /^[\p{L}\p{N}_.]*/u;

/**
 * @param entry the dimension whose expression is typed; what hangs on it is left out, as it would go in a circle
 * @param caret place in the text, counted in UTF-16 units
 */
export function suggestNames(ledger: Ledger, entry: DimensionEntry, text: string, caret: number): Suggestions {
  const word = WORD_BEFORE.exec(text.slice(0, caret))?.[0] ?? '';
  const from = caret - word.length;
  const to = caret + WORD_AFTER.exec(text.slice(caret))![0].length;
  // A number before the word makes it a unit: 2 mm.
  if (word === '' || /[\d.]\s*$/.test(text.slice(0, from))) return { from, to: caret, list: [] };
  const wanted = word.toLowerCase();
  const circle = reachedFrom([entry.ref], (ref) => ledger.usersOf(ref));
  const ranked: { entry: DimensionEntry; rank: number }[] = [];
  for (const other of ledger.entries) {
    const rank = rankOf(other, entry, wanted);
    if (rank !== null && !circle.has(other.ref)) ranked.push({ entry: other, rank });
  }
  ranked.sort((a, b) => a.rank - b.rank);
  const names: Suggestion[] = ranked.slice(0, MOST).map(({ entry: other }) => ({
    text: ledger.index.nameFrom(other, scopeOf(entry)),
    about: ledger.format(ledger.valueOfEntry(other)),
    ref: other.ref,
  }));
  const functions = FUNCTION_NAMES.filter((name) => name.startsWith(wanted)).map((name) => ({
    text: `${name}(`,
    about: 'function',
    ref: null,
  }));
  const list = [...names, ...functions].slice(0, MOST);
  // What is written out in full needs no suggestion.
  return { from, to, list: list.length === 1 && list[0]!.text === word ? [] : list };
}

/** Smaller is likelier: names that begin so before those that contain it, near ones before far ones. */
function rankOf(other: DimensionEntry, entry: DimensionEntry, wanted: string): number | null {
  const name = other.name.toLowerCase();
  const path = other.path.join('.').toLowerCase();
  const match = name.startsWith(wanted) ? 0 : path.includes(`.${wanted}`) || path.startsWith(wanted) ? 1 : 2;
  if (match === 2 && !path.includes(wanted)) return null;
  const [mine, its] = [entry.owner, other.owner];
  const samePart = 'part' in mine && 'part' in its && mine.part === its.part;
  const near = samePart ? 0 : its.level === 'design' || its.level === 'project' ? 1 : 2;
  return match * 10 + near + (other.dial ? -0.5 : 0) + (its.level === 'slot' ? 0.4 : 0);
}
