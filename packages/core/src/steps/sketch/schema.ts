import { z } from 'zod';
import { SketchGeometry } from '../../sketch/schema.ts';
import { FaceRef, stepBase } from '../slots.ts';

export const DATUM_PLANES = ['floor', 'wall', 'side'] as const;

export const PlaneRef = z.union([
  z.strictObject({ datum: z.enum(DATUM_PLANES) }).describe('floor: x→X, y→Y. wall: x→X, y→Z. side: x→Y, y→Z.'),
  z.strictObject({ face: FaceRef }).describe('A planar face of this part.'),
]);
export type PlaneRef = z.infer<typeof PlaneRef>;

export const SketchStep = z
  .strictObject({ ...stepBase, kind: z.literal('sketch'), plane: PlaneRef, ...SketchGeometry.shape })
  .describe('A drawing on a plane, from which other steps take regions.');
export type SketchStep = z.infer<typeof SketchStep>;
