/** Runs of an assembly: several motions driven over time, kept to be played again. */
import { z } from 'zod';
import { Expr } from '../dimensions/expression.ts';
import { Id } from '../ids/ids.ts';
import { mapOf } from '../ids/limits.ts';
import { Name } from '../ids/name.ts';
import type { QuantityKind } from '../units/units.ts';

/** Points a motion may go through in a run. */
export const MOST_POINTS = 16;
export const pointKeys = (n: number) => [`at_${n}`, `to_${n}`] as const;
const POINT_KEYS = Array.from({ length: MOST_POINTS }, (_, i) => pointKeys(i + 1)).flat();

export const RunDrive = z
  .strictObject({
    name: Name,
    joint: z.string().max(400).describe('Its key: ids of the instances it stands in and its own, joined with /.'),
    motion: z.enum(['slide', 'across', 'turn']),
    between: z.enum(['even', 'eased']).describe('How it goes from point to point: at one speed, or slowly off and on.'),
    numbers: z
      .strictObject(Object.fromEntries(POINT_KEYS.map((key) => [key, Expr.optional()])))
      .describe('at_1, at_2 …: seconds; to_1, to_2 …: where it is then. Before the first and after the last it rests.'),
  })
  .describe('A motion that a run drives, through points over time.');
export type RunDrive = Omit<z.infer<typeof RunDrive>, 'numbers'> & { numbers: Record<string, string | undefined> };

export const Run = z
  .strictObject({
    name: Name,
    drives: mapOf(Id, RunDrive, 50),
    push: z.literal(true).optional().describe('Parts push what is free, and stop at what is not.'),
    sprung: z.literal(true).optional().describe('What is not driven goes back home as far as nothing is in its way.'),
  })
  .describe('Motions driven together over time.');
export type Run = z.infer<typeof Run>;

/** What kind each number of a driven motion is. */
export const driveNumbers = (motion: RunDrive['motion']): Readonly<Record<string, QuantityKind>> =>
  Object.fromEntries(POINT_KEYS.map((key) => [key, key.startsWith('at') ? 'number' : motion === 'turn' ? 'angle' : 'length'])); // prettier-ignore
