<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask } from '../../api/client'
import { count } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import { strandName, termInWords } from './explained'
import type { Asked } from './sheet'
import TakeAlong from './TakeAlong.vue'

/** Why a score over the lessons of some days is what it is, and what it is in each term. */
const props = defineProps<{ classId: string; student: string; asked: Asked }>()
const why = useQuery({
  queryKey: ['whyTerm', props.classId, props.student, computed(() => props.asked)],
  queryFn: () =>
    ask(
      api.GET('/api/classes/{id}/scores/{student}', {
        params: {
          path: { id: props.classId, student: props.student },
          query: { ...props.asked },
        },
      }),
    ),
})
const answer = computed(() => why.data.value)
const lessons = computed(() => answer.value?.total?.parts[0]?.parts ?? [])
</script>

<template>
  <Notice v-if="why.error.value" tone="wrong">{{ why.error.value.message }}</Notice>
  <p v-else-if="!answer" class="text-ink-soft">Reckoning…</p>
  <article v-else>
    <h2 class="text-lead font-bold">
      {{ answer.shown === null ? 'Why no score' : `Why ${answer.shown}` }}
      {{ asked.strand ? `for ${strandName(asked.strand)}` : 'over the term' }}, {{ answer.student }}?
    </h2>
    <p class="no-print flex gap-4 text-small">
      <RouterLink class="quiet" :to="{ name: 'reports', params: { id: classId, kind: 'student' }, query: { student } }"
        >report</RouterLink
      >
      <RouterLink class="quiet" :to="{ name: 'past', params: { id: classId }, query: { student } }"
        >look back</RouterLink
      >
    </p>
    <TakeAlong :text="termInWords(answer, asked.strand)" />
    <Notice v-if="!answer.total" class="mt-2"
      >Not enough yet: {{ answer.scored }} of the {{ answer.needed }}
      {{ asked.strand ? 'lessons with a chance in it' : 'scored lessons' }} that a term score needs.</Notice
    >
    <template v-else>
      <p class="text-ink-soft">
        The mean of the {{ asked.strand ? 'lessons with a chance in it' : 'scored lessons' }}, each as heavy as it is
        long<template v-if="answer.leftOut.length">, without the lowest: {{ answer.leftOut.join('; ') }}</template
        >.<template v-if="answer.band"> It is in the band “{{ answer.band }}”.</template>
      </p>
      <p v-if="answer.needsLook.length" class="mt-1 text-small">
        Needs a look: <b>{{ answer.needsLook.join('; ') }}</b>.
      </p>
      <table class="sheet-table mt-2">
        <thead>
          <tr>
            <th>Lesson</th>
            <th class="figures">Score</th>
            <th class="figures">Minutes</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in lessons" :key="l.label">
            <td class="text-small">{{ l.label }}</td>
            <td class="figures">{{ l.parts[0]!.value.toFixed(1) }}</td>
            <td class="figures">{{ l.parts[1]!.value }}</td>
          </tr>
          <tr>
            <th scope="row">together</th>
            <td class="figures font-bold">{{ answer.total.value.toFixed(1) }}</td>
            <td class="figures">{{ answer.total.parts[1]!.value }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <template v-if="answer.terms.length">
      <h3 class="mt-4 border-b-[1.5px] border-ink pb-0.5 text-small font-semibold">Term by term</h3>
      <p v-for="t in answer.terms" :key="t.term.id" class="flex gap-3 border-b border-rule py-0.5 text-small">
        <span class="flex-1">{{ t.term.name }}, {{ count(t.scored, 'scored lesson') }}</span>
        <span class="text-ink-soft">{{ t.band }}</span>
        <b>{{ t.shown ?? 'not enough yet' }}</b>
      </p>
    </template>
  </article>
</template>

<style scoped>
.figures {
  text-align: end;
}
</style>
