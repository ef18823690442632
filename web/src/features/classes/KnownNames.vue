<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { api, ask, type Schemas } from '../../api/client'
import type { Done } from '../../ui/done'
import { shortDay } from '../../ui/format'

/** Names seen in meetings of the class and whose they are: remembered, with where they came from, and taken back by one press. */
const props = defineProps<{ classId: string; students: readonly Schemas['StudentLine'][] }>()
const emit = defineEmits<{ done: [done: Done] }>()
const params = { path: { id: props.classId } }
const names = useQuery({
  queryKey: ['known-names', props.classId],
  queryFn: () => ask(api.GET('/api/classes/{id}/names', { params })),
})
const whose = (student: string | null) => {
  const found = props.students.find((s) => s.id === student)
  return student ? (found ? found.shortName : 'somebody who left') : 'not a student'
}

async function forget(line: Schemas['KnownNameLine']) {
  const put = (known: boolean) =>
    ask(
      api.PUT('/api/classes/{id}/names', {
        params,
        body: { name: line.name, beside: line.beside, student: line.student, known },
      }),
    )
  await put(false)
  emit('done', { said: `“${line.name}” is asked about again when it is seen.`, undo: () => put(true) })
}
</script>

<template>
  <section v-if="names.data.value?.length" aria-labelledby="known-names">
    <h2 id="known-names" class="rule-head">Names seen before</h2>
    <ul>
      <li v-for="line in names.data.value" :key="line.name + line.beside" class="rule-line">
        <span class="min-w-0 flex-1 truncate"
          >“{{ line.name }}”<template v-if="line.beside"> ({{ line.beside }})</template>
          <span class="text-ink-soft">is</span> {{ whose(line.student) }}</span
        >
        <span class="text-small text-ink-soft">{{ line.origin || 'noted' }}, {{ shortDay(line.notedAt) }}</span>
        <button class="quiet text-small" :aria-label="`Take back: ${line.name}`" @click="forget(line)">
          take back
        </button>
      </li>
    </ul>
  </section>
</template>
