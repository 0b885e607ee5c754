<script setup lang="ts">
/** A dial over its allowed range: moving it shows the outcome, which is kept or dropped later. */
import { displayFactor, expressionOf, kindOfPowers, rangeOf, type DimensionEntry } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useTrial } from '../trial/trial-store.ts';

const props = defineProps<{ entry: DimensionEntry }>();
const design = useDesign();
const session = useSession();
const trial = useTrial();

/** A dial without a step of its own moves by this share of its range. */
const SHARE = 1 / 100;

const range = computed(() => {
  const ledger = design.ledger!;
  const value = ledger.valueOfEntry(props.entry);
  const { min, max, step } = rangeOf(ledger, props.entry);
  if (!value.ok || min === null || max === null || max <= min) return null;
  const kind = kindOfPowers(value.quantity.powers) ?? 'number';
  const factor = displayFactor(kind, design.design!.units);
  const now = value.quantity.value;
  const whole = kind === 'number' && [min, max, now].every(Number.isInteger);
  return {
    kind,
    factor,
    min: min / factor,
    max: max / factor,
    now: now / factor,
    step: step && step > 0 ? step / factor : whole ? 1 : ((max - min) * SHARE) / factor,
  };
});

let wanted: number | null = null;
/** At most once a frame: a pointer tells more often than a picture can be made. */
function slide(event: Event): void {
  const fresh = wanted === null;
  wanted = Number((event.target as HTMLInputElement).value);
  if (!fresh) return;
  requestAnimationFrame(() => {
    const r = range.value;
    const text = r && wanted !== null ? expressionOf(wanted * r.factor, r.kind, design.design!.units) : null;
    wanted = null;
    if (text !== null) session.notice = trial.hold(props.entry.ref, text);
  });
}
</script>

<template>
  <input
    v-if="range"
    type="range"
    class="dial block h-6 w-full"
    :min="range.min"
    :max="range.max"
    :step="range.step"
    :value="range.now"
    :aria-label="`${entry.name}, dial`"
    @input="slide"
    @keydown.stop
    @keydown.escape="trial.drop()"
    @keydown.enter="trial.holds && trial.keep()"
  />
</template>

<style scoped>
.dial {
  accent-color: var(--color-petrol);
  appearance: none;
  background: transparent;
}
.dial::-webkit-slider-runnable-track {
  height: 3px;
  border-radius: 2px;
  background: linear-gradient(
    to right,
    var(--color-tray),
    var(--color-reshaped) 20%,
    var(--color-reshaped) 80%,
    var(--color-tray)
  );
}
.dial::-webkit-slider-thumb {
  appearance: none;
  width: 5px;
  height: 13px;
  margin-top: -5px;
  border-radius: 1px;
  background: var(--color-petrol);
}
</style>
