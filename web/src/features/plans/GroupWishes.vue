<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { newId, type Plan } from './plan'

/** Who is to be kept together, or apart, when groups are made. */
const props = defineProps<{ label: string; students: readonly Schemas['Person'][] }>()
const sets = defineModel<Plan['together']>({ required: true })

const nameOf = (id: string) => props.students.find((s) => s.id === id)?.shortName ?? 'somebody who left'

function add(set: Plan['together'][number], event: Event) {
  const select = event.target as HTMLSelectElement
  if (select.value && !set.students.includes(select.value)) set.students.push(select.value)
  select.value = ''
}

function takeOut(set: Plan['together'][number], student: string) {
  set.students = set.students.filter((s) => s !== student)
  if (!set.students.length) sets.value = sets.value.filter((s) => s.id !== set.id)
}
</script>

<template>
  <div>
    <p v-for="(set, i) in sets" :key="set.id" class="rule-line flex-wrap">
      <span class="text-ink-soft">{{ label }}</span>
      <span v-for="student in set.students" :key="student" class="whitespace-nowrap"
        ><b class="font-semibold">{{ nameOf(student) }}</b>
        <button
          type="button"
          class="quiet text-small"
          :aria-label="`${label}, wish ${i + 1}: take out ${nameOf(student)}`"
          @click="takeOut(set, student)"
        >
          out
        </button></span
      >
      <select class="field !w-40" :aria-label="`${label}, wish ${i + 1}: add a student`" @change="add(set, $event)">
        <option value="">and…</option>
        <option v-for="s in students.filter((s) => !set.students.includes(s.id))" :key="s.id" :value="s.id">
          {{ s.fullName }}
        </option>
      </select>
    </p>
    <button type="button" class="quiet" @click="sets = [...sets, { id: newId(), students: [] }]">
      {{ label }}: add a wish
    </button>
  </div>
</template>
