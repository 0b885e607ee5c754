<script setup lang="ts">
/** What does not fit, each in a sentence, lit when pointed at, with the numbers that would cure it. */
import { namedBody, refOfFace, setDimension, type FaceOf, type FitCure } from '@helb/core';
import * as Comlink from 'comlink';
import { shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import type { Hit } from '../stage/scene.ts';
import { useFitChecking, type ToldFinding } from './fit-checking.ts';
import { stageId } from './offered-spots.ts';
import { useRuns } from './runs-store.ts';
import { useTogether } from './together-store.ts';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const together = useTogether();
const runs = useRuns();
const { clearance, where, motions, runsHere, findings, clean, progress, stale, told, check, stop } = useFitChecking();

const cures = shallowRef<ReadonlyMap<ToldFinding, readonly FitCure[] | 'looking'>>(new Map());
watch(findings, () => (cures.value = new Map()));

const viewOf = (key: string) => {
  const part = together.it?.members.find((m) => m.key === key)?.part;
  return part ? evaluation.parts.get(part) : undefined;
};
const piecesOf = ({ rest }: ToldFinding) => (rest && 'pieces' in rest ? rest.pieces : null);

/** What of a finding lights up: the faces it speaks of, else the parts. */
function light(f: ToldFinding | null): void {
  const pieces = f && piecesOf(f);
  together.lit = pieces
    ? pieces.flatMap((p): Hit[] => {
        const body = viewOf(p.member)?.bodies[p.body];
        return body ? [{ body: stageId(p.member, body.id), kind: 'face', index: p.face }] : [];
      })
    : (f?.members ?? []).flatMap((key) =>
        (viewOf(key)?.bodies ?? []).flatMap((b) =>
          b.faces.map((_, index): Hit => ({ body: stageId(key, b.id), kind: 'face', index })),
        ),
      );
}

function look({ goTo }: ToldFinding): void {
  if (!goTo) return;
  if ('run' in goTo) void runs.showAt(goTo.run, goTo.to);
  else together.driveTo([goTo]);
}

async function cure(f: ToldFinding): Promise<void> {
  const pieces = piecesOf(f);
  if (!pieces || !design.design || !session.activeAssembly) return;
  const faces = pieces.map((p): FaceOf => {
    const view = viewOf(p.member)!;
    return { member: p.member, face: refOfFace(namedBody(view.bodies[p.body]!), p.face, view.bodies.map(namedBody)) };
  }) as [FaceOf, FaceOf];
  cures.value = new Map(cures.value).set(f, 'looking');
  progress.value = { done: 0, total: 1 };
  try {
    const found = await evaluation
      .on(design.design)
      .fitCures(
        session.activeAssembly,
        faces,
        f.rest!.kind === 'overlap' ? 'free' : 'level',
        Comlink.proxy({ progress: told }),
      );
    cures.value = new Map(cures.value).set(f, found ?? []);
  } catch (error) {
    session.notice = `No cure could be looked for: ${(error as Error).message.split('\n')[0]}`;
    cures.value = new Map([...cures.value].filter(([of]) => of !== f));
  } finally {
    progress.value = null;
  }
}

function take({ ref, to }: FitCure): void {
  session.notice = design.edit(setDimension(ref, to));
}
</script>

<template>
  <section aria-label="Fit" class="text-xs">
    <h3 class="mb-1 font-semibold text-quiet">Fit</h3>
    <div class="flex flex-wrap items-center gap-2">
      <button class="button py-0.5" :disabled="progress !== null" @click="check">Check the fit</button>
      <select
        v-model="where"
        class="max-w-40 rounded border border-hairline bg-field px-1 py-0.5"
        aria-label="Where the fit is checked"
      >
        <option value="rest">as it stands now</option>
        <option v-for="m in motions" :key="m.id" :value="m.id">on the way of {{ m.label }}</option>
        <option v-for="r in runsHere" :key="r.id" :value="r.id">through {{ r.label }}</option>
        <option value="dials">with each dial at its ends</option>
      </select>
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
    <p v-if="findings && findings.every((f) => f.wanted)" class="mt-1 text-good">{{ clean }}</p>
    <p v-if="stale" class="mt-1 text-warn">Something has changed or moved since; check again.</p>
    <ul v-if="findings" class="mt-1 flex flex-col gap-1">
      <li
        v-for="(f, i) in findings"
        :key="i"
        class="rounded border px-2 py-1"
        :class="f.bad ? 'border-bad/40' : f.wanted ? 'border-hairline text-quiet' : 'border-hairline'"
        data-testid="finding"
        tabindex="0"
        @pointerenter="light(f)"
        @pointerleave="light(null)"
        @focus="light(f)"
        @blur="light(null)"
      >
        {{ f.says }}
        <button v-if="f.goTo" class="text-link underline" @click="look(f)">Look there</button>
        <button v-if="piecesOf(f) && !cures.has(f)" class="text-link underline" @click="cure(f)">
          Which number cures it?
        </button>
        <template v-if="cures.get(f) && cures.get(f) !== 'looking'">
          <p v-if="cures.get(f)!.length === 0" class="text-quiet">
            No single number would; a sketch has to be changed.
          </p>
          <p v-for="one in cures.get(f) as readonly FitCure[]" :key="one.ref">
            <button class="text-link underline" @click="take(one)">
              <span class="number">{{ one.path }}</span> = <span class="number">{{ one.to }}</span>
            </button>
            <span class="text-quiet">
              instead of <span class="number">{{ one.from }}</span>{{
                one.unlinks ? ', which follows other numbers now' : ''
              }}</span
            >
          </p>
        </template>
      </li>
    </ul>
  </section>
</template>
