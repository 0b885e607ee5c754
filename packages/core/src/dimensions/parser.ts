/**
 * Reads an expression into a tree. Precedence, weakest first: comparison, sum,
 * product, sign, power. A number followed by a unit binds tightest, and so do
 * mixed numbers and mixed units: `2 1/8 in`, `5 ft 3 in`.
 */
import { unitNamed } from '../units/units.ts';
import { ExpressionError, tokenize, type Token } from './lexer.ts';

export interface Span {
  readonly from: number;
  readonly to: number;
}

export type Expression = Span &
  (
    | { readonly kind: 'number'; readonly value: number }
    | { readonly kind: 'measure'; readonly value: number; readonly unit: string }
    | { readonly kind: 'name'; readonly name: string }
    | { readonly kind: 'negate'; readonly operand: Expression }
    | { readonly kind: 'binary'; readonly operator: string; readonly left: Expression; readonly right: Expression }
    | { readonly kind: 'call'; readonly name: string; readonly args: readonly Expression[] }
  );

/** Deeper nesting than any formula a person writes; keeps recursion far from the stack's end. */
const MAX_DEPTH = 60;

const BINARY: Readonly<Record<string, number>> = {
  '<': 1, '>': 1, '<=': 1, '>=': 1, '==': 1, '!=': 1,
  '+': 2, '-': 2,
  '*': 3, '/': 3,
}; // prettier-ignore
const SIGN_STRENGTH = 4;

class Parser {
  private at = 0;
  private depth = 0;
  constructor(
    private readonly tokens: readonly Token[],
    private readonly text: string,
  ) {}

  private peek(ahead = 0): Token {
    return this.tokens[Math.min(this.at + ahead, this.tokens.length - 1)]!;
  }

  private next(): Token {
    const token = this.peek();
    this.at++;
    return token;
  }

  whole(): Expression {
    if (this.peek().kind === 'end') {
      throw new ExpressionError('Type a number or an expression, such as 6 mm or width / 2.', 0, this.text.length);
    }
    const tree = this.expression(0);
    const rest = this.peek();
    if (rest.kind !== 'end') {
      throw new ExpressionError(
        rest.kind === 'close'
          ? 'This bracket closes nothing.'
          : `An operator such as + or * is missing before “${rest.text}”.`,
        rest.from,
        rest.to,
      );
    }
    return tree;
  }

  private expression(strength: number): Expression {
    if (++this.depth > MAX_DEPTH) {
      throw new ExpressionError(
        'This expression is nested too deeply; split it into named dimensions.',
        0,
        this.text.length,
      );
    }
    let left = this.signed();
    for (;;) {
      const token = this.peek();
      const own = token.kind === 'operator' ? BINARY[token.text] : undefined;
      if (own === undefined || own <= strength) break;
      this.next();
      const right = this.expression(own);
      left = { kind: 'binary', operator: token.text, left, right, from: left.from, to: right.to };
    }
    this.depth--;
    return left;
  }

  private signed(): Expression {
    const token = this.peek();
    if (token.kind === 'operator' && (token.text === '-' || token.text === '+')) {
      this.next();
      const operand = this.expression(SIGN_STRENGTH);
      return token.text === '+' ? operand : { kind: 'negate', operand, from: token.from, to: operand.to };
    }
    return this.power();
  }

  private power(): Expression {
    const base = this.primary();
    const token = this.peek();
    if (token.kind !== 'operator' || token.text !== '^') return base;
    this.next();
    const exponent = this.expression(SIGN_STRENGTH);
    // 36 mm^2 is thirty-six square millimetres: the power belongs to the unit, as people write it.
    if (base.kind === 'measure' && !this.inBrackets(base)) {
      const unit: Expression = { ...base, value: 1 };
      const power: Expression = { kind: 'binary', operator: '^', left: unit, right: exponent, from: base.from, to: exponent.to }; // prettier-ignore
      const times: Expression = { kind: 'number', value: base.value, from: base.from, to: base.to };
      return { kind: 'binary', operator: '*', left: times, right: power, from: base.from, to: exponent.to };
    }
    return { kind: 'binary', operator: '^', left: base, right: exponent, from: base.from, to: exponent.to };
  }

  private inBrackets(node: Span): boolean {
    return this.text[node.from] === '(';
  }

