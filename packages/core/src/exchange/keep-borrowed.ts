/** Cutting a borrowed part or sketch loose: what it is now is kept, and follows the other part no longer. */
import { gzipSync } from 'fflate';
import type { Design } from '../document/schema.ts';
import type { PartEvaluator } from '../evaluation/evaluate.ts';
import { Ledger } from '../ledger/ledger.ts';
import { isBorrowed } from '../names/borrowed.ts';
import type { Body } from '../names/body.ts';
import { storedFile } from '../slots/file/file.ts';
import type { Kept } from '../slots/kept/kept.ts';
import type { FaceFacts, SolidKernel } from '../solid/kernel.ts';
import { apart } from '../space/vector.ts';
import { outsideOf } from '../steps/slots-of.ts';
import { ExportFailure } from './export-failure.ts';

/** What a step borrows, as it is now and stands to its part. @throws ExportFailure, KernelError */
export async function keptOf(
  design: Design,
  part: string,
  stepId: string,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
): Promise<Kept> {
  const step = design.parts[part]?.steps[stepId];
  const [from] = step ? outsideOf(step) : [];
  if (!from) throw new ExportFailure('This step borrows nothing any more.');
  const name = design.parts[from.part]?.name ?? step!.name;
  const outcome = (await evaluator.evaluate(design, Ledger.of(design), part)).steps.find((s) => s.id === stepId);
  if (outcome?.status !== 'ok') throw new ExportFailure(`${step!.name} is not made now; mend that before you cut it loose.`); // prettier-ignore
  if (outcome.sketch) {
    const { frame, solution } = outcome.sketch;
    const { points, curves } = structuredClone(solution.geometry);
    const at = ([x, y, z]: readonly [number, number, number]): [number, number, number] => [x, y, z];
    return { name, sketch: { geometry: { points, curves }, frame: { origin: at(frame.origin), x: at(frame.x), y: at(frame.y), normal: at(frame.normal) } } }; // prettier-ignore
  }
  const own = outcome.bodies.filter((b) => isBorrowed(b) && b.name.step === stepId);
  const file = kernel.exportStep([{ name, color: '#808080', opacity: 1, solids: own.map((b) => b.solid) }]);
  if (!comesBack(file, own, kernel))
    throw new ExportFailure(`${name} cannot be kept: a file does not hold it exactly; leave it linked.`);
  try {
    const { gzip } = storedFile(name, gzipSync(file, { mtime: 0 }));
    const { bodies } = await evaluator.evaluate(design, Ledger.of(design), from.part);
    return { name, bodies: { gzip, names: bodies.map(namesOf) } };
  } catch (error) {
    if (error instanceof RangeError) throw new ExportFailure(`${name} is too large to be kept in this design; leave it linked.`); // prettier-ignore
    throw error;
  }
}

const namesOf = ({ name, faceNames }: Body) => ({
  body: name.text,
  faces: faceNames.map((names) => names.map((n) => n.text)),
});

/** Read again, are the solids and their faces the same, in the same order? */
function comesBack(file: Uint8Array, bodies: readonly Body[], kernel: SolidKernel): boolean {
  const { solids } = kernel.readStep(file);
  try {
    return (
      solids.length === bodies.length &&
      solids.every((solid, i) => {
        const faces = kernel.faces(solid);
        const before = bodies[i]!.facts.faces;
        return faces.length === before.length && faces.every((face, f) => isSame(face, before[f]!));
      })
    );
  } finally {
    for (const solid of solids) kernel.free(solid);
  }
}

/** Files hold numbers to about 15 digits. */
const SAME = 1e-6;
const isSame = (a: FaceFacts, b: FaceFacts): boolean =>
  a.kind === b.kind && Math.abs(a.area - b.area) <= SAME * (1 + b.area) && apart(a.center, b.center) <= SAME * (1 + Math.hypot(...b.center)); // prettier-ignore
