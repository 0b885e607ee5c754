import { z } from 'zod';
import { ExtrudeStep } from './extrude/schema.ts';
import { SketchStep } from './sketch/schema.ts';

/** Every kind of step a recipe can hold. */
export const Step = z.discriminatedUnion('kind', [SketchStep, ExtrudeStep]);
export type Step = z.infer<typeof Step>;
export type StepKind = Step['kind'];
