/** What a part takes from another part, as the file holds it. */
import { z } from 'zod';
import { Id } from '../ids/ids.ts';
import { StoredPose } from './stored-pose.ts';

const MOST_DEEP = 8;
const Path = z.array(Id).min(1).max(MOST_DEEP);

export const Source = z
  .strictObject({
    part: Id.describe('The other part.'),
    sketch: Id.optional().describe('One of its sketches; left out, all its bodies.'),
    at: z
      .union([
        z
          .strictObject({
            assembly: Id,
            own: Path.describe('The instance of this part, outermost first.'),
            other: Path.describe('The instance of the other part.'),
          })
          .describe('As both stand at home in an assembly.'),
        z.strictObject({ stands: StoredPose }).describe('At a fixed place in this part’s space.'),
      ])
      .optional()
      .describe('Left out: both parts are drawn in one space.'),
  })
  .describe('What is borrowed of another part.');
export type Source = z.infer<typeof Source>;
