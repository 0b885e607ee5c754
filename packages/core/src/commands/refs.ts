/** How a number is named in the arguments of commands: d3, or s1.distance. */
import { z } from 'zod';

export const Ref = z.string().regex(/^[A-Za-z][A-Za-z0-9_.]{0,300}$/);
