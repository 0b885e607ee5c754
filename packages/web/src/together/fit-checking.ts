/** The fit check as the page runs it: as it stands, on the way of a motion, or with the dials at their ends. */
import { fitSentence, formatQuantity, leavingGuides, motionSentence, namedBody, travelOf, wayOfMotion, type FitFinding, type JointMotion, type Station } from '@helb/core'; // prettier-ignore
import * as Comlink from 'comlink';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { breather } from './breather.ts';
import { MOTION_NAMES } from './joint-words.ts';
import { useRuns } from './runs-store.ts';
import { rangeOfMotion, useTogether } from './together-store.ts';

export interface ToldFinding {
  readonly says: string;
  readonly members: readonly string[];
  /** It stands in the way, and is not only close. */
  readonly bad: boolean;
  /** A fit means it so. */
  readonly wanted: boolean;
  /** As the check at rest tells it, at the design’s own numbers: what could be cured. */
  readonly rest: FitFinding | null;
  /** The motion’s value where it can be seen. */
  readonly goTo: { readonly motion: JointMotion; readonly to: number } | { readonly run: string; readonly to: number } | null; // prettier-ignore
}

export type Where = 'rest' | 'dials' | `motion ${string}` | `run ${string}`;
/** Positions along a motion. */
const STATIONS = 49;
/** Of a run, which has many more positions, so many are checked. */
const MOST_STATIONS = 181;

