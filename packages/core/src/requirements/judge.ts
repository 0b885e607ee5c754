/** Does a requirement hold? */
import type { Quantity } from '../dimensions/evaluate.ts';
import { ExpressionError, tokenize } from '../dimensions/lexer.ts';
import type { Design } from '../document/schema.ts';
import { Ledger, type Value } from '../ledger/ledger.ts';
import { kindOfPowers, samePowers, type QuantityKind } from '../units/units.ts';

export type Sign = '<' | '<=' | '>' | '>=' | '==';

/** A requirement taken apart: one sign less than there are terms. */
export interface Comparison {
  readonly terms: readonly string[];
  readonly signs: readonly Sign[];
}

const SIGNS = new Set(['<', '<=', '>', '>=', '==']);
const MOST_TERMS = 4;
/**
 * Numbers nearer to each other than this share of the larger are the same: sums of decimals are not exact. Of numbers
 * below one (mm, rad) it is taken as it stands, or what is left of two that cancel would never be nought.
 */
const SAME = 1e-9;

/** @throws ExpressionError with a sentence when the text is no comparison */
export function comparisonOf(text: string): Comparison {
  const terms: string[] = [];
  const signs: Sign[] = [];
  let depth = 0;
  let from = 0;
  for (const token of tokenize(text)) {
    if (token.kind === 'open') depth++;
    if (token.kind === 'close') depth--;
    if (token.text === '!=' && depth === 0)
      throw new ExpressionError('A requirement is kept by “<”, “<=”, “>”, “>=” or “==”, not by “!=”.', token.from, token.to); // prettier-ignore
    if (depth > 0 || token.kind !== 'operator' || !SIGNS.has(token.text)) continue;
    terms.push(text.slice(from, token.from).trim());
    signs.push(token.text as Sign);
    from = token.to;
  }
  terms.push(text.slice(from).trim());
  if (signs.length === 0)
    throw new ExpressionError('A requirement compares two numbers, such as “wall >= 2 mm”.', 0, text.length);
  if (terms.length > MOST_TERMS)
    throw new ExpressionError(`A requirement compares ${MOST_TERMS} numbers at most; split it in two.`, 0, text.length);
  if (terms.some((t) => t === ''))
    throw new ExpressionError('A number is missing beside the sign of comparison.', 0, text.length);
  return { terms, signs };
}

/** The kind in which bare numbers of a comparison are read: that of the terms which say theirs. */
export function kindCompared(ledger: Ledger, terms: readonly string[]): QuantityKind | null {
  for (const term of terms) {
    const value = ledger.read(term, {}, null);
    if (value.ok && !value.quantity.bare) {
      const kind = kindOfPowers(value.quantity.powers);
      return kind === 'number' ? null : kind;
    }
  }
  return null;
}

export interface Judgement {
  readonly id: string;
  /** As people read it. */
  readonly says: string;
  /** null when it cannot be told. */
  readonly holds: boolean | null;
  /** What its terms are now, or why it cannot be told, as a sentence. */
  readonly because: string;
}

/** Every requirement of a design, by its numbers as they are. */
export function judgeRequirements(design: Design): readonly Judgement[] {
  const { rows = {}, order = [] } = design.requirements ?? {};
  const ledger = Ledger.of(design);
  return order.map((id) => judge(ledger, id, rows[id]!.says));
}

function judge(ledger: Ledger, id: string, stored: string): Judgement {
  const says = ledger.shownAt(stored, {});
  const untold = (because: string): Judgement => ({ id, says, holds: null, because });
  try {
    const { terms, signs } = comparisonOf(stored);
    const kind = kindCompared(ledger, terms);
    const values = terms.map((term) => {
      const value = ledger.read(term, {}, null);
      return value.ok && value.quantity.bare ? ledger.read(term, {}, kind) : value;
    });
    const wrong = values.find((v) => !v.ok);
    if (wrong && !wrong.ok) return untold(wrong.message);
    const numbers = values.map((v) => (v as Value & { ok: true }).quantity);
    if (numbers.some((n) => !samePowers(n.powers, numbers[0]!.powers)))
      return untold('It compares numbers of different kinds; write them in the same kind of unit.');
    const holds = signs.every((sign, i) => isKept(sign, numbers[i]!.value, numbers[i + 1]!.value));
    return { id, says, holds, because: comparedIn(ledger, signs, numbers) };
  } catch (error) {
    if (error instanceof ExpressionError) return untold(error.message);
    throw error;
  }
}

function isKept(sign: Sign, a: number, b: number): boolean {
  const same = Math.abs(a - b) <= SAME * Math.max(1, Math.abs(a), Math.abs(b));
  if (sign === '==') return same;
  if (sign === '<=' || sign === '>=') return same || (sign === '<=' ? a < b : a > b);
  return !same && (sign === '<' ? a < b : a > b);
}

/** The comparison with its numbers in place of its names: “1.8 mm >= 2 mm”. */
function comparedIn(ledger: Ledger, signs: readonly Sign[], numbers: readonly Quantity[]): string {
  const shown = numbers.map((quantity) => ledger.format({ ok: true, quantity }));
  return shown.map((text, i) => (i < signs.length ? `${text} ${signs[i]}` : text)).join(' ');
}
