/** Solids of sides that are told place by place: fitted, and sewn to their flat ends. */
import { KernelError, type FaceParent, type Woven, type WovenCap } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { facesOf, ShapeIndex } from './explore.ts';
import { cap, side, type Made } from './extrude.ts';
import { fittedSurface } from './fitted-surface.ts';
import { moved } from './place.ts';
import { faceOfLoops } from './profile.ts';
import { sewnSolid } from './sewn.ts';
import type { Scope } from './scope.ts';
import { faceOfPoles } from './spline-surface.ts';

/** @throws KernelError */
export function wovenSolid(oc: OpenCascadeInstance, scope: Scope, { sides, start, end }: Woven): Made {
  const all = sides.map((one): { face: TopoDS_Shape; from: FaceParent } => {
    const { rows, u, v } = fittedSurface(one);
    return { face: faceOfPoles(oc, scope, rows, u, v), from: side(one.piece) };
  });
  const capOf = ({ frame, loops, to }: WovenCap) => moved(oc, scope, faceOfLoops(oc, scope, frame, loops).face, to);
  all.push({ face: scope.keep(capOf(start)), from: cap('start') }, { face: scope.keep(capOf(end)), from: cap('end') });
  const failed = () => new KernelError('The kernel could not close the sides of this body; change what leads them a little.'); // prettier-ignore
  const { solid: shape, became } = sewnSolid(oc, scope, all.map((a) => a.face), failed); // prettier-ignore
  const index = new ShapeIndex(oc, facesOf(oc, scope, shape));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  for (const { face, from } of all) parents[index.indexOf(became(face))]?.push(from);
  return { shape, faces: parents };
}
