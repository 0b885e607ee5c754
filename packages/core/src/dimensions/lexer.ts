/** Splits an expression into tokens that remember where they stood. */

export type TokenKind = 'number' | 'name' | 'operator' | 'open' | 'close' | 'comma' | 'end';

export interface Token {
  readonly kind: TokenKind;
  readonly text: string;
  readonly from: number;
  readonly to: number;
}

/** An expression that cannot be read or computed; `from`/`to` mark the place in its text. */
export class ExpressionError extends Error {
  constructor(
    message: string,
    readonly from: number,
    readonly to: number,
  ) {
    super(message);
  }
}

/** Long enough for any honest formula, short enough that reading it is instant. */
export const MAX_EXPRESSION_LENGTH = 500;

const NUMBER = /(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?/y;
/** `plate_thk`, `bracket.width`; `$` begins a stored reference to a dimension by id. */
const NAME = /[$\p{L}_][\p{L}\p{N}_]*(?:\.[\p{L}_][\p{L}\p{N}_-]*)*/uy;
const OPERATOR = /<=|>=|==|!=|[-+*/^<>]/y;

const SAME_AS: Readonly<Record<string, string>> = { '−': '-', '·': '*', '×': '*', '÷': '/' };
const SIGN_UNITS: Readonly<Record<string, string>> = { '"': 'in', '″': 'in', "'": 'ft', '′': 'ft', '°': 'deg' };

/**
 * @throws ExpressionError at a character that has no meaning, or for a text over
 * MAX_EXPRESSION_LENGTH.
 */
export function tokenize(text: string): Token[] {
  if (text.length > MAX_EXPRESSION_LENGTH) {
    throw new ExpressionError(
      `This expression is longer than ${MAX_EXPRESSION_LENGTH} characters; split it into named dimensions.`,
      MAX_EXPRESSION_LENGTH,
      text.length,
    );
  }
  const tokens: Token[] = [];
  let at = 0;
  const push = (kind: TokenKind, length: number, as = text.slice(at, at + length)) => {
    tokens.push({ kind, text: as, from: at, to: at + length });
    at += length;
  };
  const match = (pattern: RegExp): number => {
    pattern.lastIndex = at;
    return pattern.exec(text)?.[0].length ?? 0;
  };
  while (at < text.length) {
    const char = text[at]!;
    if (/\s/.test(char)) {
      at++;
      continue;
    }
    const number = match(NUMBER);
    if (number) {
      push('number', number);
      continue;
    }
    const name = match(NAME);
    if (name) {
      push('name', name);
      continue;
    }
    const operator = match(OPERATOR);
    if (operator) push('operator', operator);
    else if (SAME_AS[char]) push('operator', 1, SAME_AS[char]);
    else if (SIGN_UNITS[char]) push('name', 1, SIGN_UNITS[char]);
    else if (char === '(') push('open', 1);
    else if (char === ')') push('close', 1);
    else if (char === ',' || char === ';') push('comma', 1);
    else throw new ExpressionError(`“${char}” has no meaning in an expression.`, at, at + 1);
  }
  tokens.push({ kind: 'end', text: '', from: text.length, to: text.length });
  return tokens;
}
