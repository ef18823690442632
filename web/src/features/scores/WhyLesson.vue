<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import Notice from '../../ui/Notice.vue'
import StudentEntries from '../entries/StudentEntries.vue'
import FigureTree from './FigureTree.vue'

const props = defineProps<{ lesson: string; student: string }>()
const why = useQuery({
  queryKey: ['why', props.lesson, props.student],
  queryFn: () =>
    ask(
      api.GET('/api/lessons/{id}/scores/{student}', { params: { path: { id: props.lesson, student: props.student } } }),
    ),
})
const answer = computed(() => why.data.value)
const names: Record<Schemas['Strand'], string> = {
  attendance: 'attendance',
  speaking: 'speaking',
  questions: 'questions',
  chat: 'chat',
  groupWork: 'group work',
  rubric: 'rubric',
}
const pens: Record<Schemas['Strand'], string> = {
  attendance: 'text-pen-attendance',
  speaking: 'text-pen-speaking',
  questions: 'text-pen-questions',
  chat: 'text-pen-chat',
  groupWork: 'text-pen-group',
  rubric: 'text-pen-rubric',
}
const two = (n: number) => n.toFixed(2)
const entriesOf = computed(() => new Map(answer.value?.entries.map((e) => [e.id, e]) ?? []))
const nods = computed(() => {
  const find = (figure: Schemas['Figure'] | null | undefined): Schemas['Figure'] | undefined =>
    !figure ? undefined : figure.label === 'Nods' ? figure : figure.parts.map(find).find(Boolean)
  return find(answer.value?.score.total)
})
const earned = computed(() =>
  (answer.value?.score.strands ?? []).reduce((sum, s) => sum + (s.value ? s.value.value * s.weight : 0), 0),
)
const possible = computed(() =>
  (answer.value?.score.strands ?? []).reduce((sum, s) => sum + (s.value ? s.weight : 0), 0),
)
const rests = computed(() => new Set(entriesOf.value.keys()))
</script>

<template>
  <Notice v-if="why.error.value" tone="wrong">{{ why.error.value.message }}</Notice>
  <p v-else-if="!answer" class="text-ink-soft">Reckoning…</p>
  <article v-else>
    <h2 class="text-lead font-bold">
      {{ answer.shown === null ? 'Why no score' : `Why ${answer.shown}` }}, {{ answer.student }}?
    </h2>
    <p class="text-ink-soft">{{ answer.lesson }}</p>
    <Notice v-if="answer.score.because" class="mt-2">{{ answer.score.because }}</Notice>
    <table v-if="answer.score.strands.length" class="sheet-table mt-2">
      <tbody>
        <tr v-for="s in answer.score.strands" :key="s.strand">
          <th scope="row" class="strand" :class="s.value ? pens[s.strand] : 'text-ink-soft'">{{ names[s.strand] }}</th>
          <td class="text-small">{{ s.because }}</td>
          <td class="figures">
            <template v-if="s.value">{{ two(s.value.value) }} × {{ s.weight }}</template>
          </td>
          <td class="figures">{{ s.value ? two(s.value.value * s.weight) : '' }}</td>
        </tr>
        <tr v-if="nods && nods.value > 0">
          <th scope="row" class="strand text-pen-nods">nods</th>
          <td class="text-small" colspan="2">
            {{ nods.parts[0]?.label }}, a point each, at most {{ nods.parts[1]?.value }}
          </td>
          <td class="figures">+{{ nods.value }}</td>
        </tr>
        <tr v-if="answer.score.total">
          <th scope="row" class="strand">together</th>
          <td class="text-small font-semibold" colspan="2">
            {{ two(earned) }} of {{ possible }}, times 100{{ nods && nods.value > 0 ? `, and ${nods.value}` : '' }}
          </td>
          <td class="figures font-bold">{{ answer.score.total.value.toFixed(1) }}</td>
        </tr>
      </tbody>
    </table>

    <h3 class="mt-4 border-b-[1.5px] border-ink pb-0.5 text-small font-semibold">
      What was noted <span class="font-normal text-ink-soft">and in ink what it rests on</span>
    </h3>
    <StudentEntries :lesson="lesson" :student="student" :rests="rests" />
    <details v-if="answer.score.total" class="mt-4">
      <summary class="quiet inline-block text-small">Every step of the reckoning</summary>
      <FigureTree :figure="answer.score.total" :entries="entriesOf" class="mt-1" />
    </details>
  </article>
</template>

<style scoped>
.strand {
  border-bottom: 1px solid var(--rule) !important;
  white-space: nowrap;
  vertical-align: top !important;
}
.figures {
  padding-right: 0 !important;
  padding-left: 10px;
  text-align: end;
  white-space: nowrap;
  vertical-align: top !important;
}
</style>
