<script setup lang="ts">
import type { Rules } from '../ground-rules/rules'

/** Ranges of scores with names of the teacher's own, from the lowest up; each ends where the next one begins. */
const bands = defineModel<Rules['scheme']['bands']>({ required: true })
function add() {
  const last = bands.value.at(-1)
  const from = last ? Math.min(100, Math.round((last.from + 100) / 2)) : 0
  bands.value = [...bands.value, { from, name: '' }]
}
</script>

<template>
  <details :open="bands.length > 0">
    <summary class="quiet text-small">Bands{{ bands.length ? '' : ': none' }}</summary>
    <ul class="text-small">
      <li v-for="(band, i) in bands" :key="i" class="flex items-baseline gap-2 border-b border-rule py-1">
        <span class="text-ink-soft">from</span>
        <input
          v-model.number="band.from"
          class="field !w-14 text-end"
          type="number"
          min="0"
          max="100"
          :aria-label="`Band ${i + 1} begins at`"
        />
        <input
          v-model="band.name"
          class="field min-w-0 flex-1"
          maxlength="60"
          placeholder="in your words"
          :aria-label="`Name of band ${i + 1}`"
        />
        <button
          type="button"
          class="quiet"
          :aria-label="`Take out band ${i + 1}`"
          @click="bands = bands.filter((b) => b !== band)"
        >
          out
        </button>
      </li>
    </ul>
    <button v-if="bands.length < 12" type="button" class="quiet mt-1 text-small" @click="add">Add a band</button>
  </details>
</template>
