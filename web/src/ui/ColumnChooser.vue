<script setup lang="ts">
import type { Schemas } from '../api/client'

/** Which column of a file is taken for what: guessed, shown, changeable. */
const props = defineProps<{ columns: Schemas['Column'][]; fields: readonly { name: string; label: string }[] }>()
const emit = defineEmits<{ change: [mapping: Record<string, number>] }>()

function chosen(index: number, event: Event) {
  const field = (event.target as HTMLSelectElement).value
  const mapping: Record<string, number> = {}
  for (const column of props.columns) {
    const now = column.index === index ? field : column.field
    // A field is held by one column: choosing it here takes it from there.
    if (now && (column.index === index || now !== field)) mapping[now] = column.index
  }
  emit('change', mapping)
}
</script>

<template>
  <div class="overflow-x-auto">
    <table class="sheet-table">
      <thead>
        <tr>
          <th>Column</th>
          <th>First values</th>
          <th>Taken for</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="column in columns" :key="column.index">
          <td class="font-semibold">{{ column.heading }}</td>
          <td class="max-w-[20rem] truncate text-ink-soft">{{ column.samples.join(' · ') }}</td>
          <td>
            <select
              class="field min-w-[11rem]"
              :aria-label="`Column ${column.heading} is taken for`"
              :value="column.field ?? ''"
              @change="chosen(column.index, $event)"
            >
              <option value="">nothing</option>
              <option v-for="field in fields" :key="field.name" :value="field.name">{{ field.label }}</option>
            </select>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