export function useFitChecking() {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const together = useTogether();
  const runs = useRuns();

  const clearance = ref('0.1');
  const where = ref<Where>('rest');
  const findings = shallowRef<readonly ToldFinding[] | null>(null);
  /** What was checked, as a sentence for when nothing was found. */
  const clean = ref('');
  const progress = ref<{ done: number; total: number } | null>(null);
  /** For which design and place it was checked. */
  let checkedFor: unknown = null;
  const stale = ref(false);
  watch([() => together.it, () => together.moved], ([it, moved]) => (stale.value = findings.value !== null && checkedFor !== (where.value === 'rest' ? (moved ?? it) : it))); // prettier-ignore
  watch(
    () => session.activeAssembly,
    () => {
      findings.value = null;
      where.value = 'rest';
    },
  );

  /** Some face gives way for a fit. */
  const allows = computed(() => Object.values(design.design?.parts ?? {}).some((p) => Object.values(p.steps).some((s) => s.kind === 'allowance' && s.applied !== 'neither'))); // prettier-ignore
  const motions = computed(() =>
    (together.it?.joints ?? []).flatMap(
      (joint) =>
      joint.motions.map((motion) => ({ id: `motion ${joint.key} ${motion.key}` as const, label: `${joint.joint.name}, ${MOTION_NAMES[motion.key]}`, motion })), // prettier-ignore
    ),
  );
  const runsHere = computed(() => Object.entries(together.assembly?.runs ?? {}).map(([id, { name }]) => ({ id: `run ${id}` as const, label: name }))); // prettier-ignore
  const names = computed(() => new Map(together.it?.members.map((m) => [m.key, m.name])));
  const words = {
    name: (key: string) => names.value.get(key) ?? 'a part',
    length: (mm: number) => formatQuantity(mm, 'length', design.design!.units),
  };

  async function check(): Promise<void> {
    const mm = design.ledger!.read(clearance.value, {}, 'length');
    if (!mm.ok) return void (session.notice = mm.message);
    checkedFor = where.value === 'rest' ? (together.moved ?? together.it) : together.it;
    stale.value = false;
    progress.value = { done: 0, total: 1 };
    try {
      const found =
        where.value === 'rest'
          ? await atRest(mm.quantity.value)
          : where.value === 'dials'
            ? await overDials(mm.quantity.value)
            : await onTheWay(mm.quantity.value);
      if (found) findings.value = found;
    } catch (error) {
      session.notice = `The fit could not be checked: ${(error as Error).message.split('\n')[0]}`;
    } finally {
      progress.value = null;
    }
  }

  const listener = () => Comlink.proxy({ progress: told });
  /** It comes by a way of its own, and may come after the answer: then nothing is under way any more. */
  function told(done: number, total: number): void {
    evaluation.sign();
    if (progress.value) progress.value = { done, total };
  }

  const restTold = (f: FitFinding, before = ''): ToldFinding => ({
    says: before + fitSentence(f, words),
    members: f.members,
    bad: f.kind === 'overlap' && !f.wanted,
    wanted: 'wanted' in f && f.wanted === true,
    rest: before === '' ? f : null,
    goTo: null,
  });

  async function atRest(mm: number): Promise<ToldFinding[] | null> {
    const { it, poses } = together;
    if (!it) return null;
    const members = it.members.flatMap(({ key, part, link }) =>
      poses.has(key) ? [{ key, part, link, pose: poses.get(key)! }] : [],
    );
    const found = await evaluation.on(design.design!).checkFit(members, mm, listener());
    clean.value = `Nothing stands in the way, and all bores line up.${allows.value ? ' Sizes are as made, with their allowances.' : ''}`;
    // What is meant comes last.
    return found && found.map((f) => restTold(f)).sort((a, b) => Number(a.wanted) - Number(b.wanted));
  }

  async function overDials(mm: number): Promise<ToldFinding[] | null> {
    const found = await evaluation.on(design.design!).checkDials(session.activeAssembly!, mm, listener());
    if (!found) return null;
    if (found.length === 0) {
      session.notice = 'No number of this design is a dial yet; make one in the ledger.';
      return null;
    }
    clean.value = `With each of ${found.length / 2} dials at both ends of its range nothing is found that is not there now.`;
    return found.flatMap(({ dial, value, findings: own, fault }) => {
      const before = `${dial} = ${value}: `;
      const failed: ToldFinding[] = fault === null ? [] : [{ says: before + fault, members: [], bad: true, wanted: false, rest: null, goTo: null }]; // prettier-ignore
      return [...failed, ...own.map((f) => restTold(f, before))];
    });
  }

  async function onTheWay(mm: number): Promise<ToldFinding[] | null> {
    const { it } = together;
    const driver = motions.value.find((m) => m.id === where.value)?.motion;
    const run = where.value.startsWith('run ') ? where.value.slice(4) : null;
    if (!it?.closed || (!driver && !run)) return null;
    const breathe = breather(() => true);
    const gone = run
      ? await runs.travel(run)
      : await travelOf(it, it.home, wayOfMotion(driver!, rangeOfMotion(it, driver!), STATIONS), { breathe: async () => void (await breathe()) }); // prettier-ignore
    if (!gone) {
      session.notice = 'This run cannot be gone through; its card tells why.';
      return null;
    }
    const { stopped } = gone;
    const every = Math.max(1, Math.ceil(gone.samples.length / MOST_STATIONS));
    const samples = gone.samples.filter((_, i) => i % every === 0 || i === gone.samples.length - 1);
    if (samples.length === 0) {
      session.notice = 'This motion cannot be gone along: it jams at its beginning.';
      return null;
    }
    const stations = samples.map(({ value, placed }): Station => ({ value, poses: placed.poses }));
    const members = it.members.map(({ key, part, link, within }) => ({ key, part, link, pose: within }));
    const found = await evaluation.on(design.design!).checkMotion(members, it.home.poses, stations, mm, listener());
    if (!found) return null;
    const seen = it.members.map(({ key, part, link, within }) => ({ key, link, within, bodies: (evaluation.parts.get(part)?.bodies ?? []).map(namedBody) })); // prettier-ignore
    const at = (value: number) => driver ? formatQuantity(value, driver.key === 'turn' ? 'angle' : 'length', design.design!.units) : `${Number(value.toFixed(2))} s`; // prettier-ignore
    clean.value = `Nothing runs into anything in ${samples.length} positions on the way, where what touches at rest was looked at in every third${stopped ? `, as far as ${at(samples.at(-1)!.value)}, where it stops` : ''}.`; // prettier-ignore
    return [...found, ...leavingGuides(it, seen, stations)].map((f): ToldFinding => ({
      says: motionSentence(f, at(f.at), words),
      members: f.members,
      bad: f.kind === 'runs_into' || f.kind === 'leaves',
      wanted: false,
      rest: null,
      goTo: driver ? { motion: driver, to: f.at } : { run: run!, to: f.at },
    }));
  }

  function stop(): void {
    if (design.design) void evaluation.on(design.design).stopFit();
  }

  return { clearance, where, motions, runsHere, findings, clean, progress, stale, told, check, stop };
}
