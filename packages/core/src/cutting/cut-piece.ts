/** A piece as it is cut: the outline of a flat face, how thick it is, and what of it no outline can say. */
import type { CutPiece } from '../document/outlines.ts';
import type { Design } from '../document/schema.ts';
import { evaluateAsMade } from '../evaluation/as-made.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import type { Known } from '../evaluation/known.ts';
import { ExportFailure } from '../exchange/export-failure.ts';
import { drawingOfFace, type FaceDrawing } from '../exchange/face-drawing.ts';
import type { Body } from '../names/body.ts';
import { findFace } from '../names/find-face.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { dot, minus } from '../space/vector.ts';

export interface PieceToCut {
  readonly name: string;
  readonly drawing: FaceDrawing;
  /** mm, to the farthest flat face that lies parallel behind it; null where there is none. */
  readonly thickness: number | null;
  /** mm² of the face, without its holes. */
  readonly area: number;
  /** What is amiss with it, as sentences. */
  readonly says: readonly string[];
}

/** Normals that differ by less are parallel; volumes of a plate by less, of the whole, are one. */
const PARALLEL = 1e-6;
const STRAIGHT = 1e-3;

/**
 * @param cut mm: its outline is drawn larger by half of it
 * @throws ExportFailure where it has no such outline; KernelError; Superseded
 */
export async function pieceToCut(
  design: Design,
  { part, face, sketch }: CutPiece,
  cut: number,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  known: Known<FaceDrawing>,
  hooks: EvaluationHooks = {},
): Promise<PieceToCut> {
  const own = design.parts[part];
  if (!own) throw new ExportFailure('This part is no longer in the design; take the piece off.');
  const { outcome } = await evaluateAsMade(design, part, evaluator, hooks);
  const { bodies, steps } = outcome;
  const failed = steps.find((s) => s.status === 'failed');
  if (failed) throw new ExportFailure(`A step of ${own.name} fails; mend it first.`);
  if (bodies.length === 0) throw new ExportFailure(`${own.name} has no body yet.`);
  const { body, index } = face ? pickedFace(face, bodies) : largestFlat(bodies);
  const drawn = sketch && steps.find((s) => s.id === sketch.id);
  if (sketch && !drawn?.sketch) throw new ExportFailure(`The sketch to be ${sketch.as === 'mark' ? 'marked' : 'engraved'} is not there any more, or fails; choose another.`); // prettier-ignore
  const key = [body.key, index, cut, drawn?.key ?? ''].join('|');
  const drawing = known.of(key, () => drawingOfFace(body, index, cut / 2, drawn?.sketch ?? null, kernel));
  const { area } = body.facts.faces[index]!;
  const thickness = thicknessBehind(body, index);
  const says: string[] = [];
  if (bodies.length > 1) says.push(`has ${bodies.length} bodies; only the one of this face is cut`);
  if (thickness === null) says.push('has no flat face behind this one: it is no plate');
  else if (Math.abs(body.facts.volume - area * thickness) > STRAIGHT * body.facts.volume)
    says.push('is not cut straight through everywhere: what is sunk, raised, rounded or slanted is not in its outline');
  if (drawing.closed > 0) says.push(`${drawing.closed} of its holes ${drawing.closed === 1 ? 'is' : 'are'} narrower than the cut, and missing`); // prettier-ignore
  if (drawing.free > 0) says.push(`${drawing.free} of its curves are drawn through places on them, not exactly`);
  return { name: own.name, drawing, thickness, area, says };
}

function pickedFace(face: NonNullable<CutPiece['face']>, bodies: readonly Body[]) {
  const finding = findFace(face, bodies);
  if (finding.how !== 'one') throw new ExportFailure('Its face is not found for sure in the finished part; pick it there again.'); // prettier-ignore
  return { body: finding.found.body, index: finding.found.face };
}

function largestFlat(bodies: readonly Body[]) {
  const flat = bodies.flatMap((body) => body.facts.faces.flatMap((f, index) => (f.normal ? [{ body, index, area: f.area }] : []))); // prettier-ignore
  if (flat.length === 0) throw new ExportFailure('It has no flat face to cut by.');
  return flat.reduce((best, f) => (f.area > best.area + PARALLEL ? f : best));
}

function thicknessBehind({ facts }: Body, index: number): number | null {
  const { normal, center } = facts.faces[index]!;
  const depths = facts.faces.flatMap((f) =>
    f.normal && dot(f.normal, normal!) < PARALLEL - 1 ? [dot(minus(center, f.center), normal!)] : [],
  );
  const deepest = Math.max(0, ...depths);
  return deepest > 0 ? deepest : null;
}
