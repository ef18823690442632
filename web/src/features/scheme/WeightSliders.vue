<script setup lang="ts">
import { strands, type Rules } from '../ground-rules/rules'

/** How much each strand weighs; a strand at nothing is switched off. */
const weights = defineModel<Rules['scheme']['weights']>({ required: true })
const props = defineProps<{ before: Rules['scheme']['weights']; example?: string }>()
const most = 6
const of = (map: Rules['scheme']['weights'], name: string) => map[name] ?? 0
const share = (weight: number) => `${(Math.min(most, weight) / most) * 100}%`
const was = (name: string) =>
  of(props.before, name) === of(weights.value, name) ? '' : `was ${of(props.before, name)}`
</script>

<template>
  <div class="text-small">
    <label v-for="s in strands" :key="s.name" class="strand" :style="{ '--pen': s.pen }">
      <b :class="{ off: !of(weights, s.name) }">{{ s.label }}</b>
      <span class="line" :style="{ '--share': share(of(weights, s.name)), '--was': share(of(before, s.name)) }">
        <input
          type="range"
          min="0"
          :max="most"
          step="0.5"
          :value="of(weights, s.name)"
          :aria-label="`Weight of ${s.label.toLowerCase()}`"
          @input="weights = { ...weights, [s.name]: Number(($event.target as HTMLInputElement).value) }"
        />
      </span>
      <b class="text-end">{{ of(weights, s.name) || 'off' }}</b>
      <span class="text-ink-soft">{{ was(s.name) }}</span>
    </label>
    <p class="mt-2 text-ink-soft">{{ example }}</p>
  </div>
</template>

<style scoped>
.strand {
  display: grid;
  grid-template-columns: 88px minmax(0, 1fr) 28px 44px;
  gap: 10px;
  align-items: center;
  min-height: 34px;
  border-bottom: 1px solid var(--rule);
}
.strand b:first-child {
  color: var(--pen);
}
.strand .off {
  font-weight: 400;
  text-decoration: line-through;
}
.line {
  position: relative;
  display: block;
  height: 26px;
  background:
    linear-gradient(var(--pen), var(--pen)) 0 50% / var(--share) 3px no-repeat,
    linear-gradient(var(--rule), var(--rule)) 0 50% / 100% 1px no-repeat;
}
.line::after {
  position: absolute;
  top: 5px;
  left: var(--was);
  height: 16px;
  border-left: 2px dotted var(--ink-soft);
  content: '';
  pointer-events: none;
}
input {
  position: absolute;
  inset: 0 -7px;
  width: calc(100% + 14px);
  appearance: none;
  background: none;
  cursor: pointer;
}
input::-webkit-slider-thumb {
  width: 14px;
  height: 14px;
  appearance: none;
  border-radius: 50%;
  background: var(--pen);
}
input::-moz-range-thumb {
  width: 14px;
  height: 14px;
  border: 0;
  border-radius: 50%;
  background: var(--pen);
}
</style>
