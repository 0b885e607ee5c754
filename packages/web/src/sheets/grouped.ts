/** What lies on the paper, made ready for the screen. */
import { sheetPath, type OnPaper, type PENS } from '@helb/core';

/**
 * One path a pen, and the words: few elements, whatever is drawn.
 * @param height of the paper, mm: y runs down on the screen
 */
export function grouped(items: readonly OnPaper[], height: number) {
  const paths = new Map<keyof typeof PENS, string[]>();
  const filled: string[] = [];
  const texts: Extract<OnPaper, { is: 'text' }>[] = [];
  for (const item of items) {
    if (item.is === 'text') texts.push(item);
    else if (item.is === 'filled') filled.push(`M ${item.points.map(([x, y]) => `${x} ${height - y}`).join(' L ')} Z`);
    else {
      const own = paths.get(item.pen) ?? [];
      own.push(sheetPath(item.piece, height));
      paths.set(item.pen, own);
    }
  }
  return { paths: [...paths].map(([pen, all]) => ({ pen, d: all.join(' ') })), filled: filled.join(' '), texts };
}
