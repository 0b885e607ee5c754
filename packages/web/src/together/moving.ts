/** Moving the parts of an assembly, only to be looked at: pulled, driven, swayed; stopped by limits and, if wished, by touch. */
import {
  asLinkage, atPose, close, drag, dragPushing, drive, drivePushing, inUnits, stepped,
  Touching, type Advance, type Assembled, type Contact, type Contacts, type Freedoms, type Going, type JointMotion, type Placed, type Pose, type Vec3,
} from '@helb/core'; // prettier-ignore
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { useEvaluation } from '../evaluation/evaluation-store.ts';

export function useMoving(it: Readonly<Ref<Assembled | null>>, freedoms: Readonly<Ref<Freedoms | null>>) {
  const evaluation = useEvaluation();

  /** Where it has moved; null at home. */
  const moved = shallowRef<Placed | null>(null);
  let last: Going['last'] = null;
  const now = computed(() => moved.value ?? it.value?.home ?? null);
  /** Why it moves no further, as a sentence. */
  const stopped = ref<string | null>(null);

  // Another recipe or another number: what had moved stays as near as it can, or goes home.
  watch(it, (next, before) => {
    stopShowing();
    if (!next || !before || !moved.value) return;
    const same = next.mechanism.columns.length === before.mechanism.columns.length && next.links.every((l, i) => l.key === before.links[i]?.key); // prettier-ignore
    const kept = same ? close(next.mechanism, moved.value.posture) : null;
    if (kept?.closed) moved.value = kept.placed;
    else goHome();
  });

  function goHome(): void {
    stopShowing();
    moved.value = null;
    last = null;
    stopped.value = null;
  }

  const meshesOf = (part: string) => evaluation.parts.get(part)?.bodies.map((b) => b.mesh) ?? [];
  /** Parts push what is free, and stop at what is not. */
  const contacts = shallowRef<Contacts>('none');
  /** What is not driven goes back home as far as nothing is in its way. */
  const sprung = ref(false);
  const touching = computed(() =>
    contacts.value !== 'none' && it.value?.closed ? new Touching(it.value, meshesOf, contacts.value) : null,
  );

  /** Pull a point of a link towards a place; the rest follows. */
  function pull(link: number, local: Vec3, to: Vec3, along: readonly Vec3[]): void {
    if (!it.value || !now.value || !it.value.closed) return;
    const grip = { link, at: local, to, along };
    last = null;
    if (touching.value) {
      const outcome = dragPushing(it.value.mechanism, now.value.posture, grip, touching.value.nearness);
      moved.value = outcome.placed;
      stopped.value = outcome.ok ? null : wordsOfTouch(outcome.touching);
      return;
    }
    const outcome = drag(it.value.mechanism, now.value.posture, grip);
    moved.value = outcome.placed;
    stopped.value = outcome.stops.length > 0 ? 'It stands at a limit of a joint.' : null;
  }

  function wordsOfTouch([contact]: readonly Contact[]): string | null {
    if (!contact || !touching.value) return null;
    const [one, other] = touching.value.namesOf(contact);
    return `${one} touches ${other}.`;
  }

  /** Go to a kept pose, as near as the joints let now. */
  function lookAtPose({ name, at }: { readonly name: string; readonly at: Readonly<Record<string, Pose>> }): void {
    const own = it.value;
    if (!own?.closed) return;
    stopShowing();
    last = null;
    moved.value = atPose(own, { at });
    stopped.value = moved.value ? null : `${name} cannot be reached any more as the joints are now.`;
  }

  /** How a way is gone along: from home as a linkage goes, or pushing what is in its way. */
  function advancing({ push, sprung: back }: { readonly push: boolean; readonly sprung: boolean }): Advance {
    const own = it.value!;
    if (!push && !back) return asLinkage(own);
    const which = contacts.value === 'none' ? 'all' : contacts.value;
    const watch = push ? new Touching(own, meshesOf, which) : null;
    return (from, drivers) => {
      const out = drivePushing(own.mechanism, from, drivers, watch?.nearness ?? (() => []), back ? own.home.posture : null); // prettier-ignore
      const [contact] = out.touching;
      const touch = contact && watch ? ({ kind: 'touch', says: watch.namesOf(contact).join(' touches ') } as const) : null; // prettier-ignore
      return { ...out, why: out.ok ? null : (touch ?? out.why ?? { kind: 'jam' }) };
    };
  }

  /** What was gone through is shown again. */
  function show(placed: Placed): void {
    stopShowing();
    last = null;
    moved.value = placed;
    stopped.value = null;
  }

  /** Bring motions to values, mm or rad. Returns whether they came there. */
  function driveTo(motions: readonly { readonly motion: JointMotion; readonly to: number }[]): boolean {
    if (!it.value || !now.value || !it.value.closed) return false;
    const { mechanism, home } = it.value;
    const from = { posture: now.value.posture, last };
    const drivers = motions.map(({ motion, to }) => ({ pair: motion.pair, motion: motion.motion, to }));
    if (touching.value || sprung.value) {
      const nearness = touching.value?.nearness ?? (() => []);
      const outcome = drivePushing(mechanism, from, drivers, nearness, sprung.value ? home.posture : null);
      moved.value = outcome.placed;
      last = outcome.last;
      stopped.value = outcome.ok
        ? null
        : (wordsOfTouch(outcome.touching) ?? whyStopped(outcome.why ?? { kind: 'jam' }));
      return outcome.ok;
    }
    const outcome = drive(mechanism, from, drivers);
    moved.value = outcome.placed;
    last = outcome.ok ? outcome.last : null;
    stopped.value = outcome.ok ? null : whyStopped(outcome.why);
    return outcome.ok;
  }

  function whyStopped(why: { kind: 'limit'; stop: { pair: number } } | { kind: 'jam' }): string {
    if (why.kind === 'jam') return 'It jams here: the parts cannot follow any further.';
    const id = it.value!.mechanism.pairs[why.stop.pair]!.id;
    const joint = it.value!.joints.find((j) => j.key === id);
    return `It stands at a limit of ${joint ? joint.joint.name : 'a joint'}.`;
  }

  // What a freedom would do, shown by swaying.
  let frame = 0;
  const swaying = ref<number | null>(null);
  function stopShowing(): void {
    cancelAnimationFrame(frame);
    if (swaying.value !== null) moved.value = null;
    swaying.value = null;
  }

  /** One coordinate alone. */
  function alone(width: number, column: number | undefined): Float64Array | null {
    if (column === undefined) return null;
    const motion = new Float64Array(width);
    motion[column] = 1;
    return motion;
  }

  /** Show how a link can still move: there and back, by its own freest motion. */
  function showFreedom(link: number): void {
    const own = it.value;
    const all = freedoms.value;
    if (!own || !all) return;
    const again = swaying.value === link;
    stopShowing();
    if (again) return;
    const columns = new Set(own.mechanism.paths[link]!);
    const reach = (motion: Float64Array) => motion.reduce((sum, f, k) => sum + (columns.has(k) ? f * f : 0), 0);
    const [found] = [...all.whole.motions].sort((a, b) => reach(b) - reach(a));
    const free = own.mechanism.paths[link]!.find((k) => all.whole.loose.includes(k));
    const motion = found && reach(found) > 1e-9 ? found : alone(own.mechanism.columns.length, free);
    if (!motion) return;
    swaying.value = link;
    const began = performance.now();
    const tick = () => {
      const t = (performance.now() - began) / 1000;
      const step = inUnits(own.mechanism, motion.map((f) => f * 0.25 * Math.sin(2 * t))); // prettier-ignore
      const there = close(own.mechanism, stepped(own.mechanism, own.home.posture, step));
      if (there.closed) moved.value = there.placed;
      if (t < Math.PI) frame = requestAnimationFrame(tick);
      else stopShowing();
    };
    frame = requestAnimationFrame(tick);
  }

  return {
    now,
    moved,
    stopped,
    contacts,
    sprung,
    touching,
    advancing,
    show,
    swaying,
    goHome,
    pull,
    driveTo,
    lookAtPose,
    showFreedom,
    stopShowing,
  };
}
