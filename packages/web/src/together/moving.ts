/** Moving the parts of an assembly, only to be looked at: pulled, driven, swayed; stopped by limits and, if wished, by touch. */
import {
  close, drag, drive, inUnits, placedAt, poseBack, poseWithin, postureFrom, stepped, valueAt,
  type Assembled, type Freedoms, type Going, type JointMotion, type Placed, type Pose, type Vec3,
} from '@helb/core'; // prettier-ignore
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { Touching } from './touching.ts';

/** Between two looks for a touch, rad, or of the assembly’s size. */
const TOUCH_STEP = 0.02;
const TOUCH_HALVINGS = 7;

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

  /** Moving parts stop where they touch others that they did not touch at home. */
  const stopsAtTouch = ref(false);
  const touching = computed(() => (stopsAtTouch.value && it.value?.closed ? new Touching(it.value, (part) => evaluation.parts.get(part)) : null)); // prettier-ignore

  /** Pull a point of a link towards a place; the rest follows. */
  function pull(link: number, local: Vec3, to: Vec3, along: readonly Vec3[]): void {
    if (!it.value || !now.value || !it.value.closed) return;
    const from = now.value;
    const start = placedAt(from.poses[link]!, local);
    const go = (share: number) => {
      const part = [0, 1, 2].map((i) => start[i]! + share * (to[i]! - start[i]!)) as unknown as Vec3;
      return drag(it.value!.mechanism, from.posture, { link, at: local, to: part, along });
    };
    last = null;
    const outcome = go(1);
    const touched = touching.value?.at(outcome.placed);
    if (!touched) {
      moved.value = outcome.placed;
      stopped.value = outcome.stops.length > 0 ? 'It stands at a limit of a joint.' : null;
      return;
    }
    moved.value = farthestFree(from, (share) => go(share).placed);
    stopped.value = `${touched[0]} touches ${touched[1]}.`;
  }

  /** As far along a way as nothing touches. @param to where a share of the way leads */
  function farthestFree(from: Placed, to: (share: number) => Placed): Placed {
    let best = from;
    let [low, high] = [0, 1];
    for (let i = 0; i < TOUCH_HALVINGS; i++) {
      const share = (low + high) / 2;
      const there = to(share);
      if (touching.value!.at(there)) high = share;
      else {
        low = share;
        best = there;
      }
    }
    return best;
  }

  /** Go to a kept pose, as near as the joints let now. */
  function lookAtPose({ name, at }: { readonly name: string; readonly at: Readonly<Record<string, Pose>> }): void {
    const own = it.value;
    if (!own?.closed) return;
    stopShowing();
    const stood = own.links.map(({ key }, i) => {
      const member = own.members.find((m) => m.link === i);
      const pose =
        at[key] ?? (member && at[member.key] ? poseWithin(at[member.key]!, poseBack(member.within)) : undefined);
      return pose ?? own.home.poses[i]!;
    });
    const there = close(own.mechanism, postureFrom(own.mechanism, stood), { most: 40 });
    last = null;
    moved.value = there.closed ? there.placed : null;
    stopped.value = there.closed ? null : `${name} cannot be reached any more as the joints are now.`;
  }

  /** Bring motions to values, mm or rad. Returns whether they came there. */
  function driveTo(motions: readonly { readonly motion: JointMotion; readonly to: number }[]): boolean {
    if (!it.value || !now.value || !it.value.closed) return false;
    const { mechanism } = it.value;
    const from = motions.map(({ motion }) => valueAt(mechanism, now.value!, motion));
    const go = (start: Placed, share: number) =>
      drive(mechanism, { posture: start.posture, last }, motions.map(({ motion, to }, i) => ({ pair: motion.pair, motion: motion.motion, to: from[i]! + share * (to - from[i]!) }))); // prettier-ignore
    // Short steps, where something might be jumped over.
    const farthest = Math.max(...motions.map(({ motion, to }, i) => Math.abs(to - from[i]!) / (motion.key === 'turn' ? TOUCH_STEP : TOUCH_STEP * mechanism.size))); // prettier-ignore
    const steps = touching.value ? Math.max(1, Math.ceil(farthest)) : 1;
    for (let n = 1; n <= steps; n++) {
      const before = now.value;
      const outcome = go(before, n / steps);
      const touched = touching.value?.at(outcome.placed);
      if (touched) {
        last = null;
        moved.value = farthestFree(before, (share) => go(before, (n - 1 + share) / steps).placed);
        stopped.value = `${touched[0]} touches ${touched[1]}.`;
        return false;
      }
      moved.value = outcome.placed;
      last = outcome.ok && steps === 1 ? outcome.last : null;
      stopped.value = outcome.ok ? null : whyStopped(outcome.why);
      if (!outcome.ok) return false;
    }
    return true;
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
    const [motion] = [...all.whole.motions].sort((a, b) => reach(b) - reach(a));
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

  return { now, moved, stopped, stopsAtTouch, swaying, goHome, pull, driveTo, lookAtPose, showFreedom, stopShowing };
}
