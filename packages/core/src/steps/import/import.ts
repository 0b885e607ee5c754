/** Solids from a STEP file. */
import { hashText } from '../../ids/hash.ts';
import { StepFailure } from '../../names/body.ts';
import { BODY_ROLE } from '../../names/find-body.ts';
import { nameOf, type Name } from '../../names/name.ts';
import { file, type FileContent } from '../../slots/file/file.ts';
import type { FaceFacts, SolidBulk, SolidKernel } from '../../solid/kernel.ts';
import { productsIn } from './products.ts';
import { finish, resultSentence, resultSlots } from '../result/result.ts';
import { declareStep, type Fresh } from '../step.ts';

export const importStep = declareStep({
  kind: 'import',
  version: 1,
  label: 'Import',
  says: 'Solids from a STEP file, where they lie in it.',
  slots: { file: { of: file(), says: 'A STEP file.' }, ...resultSlots },
  // It begins from a file, not from picks.
  begin: () => null,
  sentence: (step) => ['Import', { slot: 'file' }, ...resultSentence(step)],
  tools: ({ file }, { kernel, stepId }) => read(file, kernel, stepId).fresh,
  make({ file, result, bodies }, context) {
    const { fresh, others } = read(file, context.kernel, context.stepId);
    const outcome = finish(result, bodies, fresh, context);
    const names = productsIn(file.bytes());
    const note = [
      ...(names.length > 0 ? [`The file calls ${fresh.length === 1 ? 'it' : 'them'} ${names.map((n) => `“${n}”`).join(', ')}.`] : []),
      ...(others === 1 ? ['A surface belongs to no solid and was left out.'] : []),
      ...(others > 1 ? [`${others} surfaces belong to no solid and were left out.`] : []),
      ...(outcome.note ? [outcome.note] : []),
    ]; // prettier-ignore
    return note.length > 0 ? { ...outcome, note: note.join(' ') } : outcome;
  },
});

/** @throws StepFailure, KernelError */
function read({ name, bytes }: FileContent, kernel: SolidKernel, stepId: string): { fresh: Fresh[]; others: number } {
  const { solids, others } = kernel.readStep(bytes());
  const refuse = (why: string): never => {
    for (const solid of solids) kernel.free(solid);
    throw new StepFailure(why);
  };
  if (solids.length === 0)
    refuse(others > 0 ? `${name} holds surfaces but no closed solid; save it as a solid without gaps.` : `${name} holds no shape; save it again, with the solid in it.`); // prettier-ignore
  const unsound = solids.findIndex((solid) => !kernel.isValid(solid));
  if (unsound >= 0)
    refuse(`${solids.length === 1 ? 'The solid' : `Solid ${unsound + 1} of ${solids.length}`} in ${name} is not sound: its faces do not close; mend it where it was made.`); // prettier-ignore
  const fresh = solids.map((solid): Fresh => {
    const named = solids.length === 1 ? 'only' : placeOf(kernel.bulk(solid));
    const faceNames = kernel.faces(solid).map((face): Name[] => [nameOf(stepId, 'face', [faceOf(face)])]);
    return { solid, faces: [], name: nameOf(stepId, BODY_ROLE, [named]), faceNames };
  });
  return { fresh, others };
}

/** Rounded so far, mm, files written by different programs agree. */
const DIGITS = 4;

/**
 * A face is known by what it is and where it lies, not by its place in the file: of a newer file the faces that stayed
 * are found again, and a face that changed is missed.
 */
function faceOf({ kind, area, center, radius }: FaceFacts): string {
  return digest([area, ...center, radius ?? 0], kind);
}

const placeOf = ({ volume, center }: SolidBulk): string => digest([volume, ...center]);

/** Nothing is below nothing: rounded, both are 0. */
const digest = (numbers: readonly number[], kind = '') =>
  hashText([kind, ...numbers.map((x) => (Math.round(x * 10 ** DIGITS) + 0).toString())].join());
