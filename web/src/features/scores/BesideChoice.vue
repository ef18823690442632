<script setup lang="ts">
import type { Schemas } from '../../api/client'
import type { Cell } from './sheet'

/** Another number to be set beside the one that is open: of another student, or of another lesson. */
const props = defineProps<{ sheet: Schemas['ScoreSheet']; cell: Cell }>()
const emit = defineEmits<{ choose: [cell: Cell] }>()
const value = (event: Event) => (event.target as HTMLSelectElement).value || undefined
</script>

<template>
  <p class="no-print mt-4 flex flex-wrap items-baseline gap-x-4 gap-y-1 text-small">
    Press another number with Shift, or set beside it
    <label
      ><span class="sr-only">Another student beside it</span>
      <select
        class="field !w-auto"
        :value="cell.student"
        @change="emit('choose', { ...props.cell, student: value($event)! })"
      >
        <option v-for="s in sheet.students" :key="s.id" :value="s.id">{{ s.called }} {{ s.rest }}</option>
      </select></label
    >
    <label
      ><span class="sr-only">Another lesson beside it</span>
      <select
        class="field !w-auto"
        :value="cell.lesson ?? ''"
        @change="emit('choose', { ...props.cell, lesson: value($event) })"
      >
        <option value="">over all lessons</option>
        <option v-for="l in sheet.lessons" :key="l.id" :value="l.id">lesson {{ l.number }}</option>
      </select></label
    >
  </p>
</template>
