<script setup lang="ts">
import { computed } from 'vue'

/** How the scores of a student went over the term, as one small line; a lesson without a score is a gap. */
const props = defineProps<{ scores: (number | null)[] }>()
const width = 56
const height = 18
const lines = computed(() => {
  const step = props.scores.length > 1 ? width / (props.scores.length - 1) : 0
  const runs: string[][] = [[]]
  props.scores.forEach((score, i) => {
    if (score === null) runs.push([])
    else runs.at(-1)!.push(`${(i * step).toFixed(1)},${(height - 2 - (score / 100) * (height - 4)).toFixed(1)}`)
  })
  return runs.filter((r) => r.length)
})
</script>

<template>
  <svg :width="width" :height="height" aria-hidden="true" class="inline-block align-middle">
    <template v-for="(run, i) in lines" :key="i">
      <polyline v-if="run.length > 1" :points="run.join(' ')" fill="none" stroke="currentColor" stroke-width="1.5" />
      <circle v-else :cx="run[0]!.split(',')[0]" :cy="run[0]!.split(',')[1]" r="1.5" fill="currentColor" />
    </template>
  </svg>
</template>
