import { z } from 'zod';

/** A name people give: to designs, parts, steps. */
export const Name = z.string().trim().min(1).max(80);
