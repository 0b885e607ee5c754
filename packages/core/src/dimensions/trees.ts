/** Expressions read once: equal texts have equal trees, in whatever document. */
import { ExpressionError } from './lexer.ts';
import { namesIn, parseExpression, type Expression } from './parser.ts';

const KEPT = 20_000;
const trees = new Map<string, Expression | ExpressionError>();

/** The tree of a text, or why it has none. */
export function treeOf(text: string): Expression | ExpressionError {
  let tree = trees.get(text);
  if (!tree) {
    try {
      tree = parseExpression(text);
    } catch (error) {
      if (!(error instanceof ExpressionError)) throw error;
      tree = error;
    }
    if (trees.size >= KEPT) trees.clear();
    trees.set(text, tree);
  }
  return tree;
}

const bound = new WeakMap<object, boolean>();

/** Does it name dimensions by id alone, so that no renaming can change what it means? */
export function isBound(text: string): boolean {
  const tree = treeOf(text);
  if (tree instanceof ExpressionError) return false;
  let is = bound.get(tree);
  if (is === undefined) {
    is = namesIn(tree).every((node) => node.name.startsWith('$'));
    bound.set(tree, is);
  }
  return is;
}
