import type { Body } from '../../names/body.ts';
import { isBorrowed } from '../../names/borrowed.ts';
import type { StepResult } from '../step.ts';

/** The bodies after a step: what was made, each in the place of the body it comes from; what began here last. */
export function inPlace(bodies: readonly Body[], { made, used }: Pick<StepResult, 'made' | 'used'>): readonly Body[] {
  if (made.length + used.length === 0) return bodies;
  const gone = new Set(used.filter((b) => !isBorrowed(b)).map((b) => b.key));
  return [
    ...bodies.flatMap((body) => {
      const heirs = made.filter((m) => m.from?.key === body.key).map((m) => m.body);
      return heirs.length > 0 || gone.has(body.key) ? heirs : [body];
    }),
    ...made.filter((m) => !m.from).map((m) => m.body),
  ];
}
