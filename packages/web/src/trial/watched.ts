/** What the designer watches while trying: starred and measured dimensions, mass, size, freedoms. */
import { displayFactor, formatNumber, Ledger, massOf, type Design, type PartView } from '@helb/core';
import { createSharedComposable, useStorage } from '@vueuse/core';
import { computed, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';

export interface WatchedValue {
  readonly key: string;
  readonly label: string;
  readonly before: string;
  readonly after: string;
  /** Change in hundredths of the value before, where that means anything. */
  readonly percent: number | null;
}

type Parts = ReadonlyMap<string, PartView>;
interface Reading {
  readonly text: string;
  readonly number: number | null;
}
const NOT_COMPUTED: Reading = { text: 'not computed', number: null };

/** Starred dimensions, by design; kept in this browser. */
export const useStars = createSharedComposable(() => {
  const design = useDesign();
  const all = useStorage<Record<string, string[]>>('helb.stars', {});
  const stars = computed(() => new Set(all.value[design.id ?? ''] ?? []));
  function toggle(ref: string): void {
    const next = new Set(stars.value);
    if (!next.delete(ref)) next.add(ref);
    all.value = { ...all.value, [design.id ?? '']: [...next] };
  }
  return { stars, toggle };
});

function dimension(of: Design, ref: string): Reading {
  const ledger = Ledger.of(of);
  const value = ledger.valueOf(ref);
  return { text: ledger.format(value), number: value.ok ? value.quantity.value : null };
}

function mass(of: Design, parts: Parts, ids: readonly string[]): Reading {
  let total: number | null = null;
  for (const id of ids) {
    const material = of.parts[id]?.material;
    if (!material) continue;
    for (const body of parts.get(id)?.bodies ?? []) total = (total ?? 0) + massOf(body.volume, material);
  }
  return total === null
    ? { text: 'no material', number: null }
    : { text: `${formatNumber(total, 3)} kg`, number: total };
}

function size(of: Design, parts: Parts, id: string): Reading {
  const bodies = parts.get(id)?.bodies ?? [];
  if (bodies.length === 0) return { text: 'no body', number: null };
  const factor = displayFactor('length', of.units);
  const along = [0, 1, 2].map(
    (i) => Math.max(...bodies.map((b) => b.box.max[i]!)) - Math.min(...bodies.map((b) => b.box.min[i]!)),
  );
  return { text: `${along.map((s) => formatNumber(s / factor, 2)).join(' × ')} ${of.units.length}`, number: null };
}

function freedoms(parts: Parts): Reading {
  const sketches = [...parts.values()].flatMap((p) => p.steps.flatMap((s) => s.sketch ?? []));
  const count = sketches.reduce((sum, s) => sum + s.freedoms, 0);
  const clashing = sketches.filter((s) => !s.solved).length;
  return { text: clashing > 0 ? `${clashing} clashing` : String(count), number: null };
}

function failing(parts: Parts): Reading {
  const count = [...parts.values()].flatMap((p) => p.steps).filter((s) => s.status === 'failed').length;
  return counted(count);
}

const counted = (count: number): Reading => ({ text: count === 0 ? 'none' : String(count), number: null });

export function useWatched() {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const { stars } = useStars();

  /** The kept design as it was last computed. */
  const base = shallowRef<{ readonly design: Design; readonly parts: Parts } | null>(null);
  watch(
    () => evaluation.complete,
    (now) => {
      if (now && now.design === design.kept) base.value = now;
    },
    { immediate: true },
  );

  /** What did not hold together in it. */
  const unmetBefore = shallowRef<{ readonly design: Design; readonly count: number } | null>(null);
  watch(
    () => evaluation.unmet,
    ({ of, found }) => {
      if (of && of === design.kept) unmetBefore.value = { design: of, count: found.length };
    },
    { immediate: true },
  );

  /** Values in the design as kept, and in the one on the screen. */
  const watched = computed<WatchedValue[]>(() => {
    const [was, is] = [design.kept, design.design];
    if (!was || !is) return [];
    const before = base.value?.design === was ? base.value.parts : null;
    const after = evaluation.parts;
    const rows: WatchedValue[] = [];
    const add = (key: string, label: string, from: Reading, to: Reading) =>
      rows.push({ key, label, before: from.text, after: to.text, percent: percentOf(from, to) });
    const solid = (key: string, label: string, read: (of: Design, parts: Parts) => Reading) =>
      add(key, label, before ? read(was, before) : NOT_COMPUTED, read(is, after));
    const ledger = Ledger.of(is);
    const measured = ledger.entries.filter((e) => e.measured?.of === 'part').map((e) => e.ref);
    for (const ref of new Set([...stars.value, ...measured])) {
      const entry = ledger.index.byReference(ref);
      if (entry) add(ref, entry.path.slice(-2).join('.'), dimension(was, ref), dimension(is, ref));
    }
    const active = session.activePart;
    const name = active ? is.parts[active]?.name : undefined;
    if (active && name) {
      solid('mass', `${name}, mass`, (of, parts) => mass(of, parts, [active]));
      solid('size', `${name}, size`, (of, parts) => size(of, parts, active));
    }
    if (is.partOrder.length > 1) solid('all', 'all parts, mass', (of, parts) => mass(of, parts, of.partOrder));
    solid('freedoms', 'freedoms left', (_, parts) => freedoms(parts));
    solid('failing', 'steps that fail', (_, parts) => failing(parts));
    if (Object.keys(is.assemblies ?? {}).length > 0) {
      const known = unmetBefore.value?.design === was ? counted(unmetBefore.value.count) : NOT_COMPUTED;
      add('unmet', 'joints not met or in doubt', known, evaluation.unmet.of === is ? counted(evaluation.unmet.found.length) : NOT_COMPUTED); // prettier-ignore
    }
    return rows;
  });

  return watched;
}

function percentOf(from: Reading, to: Reading): number | null {
  if (from.number === null || to.number === null || from.number === 0) return null;
  return (100 * (to.number - from.number)) / Math.abs(from.number);
}
