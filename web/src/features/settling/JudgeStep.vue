<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { api, ask, type Schemas } from '../../api/client'
import type { Act } from '../../live/outbox'
import JudgeMany from '../scores/JudgeMany.vue'

/** After the lesson, while it is fresh: students judged by the criteria of the class. */
const props = defineProps<{ lesson: string }>()
const emit = defineEmits<{ note: [acts: Act[], text: string] }>()
const judged = useQuery({
  queryKey: ['judged', props.lesson],
  queryFn: () => ask(api.GET('/api/lessons/{id}/judged', { params: { path: { id: props.lesson } } })),
})

function mark(students: string[], criterion: string, level: string) {
  const sheet = judged.data.value as Schemas['JudgedSheet']
  const name = sheet.criteria.find((c) => c.id === criterion)?.levels.find((l) => l.id === level)?.name
  const who = students.length === 1 ? sheet.students.find((s) => s.id === students[0])?.name : `${students.length}`
  emit(
    'note',
    students.map((student) => ({ type: 'criterionMarked', student, criterion, level })),
    `${who}: ${name}`,
  )
}
</script>

<template>
  <details v-if="judged.data.value?.criteria.length">
    <summary class="quiet inline-block font-semibold">Judge by the rubric</summary>
    <JudgeMany class="mt-2 max-w-xl" :sheet="judged.data.value" @mark="mark" />
  </details>
</template>
