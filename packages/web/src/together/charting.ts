/** What a chart of a motion shows: what is gone through, and what is measured on the way. */
import { placedAt, travelOf, wayOfMotion, type JointMotion, type Travel, type Vec3 } from '@helb/core';
import * as Comlink from 'comlink';
import { computed, onBeforeUnmount, ref, shallowRef, watch, type Ref } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { breather } from './breather.ts';
import { MOTION_NAMES } from './joint-words.ts';
import { useRuns } from './runs-store.ts';
import { rangeOfMotion, useTogether, type Charted } from './together-store.ts';

type Axis = JointMotion['key'] | 'time';
export const unitOf = (key: Axis) => (key === 'turn' ? 180 / Math.PI : 1);
export const unitName = (key: Axis) => (key === 'turn' ? '°' : key === 'time' ? ' s' : ' mm');

const SAMPLES = 91;

export function useCharting(of: () => Charted) {
  const together = useTogether();
  const runs = useRuns();
  const joint = computed(() => {
    const own = of();
    return 'joint' in own ? together.it?.joints.find((j) => j.key === own.joint) : undefined;
  });
  const driver = computed(() => {
    const own = of();
    return 'joint' in own ? joint.value?.motions.find((m) => m.key === own.motion) : undefined;
  });
  const runId = computed(() => {
    const own = of();
    return 'run' in own ? own.run : null;
  });
  const title = computed(() => {
    if (runId.value !== null) return together.assembly?.runs?.[runId.value]?.name ?? null;
    return joint.value && driver.value ? `${joint.value.joint.name}, ${MOTION_NAMES[driver.value.key]}` : null;
  });
  const key = computed<Axis>(() => (runId.value === null ? (driver.value?.key ?? 'turn') : 'time'));
  /** What drives, by joint and motion: it is not charted against itself. */
  const driven = computed(() => (driver.value && joint.value ? `${joint.value.key} ${driver.value.key}` : null));

  const travel = shallowRef<Travel | null>(null);
  const busy = ref(false);
  let asked = 0;
  async function go(): Promise<void> {
    const own = ++asked;
    const { it } = together;
    if (!it?.closed) return;
    busy.value = true;
    const breathe = breather(() => own === asked);
    try {
      const { contacts, sprung } = together;
      const push = contacts !== 'none';
      const found =
        runId.value === null
          ? driver.value &&
            (await travelOf(it, it.home, wayOfMotion(driver.value, rangeOfMotion(it, driver.value), SAMPLES), {
              advance: together.advancing({ push, sprung }),
              breathe: async () => void (await breathe()),
            }))
          : await runs.travel(runId.value);
      if (own === asked) travel.value = found ?? null;
    } catch {
      // A newer one is under way.
    } finally {
      if (own === asked) busy.value = false;
    }
  }
  const course = () => (runId.value === null ? null : runs.courses.get(runId.value));
  watch([() => together.it, driver, runId, course, () => together.contacts, () => together.sprung], () => void go(), { immediate: true }); // prettier-ignore
  onBeforeUnmount(() => asked++);
  return { title, key, travel, busy, driven };
}

interface Choice {
  readonly id: string;
  readonly label: string;
  readonly unit: string;
  /** By sample; null until it is asked for. */
  readonly values: readonly number[] | null;
}

/** What can be charted: motions, places and distance of picked frames, the clearance of two parts. */
export function useCharted(travel: Ref<Travel | null>, driven: Ref<string | null>) {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const together = useTogether();

  const samples = computed(() => travel.value?.samples ?? []);
  /** Ways of the picked frames. */
  const ways = computed(() =>
    together.picked.slice(0, 2).flatMap((spot) => {
      const member = together.it?.members.find((m) => m.key === spot.member);
      if (!member) return [];
      const at = placedAt(member.within, spot.frame.at);
      return [{ label: spot.label, way: samples.value.map((s): Vec3 => placedAt(s.placed.poses[member.link]!, at)) }];
    }),
  );
  watch(ways, () => (together.trace = ways.value[0]?.way ?? []), { immediate: true });
  onBeforeUnmount(() => (together.trace = []));

  /** Two parts: those of the picked frames, else those picked in the list. */
  const two = computed(() => {
    const keys = [...new Set(together.picked.map((p) => p.member))];
    const members = (together.it?.members ?? []).filter((m) => (keys.length > 1 ? keys.includes(m.key) : together.chosen.has(m.path[0]!))); // prettier-ignore
    return members.length === 2 ? ([members[0]!, members[1]!] as const) : null;
  });
  const gaps = shallowRef<{ readonly of: unknown; readonly for: string; readonly values: readonly number[] } | null>(
    null,
  );
  const measuring = ref(false);
  const pairId = computed(() => (two.value ? `gap ${two.value[0].key} ${two.value[1].key}` : ''));

  async function measure(): Promise<void> {
    const pair = two.value;
    const of = travel.value;
    if (!pair || !of || !design.design) return;
    measuring.value = true;
    try {
      const stations = of.samples.map(({ value, placed }) => ({ value, poses: placed.poses }));
      const members = pair.map(({ key, part, link, within }) => ({ key, part, link, pose: within }));
      const found = await evaluation.on(design.design).gapsAlong([members[0]!, members[1]!], stations, Comlink.proxy({ progress: () => evaluation.sign() })); // prettier-ignore
      if (found) gaps.value = { of, for: pairId.value, values: found };
    } catch (error) {
      session.notice = `This clearance could not be measured: ${(error as Error).message.split('\n')[0]}`;
    } finally {
      measuring.value = false;
    }
  }

  const rounded = (n: number) => Number(n.toFixed(7));
  const choices = computed<Choice[]>(() => {
    const motions = (travel.value?.motions ?? []).flatMap(({ joint: key, motion }, i): Choice[] => {
      const own = together.it?.joints.find((j) => j.key === key);
      const id = `${key} ${motion.key}`;
      if (!own || id === driven.value) return [];
      return [{ id, label: `${own.joint.name}, ${MOTION_NAMES[motion.key]}`, unit: unitName(motion.key), values: samples.value.map((s) => rounded(s.values[i]! * unitOf(motion.key))) }]; // prettier-ignore
    });
    const [one, other] = ways.value;
    const places = one ? ['x', 'y', 'z'].map((axis, k): Choice => ({ id: axis, label: `${one.label}, ${axis}`, unit: ' mm', values: one.way.map((p) => rounded(p[k]!)) })) : []; // prettier-ignore
    const apart: Choice[] = one && other ? [{ id: 'apart', label: 'Distance of the picked frames', unit: ' mm', values: one.way.map((p, i) => Math.hypot(...p.map((n, k) => n - other.way[i]![k]!))) }] : []; // prettier-ignore
    const gap: Choice[] = two.value ? [{ id: pairId.value, label: `Clearance of ${two.value[0].name} and ${two.value[1].name}`, unit: ' mm', values: gaps.value?.for === pairId.value && gaps.value.of === travel.value ? gaps.value.values : null }] : []; // prettier-ignore
    return [...motions, ...places, ...apart, ...gap];
  });
  const shown = ref('');
  const chosen = computed(() => choices.value.find((c) => c.id === shown.value) ?? choices.value.find((c) => c.values));
  watch([chosen, travel], () => {
    if (chosen.value?.values === null && !measuring.value) void measure();
  });
  const choose = (id: string) => void (shown.value = id);
  return { choices, chosen, measuring, choose };
}
