/** A body with some of its faces moved along their normals. */
import { StepFailure } from '../../names/body.ts';
import { LazyFacts } from '../../names/facts.ts';
import type { FaceParent, MadeSolid, SolidKernel } from '../../solid/kernel.ts';
import { slabOf, type Moved } from './slab.ts';

/** A body on its way, and which of the faces it had each face is. */
interface Way {
  readonly body: Moved;
  readonly origins: readonly (readonly number[])[];
}

/**
 * One face after the other, so that corners between faces that move go along.
 * @param by mm along their outward normals
 * @throws StepFailure, KernelError
 */
export function movedFaces(body: Moved, moved: readonly number[], by: number, kernel: SolidKernel): MadeSolid {
  let now: Way = { body, origins: body.faceNames.map((_, i) => [i]) };
  try {
    for (const face of moved) {
      const next = movedBy(now, face, by, kernel);
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

const RUNS_IN = 'Moved so far, these faces run into others; offset them by less, or choose others.';

function movedBy({ body, origins }: Way, face: number, by: number, kernel: SolidKernel): Way {
  const pieces = origins.flatMap((own, i) => (own.includes(face) ? [i] : []));
  const slabs: { solid: MadeSolid['solid']; moved: number }[] = [];
  try {
    for (const piece of pieces) slabs.push(slabOf(body, piece, by, kernel));
    const made = kernel.combine(by > 0 ? 'join' : 'cut', [body.solid], slabs.map((s) => s.solid)); // prettier-ignore
    const [only] = made;
    const facts = only && new LazyFacts(kernel, only.solid);
    if (made.length !== 1 || !facts || by > 0 !== facts.volume > body.facts.volume) {
      for (const { solid } of made) kernel.free(solid);
      throw new StepFailure(
        made.length > 1 ? 'Moved so far, these faces would cut the body apart; offset them by less.' : RUNS_IN,
      );
    }
    const next = only!.faces.map((parents) => [
      ...new Set(parents.flatMap(({ argument, index }) => argument === 0 ? origins[index]! : slabs[argument - 1]!.moved === index ? [face] : [])),
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
