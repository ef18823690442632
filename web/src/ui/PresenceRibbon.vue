<script setup lang="ts">
import { computed } from 'vue'

/** A lesson as one line: solid where present, open where not, a dot where they spoke. All in fractions of the lesson. */
const props = defineProps<{
  /** From where to where, each. */
  stretches: readonly (readonly number[])[]
  spoke?: readonly number[]
  label: string
  /** How far the lesson has come, 0 to 1; beyond it the line is only a promise. */
  until?: number
}>()

// Less than this is nothing that anybody would speak of: a minute of a lesson of fifty.
const hair = 0.02
const percent = (share: number) => `${(share * 100).toFixed(2)}%`
const spans = computed(() => props.stretches.map((s) => [s[0]!, s[1]!] as const))
// A cap where a stretch begins or ends inside the lesson: came late, left, dropped out.
const caps = () =>
  spans.value.flatMap(([from, to]) => [
    ...(from > hair ? [from] : []),
    ...(to < Math.min(1, props.until ?? 1) - hair ? [to] : []),
  ])
</script>

<template>
  <svg class="ribbon" role="img" :aria-label="label" height="14" width="100%">
    <line class="open" x1="0" x2="100%" y1="7" y2="7" />
    <line v-for="(s, i) in spans" :key="i" class="there" :x1="percent(s[0])" :x2="percent(s[1])" y1="7" y2="7" />
    <line v-for="(c, i) in caps()" :key="`c${i}`" class="cap" :x1="percent(c)" :x2="percent(c)" y1="3" y2="11" />
    <circle v-for="(s, i) in spoke ?? []" :key="`s${i}`" class="spoke" :cx="percent(s)" cy="7" r="3.1" />
  </svg>
</template>

<style scoped>
.ribbon {
  display: block;
  overflow: visible;
}
.open {
  stroke: var(--rule);
  stroke-width: 2;
}
.there {
  stroke: var(--pen-attendance);
  stroke-width: 2.4;
}
.cap {
  stroke: var(--pen-attendance);
  stroke-width: 1.4;
}
.spoke {
  fill: var(--pen-speaking);
  stroke: var(--paper);
  stroke-width: 1;
}
</style>
