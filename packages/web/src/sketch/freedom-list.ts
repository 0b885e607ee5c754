/** The open sketch's freedoms: listed, shown moving, and what would take each away. */
import {
  constraintOf, expressionOf, freedomSteps, isDimension, movedBy, proposalSteps, settleAll, showingReach,
  type Freedom, type Proposal,
} from '@helb/core'; // prettier-ignore
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { addConstraint, type SketchEditing } from './sketch-editing.ts';
import { inSlices } from '../shell/slices.ts';

/** One gentle swing to and fro, ms. */
const SWING_MS = 1800;

export function useFreedomList(editing: SketchEditing) {
  const design = useDesign();
  const session = useSession();
  const open = ref(false);
  const freedoms = shallowRef<readonly Freedom[]>([]);
  const chosen = ref<number | null>(null);
  const proposals = shallowRef<readonly Proposal[] | null>(null);
  /** The full set under review, each kept or not. */
  const plan = shallowRef<{
    items: readonly { proposal: Proposal; kept: boolean }[];
    left: number;
    done: boolean;
  } | null>(null);
  let run = 0;
  let listing = 0;

  watch(
    [open, editing.solution],
    () => {
      stop();
      void list();
    },
    { flush: 'post' },
  );
  watch(() => session.sketching, () => (open.value = false)); // prettier-ignore

  async function list(): Promise<void> {
    const mine = ++listing;
    const solution = editing.solution.value;
    if (!open.value || !solution?.solved || solution.freedoms === 0) {
      freedoms.value = [];
      return;
    }
    const found = await inSlices(freedomSteps(solution.geometry, editing.numberOf), () => mine === listing);
    if (found && mine === listing) freedoms.value = found;
  }

  function stop(): void {
    run++;
    chosen.value = null;
    proposals.value = null;
    plan.value = null;
    if (swinging) cancelAnimationFrame(swinging);
    swinging = 0;
    editing.preview.value = null;
  }

  let swinging = 0;
  /** Move a freedom to and fro on the stage until something else is shown. */
  function swing(freedom: Freedom | null): void {
    if (swinging) cancelAnimationFrame(swinging);
    swinging = 0;
    editing.preview.value = null;
    const rest = editing.solution.value?.geometry;
    if (!freedom || !rest) return;
    const reach = showingReach(rest);
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    if (still) {
      editing.preview.value = movedBy(rest, freedom, reach);
      return;
    }
    const start = performance.now();
    const frame = (now: number) => {
      editing.preview.value = movedBy(rest, freedom, reach * Math.sin(((now - start) / SWING_MS) * 2 * Math.PI));
      swinging = requestAnimationFrame(frame);
    };
    swinging = requestAnimationFrame(frame);
  }

  async function choose(i: number): Promise<void> {
    if (chosen.value === i) {
      stop();
      return;
    }
    stop();
    chosen.value = i;
    const freedom = freedoms.value[i]!;
    session.entities = [...freedom.entities];
    swing(freedom);
    const mine = run;
    const found = await inSlices(
      proposalSteps(editing.solution.value!.geometry, editing.numberOf, freedom),
      () => run === mine,
    );
    if (found) proposals.value = found;
  }

  const expressionFor = (p: Proposal) => {
    if (p.reading.value === undefined) return undefined;
    const kind = isDimension(p.constraint) && p.constraint.kind === 'angle' ? 'angle' : 'length';
    return expressionOf(Number(p.reading.value.toFixed(kind === 'angle' ? 6 : 4)), kind, design.design!.units);
  };

  function take(p: Proposal): void {
    stop();
    session.entities = [];
    editing.change(
      `Add ${p.label.toLowerCase()}`,
      (sketch) => void addConstraint(sketch, constraintOf(p.reading, expressionFor(p))),
    );
  }

  async function propose(): Promise<void> {
    stop();
    const mine = run;
    plan.value = { items: [], left: freedoms.value.length, done: false };
    const show = (found: { proposals: readonly Proposal[]; left: number }, done: boolean) => {
      if (run === mine)
        plan.value = { items: found.proposals.map((proposal) => ({ proposal, kept: true })), left: found.left, done };
    };
    const found = await inSlices(
      settleAll(editing.solution.value!.geometry, editing.numberOf),
      () => run === mine,
      (so) => show(so, false),
    );
    if (found) show(found, true);
  }

  function toggle(i: number): void {
    if (!plan.value) return;
    const items = plan.value.items.map((item, k) => (k === i ? { ...item, kept: !item.kept } : item));
    plan.value = { ...plan.value, items };
  }

  function takePlan(): void {
    const kept = plan.value?.items.filter((i) => i.kept).map((i) => i.proposal) ?? [];
    stop();
    session.entities = [];
    editing.change('Settle the sketch', (sketch) => {
      for (const p of kept) addConstraint(sketch, constraintOf(p.reading, expressionFor(p)));
    });
  }

  const redundant = computed(() => (open.value ? (editing.solution.value?.redundant ?? []) : []));

  return {
    open,
    freedoms,
    chosen,
    proposals,
    plan,
    redundant,
    swing,
    choose,
    take,
    propose,
    toggle,
    takePlan,
    stop,
    expressionFor,
  };
}
