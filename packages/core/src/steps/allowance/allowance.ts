/** An allowance for making: picked faces give way for a fit, beside the nominal sizes. */
import { StepFailure } from '../../names/body.ts';
import { choice, holds } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { dot, minus } from '../../space/vector.ts';
import { acrossOf, FITS, HOLE_AND_SHAFT, PROCESSES, type FitName, type Process } from '../../standards/fits.ts';
import { facesPicked } from '../begin.ts';
import { refuseLeaning } from '../offset/beside.ts';
import { movedFaces } from '../offset/moved.ts';
import { byBody, inMm, rework } from '../rework/rework.ts';
import type { FaceFacts } from '../../solid/kernel.ts';
import { declareStep } from '../step.ts';

const OWN = 'own';
export type AllowedFit = FitName | typeof OWN;
/** Where the faces give way: in the model shown, in what is exported, or nowhere. */
export const APPLIED = {
  model: 'show it in the model',
  exports: 'take it in exports only',
  neither: 'take it nowhere yet',
};
export type Applied = keyof typeof APPLIED;

const CARE = 'A press fit loads both parts; Helb computes no strength: follow licensed practice.';
/** Less, mm, is nothing. */
const LEAST = 1e-9;

export const allowance = declareStep({
  kind: 'allowance',
  version: 1,
  label: 'Allowance',
  says: 'Faces give way for a fit, each by half of what it leaves across: kept beside the nominal sizes, and taken in the model, in exports, or nowhere.',
  slots: {
    faces: { of: faces('A face this step lets give way') },
    fit: { of: choice<AllowedFit>({ ...FITS, [OWN]: 'gap across of' }), otherwise: () => 'sliding' as const },
    across: {
      of: expression('length'),
      when: holds('fit', OWN),
      otherwise: () => '0.2 mm',
      says: 'How much wider the outer part is than the inner one; negative where they press.',
    },
    process: { of: choice<Process>(PROCESSES), when: (step) => step.fit !== OWN, otherwise: () => 'milled' as const },
    cut: {
      of: expression('length'),
      when: (step) => step.fit !== OWN && step.process === 'laser',
      otherwise: () => '0 mm',
      says: 'How wide the beam cuts where it runs on the drawn line: so much is taken by the cut itself.',
    },
    applied: { of: choice<Applied>(APPLIED), otherwise: () => 'exports' as const },
  },
  begin(from) {
    const picked = facesPicked(from);
    if (!picked || !from.picks.every((p) => p.kind === 'face' && (p.flat || p.round))) return null;
    return { faces: picked, fit: 'sliding', process: 'milled', applied: 'exports' };
  },
  sentence: (step) => [
    'Allow',
    { slot: 'faces' },
    'a',
    { slot: 'fit' },
    ...(step.fit === OWN ? [{ slot: 'across' }] : ['as', { slot: 'process' }]),
    ...(step.fit !== OWN && step.process === 'laser' ? ['with a beam of', { slot: 'cut' }, 'on the line'] : []),
    'and',
    { slot: 'applied' },
  ],
  make({ faces: picked, fit = 'sliding', across, process = 'milled', cut = 0, applied = 'exports' }, context) {
    const widths = picked.map((f) => sizeOf(f.body.facts.faces[f.face]!, picked.map((p) => p.body.facts.faces[p.face]!))); // prettier-ignore
    const gaps = widths.map((size) => gapAcross({ fit, across, process, cut }, size));
    const words = `${saysGaps(gaps)}${fit !== OWN && process === 'milled' ? ` by ${HOLE_AND_SHAFT[fit]}` : ''}`;
    const note = gaps.some((gap) => gap < 0) ? { note: CARE } : {};
    if (applied !== 'model' || gaps.every((gap) => Math.abs(gap) < LEAST)) {
      return { made: [], used: [], tells: `${words}; the sizes here stay nominal.`, ...note };
    }
    const gapOf = new Map(picked.map((f, i) => [f, gaps[i]!]));
    const result = rework(byBody(picked), {}, context, (body, own) => {
      refuseLeaning(body, new Set(own.map((f) => f.face)), (face) => context.stepName(body.faceNames[face]![0]!.step));
      const moves = new Map(own.map((f) => [f.face, -gapOf.get(f)! / 2]));
      return movedFaces(body, [...moves].filter(([, by]) => Math.abs(by) > LEAST / 2).map(([face, by]) => [face, [{ by }]] as const), context.kernel); // prettier-ignore
    });
    return { ...result, tells: `${words}, taken in what is drawn here.`, ...note };
  },
});

/** “0.025 mm across, 0.0125 mm off each face” */
function saysGaps(gaps: readonly number[]): string {
  const all = [...new Set(gaps.map((gap) => inMicrons(gap)))];
  const [first] = gaps;
  const off = all.length > 1 ? 'half of it' : inMicrons(Math.abs(first! / 2));
  const way = gaps.every((gap) => gap < 0) ? 'onto' : 'off';
  return `${all.slice(0, 4).join(', ')} across, ${off} ${way} ${gaps.length > 1 ? 'each face' : 'the face'}`;
}
const inMicrons = (mm: number) => inMm(Number(mm.toFixed(4)));

/**
 * What a fit leaves across a face of this size, mm; negative where it presses.
 * @throws StepFailure where the table has nothing for it
 */
export function gapAcross(
  { fit, across, process, cut }: { readonly fit: AllowedFit; readonly across: number | undefined; readonly process: Process; readonly cut: number }, // prettier-ignore
  size: number | null,
): number {
  if (fit === OWN) return across ?? 0;
  const gap = acrossOf(fit, process, size);
  if (gap !== null) return gap - cut;
  throw new StepFailure(
    size === null
      ? 'A milled fit goes by the width: pick both faces across it, or choose “gap across of” and give it.'
      : `The table of fits has nothing for ${inMm(size)}; choose “gap across of” and give it.`,
  );
}

/** Diameter of a round face, or how far a flat one is from the picked one across from it, mm; null where none is. */
export function sizeOf(face: FaceFacts, picked: readonly FaceFacts[]): number | null {
  if (face.radius !== null) return 2 * face.radius;
  const across = picked.filter((f) => f.normal && face.normal && dot(f.normal, face.normal) < -1 + 1e-9);
  const widths = across.map((f) => Math.abs(dot(minus(f.center, face.center), face.normal!)));
  return widths.length > 0 ? Math.min(...widths) : null;
}
