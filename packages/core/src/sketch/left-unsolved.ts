/** Sketches that take too long to solve where one is: left as they are there, and solved by another. */
import type { SketchGeometry } from './schema.ts';

/** While `leavingUnsolved` runs: how many constraints a sketch may have to be solved, and whether one had more. */
let most = Infinity;
let left = false;

/**
 * Run something with sketches of more than so many constraints taken as they are drawn, unsolved.
 * @returns what came of it, and whether any was left: then it holds only once it is run again without this
 */
export function leavingUnsolved<T>(constraints: number, run: () => T): { readonly result: T; readonly left: boolean } {
  const before = { most, left };
  [most, left] = [constraints, false];
  try {
    const result = run();
    return { result, left };
  } finally {
    ({ most, left } = before);
  }
}

/** Is this sketch left as it is? */
export function isLeft(sketch: SketchGeometry): boolean {
  if (most === Infinity || Object.keys(sketch.constraints).length <= most) return false;
  left = true;
  return true;
}
