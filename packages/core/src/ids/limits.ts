/** How large a design may be: more than any honest one, so that a hostile one cannot tie up the machine. */
import { z } from 'zod';

/** A design file larger than this is refused before it is read, and no edit may make a larger one. */
export const MAX_FILE_BYTES = 16 * 1024 * 1024;
export const MAX_PARTS = 500;
export const MAX_STEPS = 2000;
/** Named dimensions of one owner. */
export const MAX_DIMENSIONS = 20_000;
/** Points, curves and constraints of one sketch, each. */
export const MAX_ENTITIES = 20_000;

/** A map by id with at most so many entries. */
export function mapOf<K extends z.core.$ZodRecordKey, V extends z.ZodType>(key: K, value: V, most: number) {
  return z
    .record(key, value)
    .refine((map) => Object.keys(map).length <= most, `has more than ${most} entries`)
    .meta({ maxProperties: most });
}
