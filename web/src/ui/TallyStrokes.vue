<script setup lang="ts">
import { computed } from 'vue'
import { strokeMarks, type StrokeState } from './strokes'

const props = defineProps<{ strokes: StrokeState[]; pen: string; label: string; height?: number }>()

const height = computed(() => props.height ?? 15)
const drawn = computed(() => strokeMarks(props.strokes, height.value))
</script>

<template>
  <svg
    v-if="strokes.length"
    class="tally"
    role="img"
    :aria-label="label"
    :width="drawn.width"
    :height="height"
    :viewBox="`0 0 ${drawn.width} ${height}`"
  >
    <path v-for="mark in drawn.marks" :key="mark.key" :d="mark.d" :class="[mark.state, `stroke-pen-${pen}`]" />
  </svg>
</template>

<style scoped>
.tally {
  display: inline-block;
  vertical-align: middle;
  overflow: visible;
}
path {
  fill: none;
  stroke-width: 2;
  stroke-linecap: round;
  transition: stroke 120ms;
}
.stroke-pen-speaking {
  stroke: var(--pen-speaking);
}
.stroke-pen-questions {
  stroke: var(--pen-questions);
}
.stroke-pen-chat {
  stroke: var(--pen-chat);
}
.stroke-pen-group {
  stroke: var(--pen-group);
}
.stroke-pen-nods {
  stroke: var(--pen-nods);
}
path.pencil {
  stroke: var(--pencil);
  stroke-width: 1;
}
path.struck {
  stroke-width: 1;
  stroke-dasharray: 1.5 3;
  opacity: 0.55;
}
</style>
