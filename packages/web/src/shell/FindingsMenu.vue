<script setup lang="ts">
/** What needs a look anywhere in the design: steps that fail, references not found for sure, measures that cannot be read, joints not met, requirements not kept, dials that fail. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { faultSentence, judgeRequirements, shownValue } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useFlex } from '../flex/flex-store.ts';

const design = useDesign();
const session = useSession();
const evaluation = useEvaluation();
const flex = useFlex();

interface Finding {
  readonly where: string;
  readonly text: string;
  show(): void;
}
const ofSteps = computed(() =>
  (design.design?.partOrder ?? []).flatMap((part) => {
    const { name, steps } = design.design!.parts[part]!;
    return (evaluation.parts.get(part)?.steps ?? []).flatMap(({ id, status, message, doubts }) => {
      const texts =
        status === 'failed' ? [message ?? 'It fails.'] : doubts.filter((d) => d.how === 'probably').map((d) => d.says);
      return texts.map((text): Finding => ({
        where: `${name}, ${steps[id]?.name ?? ''}`,
        text,
        show: () => show(part, id),
      }));
    });
  }),
);
const ofMeasures = computed(() =>
  [...evaluation.unreadable].flatMap(([ref, text]): Finding[] => {
    const entry = design.ledger?.index.byReference(ref);
    return entry ? [{ where: entry.path.join('.'), text, show: () => void (session.traced = ref) }] : [];
  }),
);
const ofAssemblies = computed(() =>
  evaluation.unmet.found.flatMap(({ assembly, name, message }): Finding[] => {
    const whole = design.design?.assemblies?.[assembly];
    return whole
      ? [{ where: name === null ? whole.name : `${whole.name}, ${name}`, text: message, show: () => session.openAssembly(assembly) }] // prettier-ignore
      : [];
  }),
);
const openFlex = () => void (session.showFlex = true);
const ofRequirements = computed(() =>
  (design.design ? judgeRequirements(design.design) : [])
    .filter((j) => j.holds !== true)
    .map(({ says, holds, because }): Finding => ({
      where: says,
      text: holds === null ? `cannot be told: ${because}` : `is not kept, as ${because} does not hold`,
      show: openFlex,
    })),
);
const ofDials = computed(() =>
  flex.stale
    ? []
    : flex.dials.flatMap(({ dial, below, above }) =>
        [below, above].flatMap((limit): Finding[] =>
          limit
            ? [
                {
                  where: `${dial.name} at ${shownValue(dial, limit.fails, design.kept!.units)}`,
                  text: faultSentence(design.kept!, limit.faults[0]!),
                  show: openFlex,
                },
              ]
            : [],
        ),
      ),
);
const findings = computed(() => [
  ...ofSteps.value,
  ...ofMeasures.value,
  ...ofAssemblies.value,
  ...ofRequirements.value,
  ...ofDials.value,
]);

function show(part: string, step: string): void {
  session.openPart(part);
  session.editing = step;
}
</script>

<template>
  <Menu v-if="findings.length > 0" as="div" class="relative" data-testid="findings">
    <MenuButton class="button flex h-7 items-center gap-1.5 py-0 text-warn">
      <span class="h-2 w-2 rounded-full bg-warn" aria-hidden="true" />{{ findings.length }}
      {{ findings.length === 1 ? 'finding' : 'findings' }}
    </MenuButton>
    <MenuItems
      class="absolute right-0 z-40 mt-1 max-h-80 w-96 overflow-y-auto rounded-md border border-hairline bg-panel p-1 shadow-md focus:outline-none"
    >
      <MenuItem v-for="(f, i) in findings" :key="i" v-slot="{ active }">
        <button
          class="block w-full rounded px-2 py-1 text-left"
          :class="active ? 'bg-signal-soft text-signal' : ''"
          @click="f.show()"
        >
          <span class="font-medium">{{ f.where }}</span>: {{ f.text }}
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
