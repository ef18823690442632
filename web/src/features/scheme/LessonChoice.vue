<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { count, shortDay } from '../../ui/format'

/** Which settled lessons would be scored by the scheme as well. */
const chosen = defineModel<string[]>({ required: true })
const props = defineProps<{ lessons: readonly Schemas['SchemeLesson'][] }>()
const pick = (id: string, on: boolean) =>
  (chosen.value = props.lessons.map((l) => l.id).filter((l) => (l === id ? on : chosen.value.includes(l))))
</script>

<template>
  <details class="choice">
    <summary class="quiet">
      {{ chosen.length === lessons.length ? 'all' : `${chosen.length} of` }}
      {{ count(lessons.length, 'settled lesson') }}
    </summary>
    <div class="list">
      <p class="flex gap-4">
        <button type="button" class="quiet" @click="chosen = lessons.map((l) => l.id)">all</button>
        <button type="button" class="quiet" @click="chosen = []">none</button>
      </p>
      <label v-for="l in lessons" :key="l.id" class="flex gap-2">
        <input
          type="checkbox"
          class="size-6"
          :checked="chosen.includes(l.id)"
          @change="pick(l.id, ($event.target as HTMLInputElement).checked)"
        />
        {{ l.number }}, {{ l.title }}, {{ shortDay(l.plannedStart) }}
        <span class="text-ink-soft">version {{ l.version }}</span>
      </label>
    </div>
  </details>
</template>

<style scoped>
.choice {
  position: relative;
  display: inline-block;
}
.list {
  position: absolute;
  right: 0;
  z-index: 2;
  width: max-content;
  max-width: 26rem;
  max-height: 20rem;
  overflow: auto;
  border: 1.5px solid var(--ink);
  background: var(--paper);
  padding: 8px 12px;
}
</style>
