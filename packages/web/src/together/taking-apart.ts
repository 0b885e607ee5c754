/** The assembly taken apart, only to be seen: by itself, then by hand; kept by name. */
import { drawnOff, exploded, linkBoxes, type Assembled, type KeptPose, type Pose, type Vec3 } from '@helb/core';
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { useEvaluation } from '../evaluation/evaluation-store.ts';

const OPENS_MS = 700;

export function useTakingApart(it: Readonly<Ref<Assembled | null>>, goHome: () => void) {
  const evaluation = useEvaluation();
  /** How far each link is drawn off, mm, by its key; null while all stands together. */
  const apart = shallowRef<ReadonlyMap<string, Vec3> | null>(null);
  /** How much of it is shown, 0 to 1. */
  const spread = ref(1);
  let frame = 0;

  /** Take it apart, or put it together again. */
  function takeApart(): void {
    if (apart.value) return putTogether();
    const own = it.value;
    if (!own?.closed) return;
    const ways = exploded(
      own,
      linkBoxes(own, (part) => (evaluation.parts.get(part)?.bodies ?? []).map((facts) => ({ facts }))),
    );
    show(new Map(own.links.map(({ key }, i) => [key, ways[i]!])));
  }

  function show(ways: ReadonlyMap<string, Vec3>): void {
    goHome();
    apart.value = ways;
    cancelAnimationFrame(frame);
    const began = performance.now();
    const tick = () => {
      spread.value = Math.min(1, (performance.now() - began) / OPENS_MS);
      if (spread.value < 1) frame = requestAnimationFrame(tick);
    };
    tick();
  }

  function putTogether(): void {
    cancelAnimationFrame(frame);
    apart.value = null;
  }

  /** Draw a link off farther, by hand. */
  function drawOff(link: number, by: Vec3): void {
    const key = it.value?.links[link]?.key;
    if (!apart.value || key === undefined) return;
    const was = apart.value.get(key) ?? [0, 0, 0];
    apart.value = new Map(apart.value).set(key, [was[0] + by[0], was[1] + by[1], was[2] + by[2]]);
  }

  /** How far a link is off its home now, mm. */
  const offsets = computed<readonly Vec3[] | null>(() => {
    const { value } = apart;
    return value && (it.value?.links ?? []).map(({ key }) => (value.get(key) ?? [0, 0, 0]).map((n) => n * spread.value) as unknown as Vec3); // prettier-ignore
  });

  const shiftedBy = (pose: Pose, [x, y, z]: Vec3): Pose => ({
    at: [pose.at[0] + x, pose.at[1] + y, pose.at[2] + z],
    turn: pose.turn,
  });

  /** Look at one that is kept. */
  function lookApart({ at }: Pick<KeptPose, 'at'>): void {
    const own = it.value;
    if (!own) return;
    const off = drawnOff(own, { at });
    show(new Map(own.links.map(({ key }, i) => [key, off[i]!])));
  }

  // Another number: parts stay as far off as they were; another recipe puts it together.
  watch(it, (next, before) => {
    if (apart.value && next?.links.map((l) => l.key).join() !== before?.links.map((l) => l.key).join()) putTogether();
  });

  return { apart, spread, offsets, shiftedBy, takeApart, putTogether, drawOff, lookApart };
}
