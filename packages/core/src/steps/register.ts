/** The kinds of step there are: one line each. */
import { allowance } from './allowance/allowance.ts';
import { borrow } from './borrow/borrow.ts';
import { chamfer } from './chamfer/chamfer.ts';
import { combine } from './combine/combine.ts';
import { datumAxis } from './datum/axis.ts';
import { datumFrame } from './datum/frame.ts';
import { datumPlane } from './datum/plane.ts';
import { datumPoint } from './datum/point.ts';
import { deleteFaces } from './delete-faces/delete-faces.ts';
import { draft } from './draft/draft.ts';
import { emboss } from './emboss/emboss.ts';
import { extrude } from './extrude/extrude.ts';
import { faceFillet } from './face-fillet/face-fillet.ts';
import { fillet } from './fillet/fillet.ts';
import { fullRound } from './full-round/full-round.ts';
import { helix } from './helix/helix.ts';
import { hole } from './hole/hole.ts';
import { importStep } from './import/import.ts';
import { loft } from './loft/loft.ts';
import { mirror } from './mirror/mirror.ts';
import { move } from './move/move.ts';
import { offset } from './offset/offset.ts';
import { pattern } from './pattern/pattern.ts';
import { remove } from './remove/remove.ts';
import { replaceFace } from './replace-face/replace-face.ts';
import { revolve } from './revolve/revolve.ts';
import { rib } from './rib/rib.ts';
import { shell } from './shell/shell.ts';
import { split } from './split/split.ts';
import { sketch } from './sketch/sketch.ts';
import { sweep } from './sweep/sweep.ts';
import { thicken } from './thicken/thicken.ts';
import { thread } from './thread/thread.ts';
import type { StepKind } from './step.ts';

const kinds = new Map<string, StepKind>();

export function registerStep(kind: StepKind): void {
  kinds.set(kind.kind, kind);
}

for (const kind of [
  sketch,
  extrude,
  revolve,
  sweep,
  loft,
  hole,
  thread,
  emboss,
  fillet,
  faceFillet,
  fullRound,
  chamfer,
  shell,
  offset,
  rib,
  thicken,
  pattern,
  mirror,
  datumPlane,
  combine,
  split,
  move,
  draft,
  allowance,
  deleteFaces,
  replaceFace,
  datumAxis,
  datumPoint,
  datumFrame,
  helix,
  importStep,
  borrow,
  remove,
])
  registerStep(kind as unknown as StepKind);

/** All kinds, in the order they were registered. */
export const stepKinds = (): readonly StepKind[] => [...kinds.values()];

/** @throws Error for a kind that is not registered: a document is checked before it comes here */
export function kindOf(step: { readonly kind: string }): StepKind {
  const kind = kinds.get(step.kind);
  if (!kind) throw new Error(`no kind of step is called ${step.kind}`);
  return kind;
}
