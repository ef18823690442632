<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { count } from '../../ui/format'
import { useDone } from '../../ui/done'
import { inTurn } from '../../ui/inTurn'
import Notice from '../../ui/Notice.vue'
import UndoNote from '../../ui/UndoNote.vue'
import JudgeMany from './JudgeMany.vue'
import type { Asked } from './sheet'

/** Students judged by the rubric over all lessons that the sheet shows: an entry in each, one way back for all. */
const props = defineProps<{ classId: string; asked: Asked; lessons: readonly Schemas['ScoredColumn'][] }>()
const path = computed(() => ({ id: props.classId }))
const judged = useQuery({
  queryKey: ['judged', props.classId, computed(() => props.asked)],
  queryFn: () =>
    ask(
      api.GET('/api/classes/{id}/judged', {
        params: { path: path.value, query: { from: props.asked.from, to: props.asked.to } },
      }),
    ),
})
const { done, problem, tried } = useDone()
const next = inTurn()

async function mark(students: string[], criterion: string, level: string) {
  await tried(async () => {
    const body = { lessons: props.lessons.map((l) => l.id), students, criterion, level }
    const stored = await next((signal) =>
      ask(api.POST('/api/classes/{id}/judged', { params: { path: path.value }, body, signal })),
    )
    if (!stored.lessons) throw new Error(stored.notTaken.join(' '))
    return {
      said: [
        `Marked for ${count(students.length, 'student')} in ${count(stored.lessons, 'lesson')}.`,
        ...stored.notTaken,
      ].join(' '),
      undo: () =>
        ask(
          api.POST('/api/classes/{id}/judged/take-back', {
            params: { path: path.value },
            body: { together: stored.together },
          }),
        ),
    }
  })
}
</script>

<template>
  <h2 class="text-lead font-bold">Judge by the rubric</h2>
  <p class="text-small text-ink-soft">
    For {{ count(lessons.length, 'lesson') }}, those that the sheet shows; choose other days above for fewer.
  </p>
  <Notice v-if="problem" tone="wrong" class="mt-1">{{ problem }}</Notice>
  <UndoNote v-model="done" />
  <p v-if="judged.data.value && !judged.data.value.criteria.length" class="mt-2 text-small">
    This class has no criteria yet.
    <RouterLink class="quiet font-semibold" :to="`/classes/${classId}/scheme`">Give its scheme some</RouterLink>.
  </p>
  <JudgeMany v-if="judged.data.value" class="mt-2" :sheet="judged.data.value" @mark="mark" />
</template>
