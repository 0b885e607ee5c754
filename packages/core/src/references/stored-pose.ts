/** Where a thing stands, as the file holds it. */
import { z } from 'zod';

const vector = z.tuple([z.number(), z.number(), z.number()]);

export const StoredPose = z
  .strictObject({
    at: vector.describe('mm'),
    turn: z
      .tuple([z.number(), z.number(), z.number(), z.number()])
      .refine((q) => Math.abs(Math.hypot(...q) - 1) < 1e-6, 'a turn is a quaternion of length 1')
      .describe('A unit quaternion: x, y, z and the real part.'),
  })
  .describe('Where a thing stands: turned, then moved.');
export type StoredPose = z.infer<typeof StoredPose>;
