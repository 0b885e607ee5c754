/** A body with some of its faces moved along their normals. */
import { StepFailure } from '../../names/body.ts';
import { LazyFacts } from '../../names/facts.ts';
import type { FaceParent, MadeSolid, SolidKernel } from '../../solid/kernel.ts';
import { isAdding, slabOf, type Moved, type Slab, type Target } from './slab.ts';

/** A body on its way, and which of the faces it had each face is. */
interface Way {
  readonly body: Moved;
  readonly origins: readonly (readonly number[])[];
}

/**
 * One face after the other, so that corners between faces that move go along.
 * @param targets of each face where it goes, one after the other
 * @throws StepFailure, KernelError
 */
export function movedFaces(
  body: Moved,
  moved: readonly (readonly [face: number, targets: readonly Target[]])[],
  kernel: SolidKernel,
): MadeSolid {
  let now: Way = { body, origins: body.faceNames.map((_, i) => [i]) };
  try {
    for (const [face, targets] of moved)
      for (const target of targets) {
        const next = movedTo(now, face, target, kernel);
        if (now.body !== body) kernel.free(now.body.solid);
        now = next;
      }
  } catch (error) {
    if (now.body !== body) kernel.free(now.body.solid);
    throw error;
  }
  const faces = now.origins.map((own) =>
    own.map((index): FaceParent => ({ argument: 0, kind: 'face', index, how: 'modified' })),
  );
  return { solid: now.body.solid, faces };
}

const RUNS_IN = 'Moved so far, these faces run into others; move them by less, or choose others.';

function movedTo({ body, origins }: Way, face: number, target: Target, kernel: SolidKernel): Way {
  const adds = isAdding(target);
  const pieces = origins.flatMap((own, i) => (own.includes(face) ? [i] : []));
  const slabs: Slab[] = [];
  try {
    for (const piece of pieces) slabs.push(slabOf(body, piece, target, kernel));
    const made = kernel.combine(adds ? 'join' : 'cut', [body.solid], slabs.map((s) => s.solid)); // prettier-ignore
    const [only] = made;
    const facts = only && new LazyFacts(kernel, only.solid);
    if (made.length !== 1 || !facts || adds !== facts.volume > body.facts.volume) {
      for (const { solid } of made) kernel.free(solid);
      throw new StepFailure(
        made.length > 1 ? 'Moved so far, these faces would cut the body apart; move them by less.' : RUNS_IN,
      );
    }
    const cameFrom = ({ moved, carries }: Slab, index: number) => {
      const carried = carries[index] ?? null;
      return moved === index ? [face] : carried === null ? [] : origins[carried]!;
    };
    const next = only!.faces.map((parents) => [
      ...new Set(parents.flatMap(({ argument, index }) => (argument === 0 ? origins[index]! : cameFrom(slabs[argument - 1]!, index)))),
    ]); // prettier-ignore
    if (!next.some((own) => own.includes(face))) {
      kernel.free(only!.solid);
      throw new StepFailure(RUNS_IN);
    }
    // An outline is taken with names on it; which, does not matter here.
    const faceNames = next.map(() => body.faceNames[0]!);
    return { body: { solid: only!.solid, facts, faceNames }, origins: next };
  } finally {
    for (const { solid } of slabs) kernel.free(solid);
  }
}
