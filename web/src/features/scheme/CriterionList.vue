<script setup lang="ts">
import type { Rules } from '../ground-rules/rules'

/** By what the teacher judges, for the rubric strand: criteria with levels in their own words, each worth something. */
const criteria = defineModel<Rules['scheme']['criteria']>({ required: true })
const level = (name: string, worth: number) => ({ id: crypto.randomUUID(), name, worth })
const add = () =>
  (criteria.value = [
    ...criteria.value,
    { id: crypto.randomUUID(), name: '', levels: [level('fully', 1), level('in part', 0.5), level('not yet', 0)] },
  ])
</script>

<template>
  <details :open="criteria.length > 0">
    <summary class="quiet text-small">Rubric{{ criteria.length ? '' : ': no criteria' }}</summary>
    <fieldset v-for="(c, i) in criteria" :key="c.id" class="border-b border-rule py-1 text-small">
      <legend class="sr-only">Criterion {{ i + 1 }}</legend>
      <p class="flex items-baseline gap-2">
        <input
          v-model="c.name"
          class="field min-w-0 flex-1 font-semibold"
          maxlength="60"
          placeholder="what you look for, such as “listens to others”"
          :aria-label="`Criterion ${i + 1}`"
        />
        <button
          type="button"
          class="quiet"
          :aria-label="`Take out criterion ${i + 1}`"
          @click="criteria = criteria.filter((o) => o !== c)"
        >
          out
        </button>
      </p>
      <p v-for="(l, n) in c.levels" :key="l.id" class="flex items-baseline gap-2 pl-3">
        <input
          v-model="l.name"
          class="field min-w-0 flex-1"
          maxlength="60"
          :aria-label="`Level ${n + 1} of criterion ${i + 1}`"
        />
        <input
          v-model.number="l.worth"
          class="field !w-14 text-end"
          type="number"
          min="0"
          max="1"
          step="0.05"
          :aria-label="`What level ${n + 1} of criterion ${i + 1} is worth`"
        />
        <button
          type="button"
          class="quiet"
          :disabled="c.levels.length <= 2"
          :aria-label="`Take out level ${n + 1} of criterion ${i + 1}`"
          @click="c.levels = c.levels.filter((o) => o !== l)"
        >
          out
        </button>
      </p>
      <button
        v-if="c.levels.length < 9"
        type="button"
        class="quiet pl-3"
        @click="c.levels = [...c.levels, level('', 0)]"
      >
        Add a level
      </button>
    </fieldset>
    <button v-if="criteria.length < 8" type="button" class="quiet mt-1 text-small" @click="add">Add a criterion</button>
  </details>
</template>
