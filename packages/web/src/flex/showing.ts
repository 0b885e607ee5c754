/** Looking at what fails: the numbers are tried on the stage, at the step it concerns. */
import type { Fault, Tried } from '@helb/core';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useTrial } from '../trial/trial-store.ts';

export function useShowing() {
  const design = useDesign();
  const session = useSession();
  const trial = useTrial();

  function show({ part, step, assembly }: Fault, tried: Tried): void {
    session.showFlex = false;
    if (part !== undefined && design.kept?.parts[part]) {
      session.openPart(part);
      if (step !== undefined && design.kept.parts[part].steps[step]) session.editing = step;
    }
    if (assembly !== undefined && design.kept?.assemblies?.[assembly]) session.openAssembly(assembly);
    trial.drop();
    for (const [ref, text] of tried) session.notice = trial.hold(ref, text) ?? session.notice;
  }
  return { show };
}
