<script setup lang="ts">
/** What does not fit, each in a sentence, lit when pointed at, with the numbers that would cure it. */
import { formatQuantity, namedBody, refOfFace, setDimension, type FitCure, type FitFinding, type FaceOf } from '@helb/core'; // prettier-ignore
import * as Comlink from 'comlink';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import type { Hit } from '../stage/scene.ts';
import { stageId } from './offered-spots.ts';
import { useTogether } from './together-store.ts';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const together = useTogether();

const clearance = ref('0.1');
const findings = shallowRef<readonly FitFinding[] | null>(null);
const progress = ref<{ done: number; total: number } | null>(null);
const cures = shallowRef<ReadonlyMap<FitFinding, readonly FitCure[] | 'looking'>>(new Map());
/** For which design and place it was checked. */
let checkedFor: unknown = null;
const stale = ref(false);
watch([() => together.it, () => together.moved], ([it, moved]) => (stale.value = findings.value !== null && checkedFor !== (moved ?? it))); // prettier-ignore
watch(
  () => session.activeAssembly,
  () => (findings.value = null),
);

const names = computed(() => new Map(together.it?.members.map((m) => [m.key, m.name])));
const length = (mm: number) => formatQuantity(mm, 'length', design.design!.units);

function sentence(f: FitFinding): string {
  const [a, b] = f.members.map((k) => names.value.get(k) ?? 'a part');
  if (f.kind === 'overlap') return `${a} and ${b} stand in each other, ${Number(f.volume.toPrecision(3))} mm³.`;
  if (f.kind === 'close') return `${a} and ${b} are ${length(f.gap)} apart.`;
  if (f.kind === 'unknown') return `${a} and ${b} could not be checked: ${f.why}`;
  const toward = f.towards.map((n, i) => (Math.abs(n) > 0.05 ? `${n > 0 ? '+' : '−'}${'xyz'[i]}` : '')).filter(Boolean).join(' '); // prettier-ignore
  if (f.kind === 'flush') return `A face of ${b} is ${length(f.by)} out of flush with one of ${a}, towards ${toward}.`;
  if (f.kind === 'bottoms') return `${a} and ${b} touch at the bottom of a recess while their shoulders stay ${length(f.by)} open.`; // prettier-ignore
  if (f.kind === 'short') return `${a} ends ${length(f.by)} short within the bore of ${b}.`;
  if (f.kind !== 'out_of_line') return '';
  const [r, s] = f.radii.map((x) => `Ø${length(2 * x)}`);
  return `${a} ${r} and ${b} ${s} are ${length(f.by)} out of line, towards ${toward}.`;
}

async function check(): Promise<void> {
  const { it, poses } = together;
  if (!it || !design.design) return;
  const mm = design.ledger!.read(clearance.value, {}, 'length');
  if (!mm.ok) return void (session.notice = mm.message);
  checkedFor = together.moved ?? it;
  stale.value = false;
  cures.value = new Map();
  progress.value = { done: 0, total: 1 };
  const members = it.members.flatMap(({ key, part, link }) =>
    poses.has(key) ? [{ key, part, link, pose: poses.get(key)! }] : [],
  );
  try {
    findings.value = await evaluation
      .on(design.design)
      .checkFit(members, mm.quantity.value, Comlink.proxy({ progress: told }));
  } catch (error) {
    session.notice = `The fit could not be checked: ${(error as Error).message.split('\n')[0]}`;
  } finally {
    progress.value = null;
  }
}

function told(done: number, total: number): void {
  evaluation.sign();
  progress.value = { done, total };
}

function stop(): void {
  if (design.design) void evaluation.on(design.design).stopFit();
}

