<script setup lang="ts">
import type { Schemas } from '../../api/client'

/** The teacher's own judgement by the criteria of the class; pressing the level that is marked takes it back. */
defineProps<{ criteria: readonly Schemas['JudgedCriterion'][]; busy: boolean }>()
const emit = defineEmits<{ mark: [criterion: string, level: string]; takeBack: [entry: string] }>()
</script>

<template>
  <div v-for="{ criterion, level, entry } in criteria" :key="criterion.id" class="mt-2 text-small" role="group">
    <b>{{ criterion.name }}</b>
    <span class="ml-2 inline-flex flex-wrap gap-x-3">
      <button
        v-for="l in criterion.levels"
        :key="l.id"
        class="quiet"
        :class="{ chosen: l.id === level }"
        :aria-pressed="l.id === level"
        :disabled="busy"
        @click="l.id === level && entry ? emit('takeBack', entry) : emit('mark', criterion.id, l.id)"
      >
        {{ l.name }}
      </button>
    </span>
  </div>
</template>

<style scoped>
.chosen {
  border-bottom: 2.5px solid var(--pen-rubric);
  font-weight: 700;
}
</style>
