/** A flat face taken as a profile, as exactly as it is bounded. */
import { curveOfEdge, StepFailure, type Body } from '../../names/body.ts';
import { findFace, refOfFace } from '../../names/find-face.ts';
import type { Name } from '../../names/name.ts';
import type { FaceRef } from '../../references/references.ts';
import { addBorrowed } from '../../sketch/borrow/borrow.ts';
import { findRegions } from '../../sketch/regions/regions.ts';
import type { SketchGeometry } from '../../sketch/schema.ts';
import type { SolidKernel } from '../../solid/kernel.ts';
import { frameOfFace } from '../../space/planes.ts';
import type { Frame } from '../../space/vector.ts';
import { foundOrFail } from '../found.ts';
import type { Resolving } from '../resolving.ts';
import { flatten } from './flatten.ts';
import type { Area, Profile } from './profile.ts';

/** @throws StepFailure when it is lost, not flat, or bounded by curves that cannot be taken exactly */
export function profileOfFace(ref: FaceRef, slot: string, context: Resolving): Profile {
  const { body, face } = foundOrFail(
    findFace(ref, context.bodies),
    {
      slot,
      index: 0,
      what: 'The face this step starts from',
      stored: (f) => ({ face: refOfFace(f.body, f.face, context.bodies) }),
    },
    context,
  );
  const { frame, area, edges } = flatFace(body, face, context.kernel);
  const of = context.stepName(body.faceNames[face]![0]!.step);
  return { of, frame, areas: [area], chain: null, on: { body, edges } };
}

type FaceOf = Pick<Body, 'solid' | 'facts' | 'faceNames'>;

/** The whole of a flat face, on its plane. @throws StepFailure when it is not flat, or bounded by free curves */
export function flatFace(
  body: FaceOf,
  face: number,
  kernel: SolidKernel,
): { readonly frame: Frame; readonly area: Area; readonly edges: ReadonlyMap<string, number> } {
  const { center, normal, area } = body.facts.faces[face]!;
  if (!normal) throw new StepFailure('The face this step starts from is not flat any more; pick another.');
  const frame = frameOfFace(center, normal);
  const { geometry, called, edges } = outlineOf(body, face, frame, kernel);
  // The holes of the face close regions of their own.
  const off = (r: { area: number }) => Math.abs(r.area - area);
  const whole = [...findRegions(geometry).regions].sort((a, b) => off(a) - off(b))[0];
  if (!whole)
    throw new StepFailure('The outline of the face this step starts from does not close; sketch on it instead.');
  return { frame, area: { ...whole, parents: [body.faceNames[face]![0]!], called }, edges };
}

function outlineOf(body: FaceOf, face: number, frame: Frame, kernel: SolidKernel) {
  const geometry: SketchGeometry = { points: {}, curves: {}, constraints: {} };
  const called = new Map<string, Name>();
  const edges = new Map<string, number>();
  body.facts.edges.forEach((edge, i) => {
    if (!edge.faces.includes(face)) return;
    const piece = flatten(frame, curveOfEdge(body, i, kernel));
    if (piece.kind === 'spline')
      throw new StepFailure(
        'The face this step starts from is bounded by a free curve; sketch on it and borrow its edges.',
      );
    const loan = addBorrowed(geometry, { kind: 'face', face: { name: 'outline' } }, [{ piece, key: null }]);
    const [curve] = loan === null ? [] : geometry.borrowed![loan]!.of;
    const beyond = edge.faces.find((f) => f !== face) ?? face;
    if (curve === undefined) return;
    called.set(curve, body.faceNames[beyond]![0]!);
    edges.set(curve, i);
  });
  return { geometry, called, edges };
}
