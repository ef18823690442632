<script setup lang="ts">
import type { Schemas } from '../../api/client'

/** The criteria of a class, of which one is on. */
defineProps<{ criteria: readonly Schemas['Criterion'][] }>()
const on = defineModel<number>({ required: true })
</script>

<template>
  <p class="flex flex-wrap gap-x-3">
    <button
      v-for="(c, i) in criteria"
      :key="c.id"
      class="quiet"
      :class="{ on: i === on }"
      :aria-pressed="i === on"
      @click="on = i"
    >
      {{ c.name }}
    </button>
    <slot />
  </p>
</template>

<style scoped>
.on {
  border-bottom: 2.5px solid var(--pen-rubric);
  font-weight: 700;
}
</style>
