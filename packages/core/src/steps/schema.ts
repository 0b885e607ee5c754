/** Steps as the document holds them, by what their kinds declare. */
import { z } from 'zod';
import { DimensionName } from '../dimensions/expression.ts';
import { mapOf } from '../ids/limits.ts';
import { Name } from '../ids/name.ts';
import type { SketchGeometry } from '../sketch/schema.ts';
import type { PlaneRef } from '../slots/plane/plane.ts';
import type { StepData } from '../slots/slot.ts';
import { stepKinds } from './register.ts';
import type { StepKind } from './step.ts';

const MOST_NAMED_NUMBERS = 100;

const base = {
  name: Name,
  suppressed: z.boolean().optional().describe('true: left out as if it were not there'),
  group: Name.optional().describe('Steps that follow one another and name the same group are shown under that name.'),
};

const names = mapOf(z.string().max(40), DimensionName, MOST_NAMED_NUMBERS)
  .optional()
  .describe('Names of its numbers in the ledger, by slot, where they are not the slot’s own.');

function schemaOf(kind: StepKind): z.ZodType<StepData> {
  const fields: Record<string, z.ZodType> = {};
  for (const [name, slot] of Object.entries(kind.slots)) {
    for (const [key, schema] of Object.entries(slot.of.fields(name))) {
      const field = slot.when || slot.otherwise !== undefined ? schema.optional() : schema;
      fields[key] = slot.says ? field.describe(slot.says) : field;
    }
  }
  const own = z.strictObject({ ...base, names, kind: z.literal(kind.kind), ...fields }).describe(kind.says);
  return own as unknown as z.ZodType<StepData>;
}

const schemas = new WeakMap<StepKind, z.ZodType<StepData>>();

function knownSchema(kind: StepKind): z.ZodType<StepData> {
  let schema = schemas.get(kind);
  if (!schema) schemas.set(kind, (schema = schemaOf(kind)));
  return schema;
}

/** Every kind of step a recipe can hold; kinds registered later are taken as well. */
export const Step: z.ZodType<StepData> = z.lazy(
  () =>
    z.discriminatedUnion(
      'kind',
      stepKinds().map(knownSchema) as unknown as [z.core.$ZodTypeDiscriminable],
    ) as unknown as z.ZodType<StepData>,
);
export type Step = StepData;

/** A step whose result is a sketch: it has a plane and holds what is drawn. */
export type SketchStep = StepData & SketchGeometry & { plane: PlaneRef };

/** The step as a sketch, when it is one. */
export function asSketch(step: StepData | undefined): SketchStep | null {
  return step && 'curves' in step && 'constraints' in step ? (step as SketchStep) : null;
}
