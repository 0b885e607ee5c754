/** Where the original of a pattern is. */
import { StepFailure, type Body } from '../../names/body.ts';
import type { Vec3 } from '../../space/vector.ts';
import type { Making } from '../step.ts';

/** The centre of what the first repeated step makes or takes away, or of the first body. @throws StepFailure */
export function centreOfOriginal(
  what: { readonly steps?: readonly string[] | undefined; readonly bodies?: readonly Body[] | undefined },
  context: Making,
): Vec3 {
  const [body] = what.bodies ?? [];
  if (body) return body.facts.center;
  const [id] = what.steps ?? [];
  const again = id === undefined ? null : context.again(id);
  if (!again?.kind.tools)
    throw new StepFailure('It cannot be told where the original is; add a point through which the rows run, or repeat a step that makes or cuts something first.'); // prettier-ignore
  const { kernel } = context;
  const tools = again.kind.tools(again.resolved(context.bodies), context);
  try {
    return kernel.bulk(tools[0]!.solid).center;
  } finally {
    for (const { solid } of tools) kernel.free(solid);
  }
}
