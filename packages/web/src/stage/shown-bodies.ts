/** What of a part stands on the stage: the bodies as they are at the step one works on, ghosts of what it took, datums. */
import { isBorrowed, readName, type BodyView, type PartView, type Vec3 } from '@helb/core';
import { computed, type ComputedRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { lenderOf } from '../together/in-place.ts';

/** Is it only drawn to, and not part of what comes out? */
export function isBorrowedBody(body: BodyView): boolean {
  const name = readName(body.name);
  return name !== null && isBorrowed({ name });
}

/** How far bodies reach together along x, y and z, in mm. */
export const sizesOf = (bodies: readonly BodyView[]): Vec3 =>
  [0, 1, 2].map((i) => Math.max(...bodies.map((b) => b.box.max[i]!)) - Math.min(...bodies.map((b) => b.box.min[i]!))) as unknown as Vec3; // prettier-ignore

export function useShownBodies(view: ComputedRef<PartView | undefined>) {
  const design = useDesign();
  const session = useSession();

  /** Also those that are hidden: a reference is told apart from all there are. */
  const bodies = computed<BodyView[]>(() => {
    if (!view.value) return [];
    const { around } = view.value;
    if (!around || around.step !== session.workedOn) return [...view.value.bodies, ...view.value.borrowed];
    // What a step is put on is picked from what was there before it.
    return session.sketching || session.pickingFor ? around.before : around.after;
  });
  /** The part whose body it is; its own part for one that was cut loose. */
  const ofPart = (body: BodyView): string | null =>
    lenderOf(design.design?.parts[view.value?.part ?? '']?.steps[body.step]) ?? view.value?.part ?? null;
  const own = computed(() => bodies.value.filter((b) => !isBorrowedBody(b)));
  const visible = computed(() => bodies.value.filter((b) => !session.hidden.has(b.id)));

  /** What the step being edited took away or changed. */
  const ghosts = computed(() => {
    const around = view.value?.around;
    if (!around || around.step !== session.editing || session.sketching || session.pickingFor) return [];
    const stay = new Set(bodies.value.map((b) => b.key));
    return around.before.filter((b) => !stay.has(b.key) && !session.hidden.has(b.id));
  });

  /** Datums the recipe sets up, up to where one stands. */
  const datums = computed(() => {
    const part = design.design?.parts[view.value?.part ?? ''];
    const steps = view.value?.steps ?? [];
    const at = steps.findIndex((s) => s.id === session.workedOn);
    return (at < 0 ? steps : steps.slice(0, at + 1)).flatMap((s) =>
      s.datum && part ? [{ step: s.id, name: part.steps[s.id]?.name ?? '', datum: s.datum }] : [],
    );
  });

  return { bodies, own, ofPart, visible, ghosts, datums };
}