  private primary(): Expression {
    const token = this.next();
    if (token.kind === 'number') return this.measure(token);
    if (token.kind === 'name') return this.peek().kind === 'open' ? this.call(token) : this.named(token);
    if (token.kind === 'open') {
      const inner = this.expression(0);
      const close = this.next();
      if (close.kind !== 'close') throw new ExpressionError('A closing bracket is missing.', token.from, token.to);
      return { ...inner, from: token.from, to: close.to };
    }
    if (token.kind === 'end') {
      throw new ExpressionError(
        'The expression stops too early; a number or a name is missing at the end.',
        token.from,
        token.to,
      );
    }
    throw new ExpressionError(`A number or a name is missing before “${token.text}”.`, token.from, token.to);
  }

  private named(token: Token): Expression {
    return { kind: 'name', name: token.text, from: token.from, to: token.to };
  }

  private call(name: Token): Expression {
    const open = this.next();
    const args: Expression[] = [];
    if (this.peek().kind !== 'close') {
      do args.push(this.expression(0));
      while (this.peek().kind === 'comma' && this.next());
    }
    const close = this.next();
    if (close.kind !== 'close') throw new ExpressionError('A closing bracket is missing.', open.from, open.to);
    return { kind: 'call', name: name.text, args, from: name.from, to: close.to };
  }

  /** `6`, `6 mm`, `2 1/8 in`, `5/16 in` (a plain quotient then a unit), `5 ft 3 in`. */
  private measure(first: Token): Expression {
    let value = Number(first.text);
    let end = first;
    if (this.isFraction(0)) {
      const above = this.next();
      this.next();
      const below = this.next();
      value += Number(above.text) / Number(below.text);
      end = below;
    } else if (this.isSimpleQuotientWithUnit()) {
      this.next();
      const below = this.next();
      value /= Number(below.text);
      end = below;
    }
    const unit = this.unitAhead();
    if (!unit) return { kind: 'number', value, from: first.from, to: end.to };
    this.next();
    const own: Expression = { kind: 'measure', value, unit: unit.text, from: first.from, to: unit.to };
    // A second measure directly behind feet is added: 5 ft 3 in.
    if (unit.text === 'ft' && this.peek().kind === 'number') {
      const inches = this.measure(this.next());
      if (inches.kind === 'measure' && (inches.unit === 'in' || inches.unit === 'inch')) {
        return { kind: 'binary', operator: '+', left: own, right: inches, from: own.from, to: inches.to };
      }
      throw new ExpressionError('Feet can be followed by inches only, as in 5 ft 3 in.', inches.from, inches.to);
    }
    return own;
  }

  private unitAhead(): Token | undefined {
    const token = this.peek();
    return token.kind === 'name' && unitNamed(token.text) ? token : undefined;
  }

  private isInteger(token: Token): boolean {
    return token.kind === 'number' && /^\d+$/.test(token.text);
  }

  private isFraction(ahead: number): boolean {
    return (
      this.isInteger(this.peek(ahead)) &&
      this.peek(ahead + 1).text === '/' &&
      this.isInteger(this.peek(ahead + 2)) &&
      Number(this.peek(ahead + 2).text) !== 0
    );
  }

  /** In `5/16 in` the unit belongs to the whole fraction; otherwise `/ 16 in` would make 1/length. */
  private isSimpleQuotientWithUnit(): boolean {
    const after = this.peek(2);
    return (
      this.peek().text === '/' &&
      this.isInteger(this.peek(1)) &&
      Number(this.peek(1).text) !== 0 &&
      after.kind === 'name' &&
      unitNamed(after.text) !== undefined
    );
  }
}

/**
 * Read `text` into a tree.
 * @throws ExpressionError with the place marked.
 */
export function parseExpression(text: string): Expression {
  return new Parser(tokenize(text), text).whole();
}

/** Every name the tree mentions, in reading order. */
export function namesIn(tree: Expression): Extract<Expression, { kind: 'name' }>[] {
  switch (tree.kind) {
    case 'name':
      return [tree];
    case 'negate':
      return namesIn(tree.operand);
    case 'binary':
      return [...namesIn(tree.left), ...namesIn(tree.right)];
    case 'call':
      return tree.args.flatMap(namesIn);
    default:
      return [];
  }
}