/** What of a finding lights up. */
function light(f: FitFinding | null): void {
  together.lit = f && 'pieces' in f && f.pieces ? f.pieces.flatMap((p): Hit[] => {
    const view = viewOf(p.member);
    const body = view?.bodies[p.body];
    return body ? [{ body: stageId(p.member, body.id), kind: 'face', index: p.face }] : [];
  }) : (f?.members ?? []).flatMap((key) => (viewOf(key)?.bodies ?? []).flatMap((b) => b.faces.map((_, index): Hit => ({ body: stageId(key, b.id), kind: 'face', index })))); // prettier-ignore
}
const viewOf = (key: string) => {
  const part = together.it?.members.find((m) => m.key === key)?.part;
  return part ? evaluation.parts.get(part) : undefined;
};

async function look(f: FitFinding): Promise<void> {
  if (!('pieces' in f) || !f.pieces || !design.design || !session.activeAssembly) return;
  const faces = f.pieces.map((p): FaceOf => {
    const view = viewOf(p.member)!;
    return { member: p.member, face: refOfFace(namedBody(view.bodies[p.body]!), p.face, view.bodies.map(namedBody)) };
  }) as [FaceOf, FaceOf];
  cures.value = new Map(cures.value).set(f, 'looking');
  try {
    const found = await evaluation
      .on(design.design)
      .fitCures(session.activeAssembly, faces, Comlink.proxy({ progress: told }));
    cures.value = new Map(cures.value).set(f, found ?? []);
  } finally {
    progress.value = null;
  }
}

function take(cure: FitCure): void {
  session.notice = design.edit(setDimension(cure.ref, cure.to));
}
</script>

<template>
  <section aria-label="Fit" class="text-xs">
    <h3 class="mb-1 font-semibold text-quiet">Fit</h3>
    <div class="flex items-center gap-2">
      <button class="button py-0.5" :disabled="progress !== null" @click="check">Check the fit</button>
      <label class="text-quiet"
        >gaps under
        <input
          v-model="clearance"
          class="number w-16 rounded border border-hairline bg-field px-1"
          aria-label="Gaps under"
        />
      </label>
    </div>
    <p v-if="progress" role="status" class="mt-1 flex items-center gap-2 text-quiet">
      <progress class="h-1.5 w-28" :value="progress.done" :max="Math.max(progress.total, 1)" />
      {{ progress.done }} of {{ progress.total }}
      <button class="text-link underline" @click="stop">Stop</button>
    </p>
    <p v-if="findings && findings.length === 0" class="mt-1 text-good">
      Nothing stands in the way, and all bores line up.
    </p>
    <p v-if="stale" class="mt-1 text-warn">Something has changed or moved since; check again.</p>
    <ul v-if="findings" class="mt-1 flex flex-col gap-1">
      <li
        v-for="(f, i) in findings"
        :key="i"
        class="rounded border px-2 py-1"
        :class="f.kind === 'overlap' ? 'border-bad/40' : 'border-hairline'"
        data-testid="finding"
        tabindex="0"
        @pointerenter="light(f)"
        @pointerleave="light(null)"
        @focus="light(f)"
        @blur="light(null)"
      >
        {{ sentence(f) }}
        <button v-if="'pieces' in f && f.pieces && !cures.has(f)" class="text-link underline" @click="look(f)">
          Which number cures it?
        </button>
        <template v-if="cures.get(f) && cures.get(f) !== 'looking'">
          <p v-if="cures.get(f)!.length === 0" class="text-quiet">
            No single number would; a sketch has to be changed.
          </p>
          <p v-for="cure in cures.get(f) as readonly FitCure[]" :key="cure.ref">
            <button class="text-link underline" @click="take(cure)">
              <span class="number">{{ cure.path }}</span> = <span class="number">{{ cure.to }}</span>
            </button>
            <span class="text-quiet">
              instead of <span class="number">{{ cure.from }}</span>{{
                cure.unlinks ? ', which follows other numbers now' : ''
              }}</span
            >
            <!-- prettier-ignore -->
          </p>
        </template>
      </li>
    </ul>
  </section>
</template>
