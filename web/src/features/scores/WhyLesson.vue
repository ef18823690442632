<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { entriesOf, strikeOf, type Act } from '../../live/outbox'
import Notice from '../../ui/Notice.vue'
import UndoNote from '../../ui/UndoNote.vue'
import ObjectionText from '../objections/ObjectionText.vue'
import { useAnswering } from '../objections/answering'
import StudentEntries from '../entries/StudentEntries.vue'
import { strands } from '../ground-rules/rules'
import { lessonInWords, nodsOf, strandName, together, weighed } from './explained'
import FigureTree from './FigureTree.vue'
import JudgeBy from './JudgeBy.vue'
import PutRight from './PutRight.vue'
import TakeAlong from './TakeAlong.vue'

const props = defineProps<{ lesson: string; student: string }>()
const why = useQuery({
  queryKey: ['why', props.lesson, props.student],
  queryFn: () =>
    ask(
      api.GET('/api/lessons/{id}/scores/{student}', { params: { path: { id: props.lesson, student: props.student } } }),
    ),
})
const answer = computed(() => why.data.value)
const answering = useAnswering()
const queries = useQueryClient()
const busy = ref(false)
const problem = ref<string>()

/** Notes something of this score; what comes of it is read anew at once. */
async function note(act: Act) {
  busy.value = true
  problem.value = undefined
  try {
    const body = { entries: entriesOf([act], Date.now()) }
    const { refused } = await ask(
      api.POST('/api/lessons/{id}/entries', { params: { path: { id: props.lesson } }, body }),
    )
    problem.value = refused[0]?.why
    await queries.invalidateQueries()
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}
const penOf = (strand: Schemas['Strand']) => strands.find((s) => s.name === strand)!.pen
const two = (n: number) => n.toFixed(2)
const byId = computed(() => new Map(answer.value?.entries.map((e) => [e.id, e]) ?? []))
const nods = computed(() => nodsOf(answer.value?.score.total))
const doubted = computed(() => new Set(answer.value?.objections.flatMap((o) => o.entry ?? [])))
const rests = computed(() => new Set(byId.value.keys()))
</script>

<template>
  <Notice v-if="why.error.value" tone="wrong">{{ why.error.value.message }}</Notice>
  <p v-else-if="!answer" class="text-ink-soft">Reckoning…</p>
  <article v-else>
    <h2 class="text-lead font-bold">
      {{ answer.shown === null ? 'Why no score' : `Why ${answer.shown}` }}, {{ answer.student }}?
    </h2>
    <p class="text-ink-soft">
      {{ answer.lesson }}<template v-if="answer.version">, version {{ answer.version }} of the scheme</template>
    </p>
    <p class="mt-2 text-lead">{{ answer.sentence }}</p>
    <p v-if="answer.score.total" class="text-small text-ink-soft">
      Rests on {{ answer.score.restsOn }} of {{ answer.score.whole
      }}{{ answer.score.restsOnLittle ? ': less than half of the scheme' : '' }}.
    </p>
    <TakeAlong :text="lessonInWords(answer)" />
    <section v-if="answer.objections.length" class="objections" aria-label="What the student says is wrong">
      <ObjectionText
        v-for="o in answer.objections"
        :key="o.id"
        :objection="o"
        @answer="(text) => answering.answer(o, text)"
      />
      <Notice v-if="answering.problem.value" tone="wrong">{{ answering.problem.value }}</Notice>
      <UndoNote v-model="answering.done.value" />
    </section>
    <Notice v-if="problem" tone="wrong" class="mt-2">{{ problem }}</Notice>
    <table v-if="answer.score.strands.length" class="sheet-table mt-2">
      <tbody>
        <tr v-for="s in weighed(answer)" :key="s.strand">
          <th scope="row" class="strand" :style="{ color: s.value ? penOf(s.strand) : 'var(--ink-soft)' }">
            {{ strandName(s.strand) }}
          </th>
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
            {{ two(together(answer).earned) }} of {{ together(answer).possible }}, times 100{{
              nods && nods.value > 0 ? `, and ${nods.value}` : ''
            }}
          </td>
          <td class="figures font-bold">{{ answer.score.total.value.toFixed(1) }}</td>
        </tr>
      </tbody>
    </table>

    <JudgeBy
      :criteria="answer.criteria"
      :busy="busy"
      @mark="(criterion, level) => note({ type: 'criterionMarked', student, criterion, level })"
      @take-back="(entry) => note(strikeOf([entry]))"
    />
    <template v-if="answer.wouldChange.length">
      <h3 class="mt-4 border-b-[1.5px] border-ink pb-0.5 text-small font-semibold">What would have made it higher</h3>
      <p v-for="w in answer.wouldChange.slice(0, 5)" :key="w.what" class="flex border-b border-rule py-0.5 text-small">
        <span class="flex-1">{{ w.what }}</span><b>{{ Math.round(w.score) }}</b>
      </p>
    </template>
    <PutRight
      :corrections="answer.corrections"
      :busy="busy"
      @correct="(act) => note({ ...act, type: 'scoreCorrected', student })"
      @take-back="(entry) => note(strikeOf([entry]))"
    />

    <h3 class="mt-4 border-b-[1.5px] border-ink pb-0.5 text-small font-semibold">
      What was noted <span class="font-normal text-ink-soft">and in ink what it rests on</span>
    </h3>
    <StudentEntries :lesson="lesson" :student="student" :rests="rests" :doubted="doubted" />
    <details v-if="answer.score.total" class="mt-4">
      <summary class="quiet inline-block text-small">Every step of the reckoning</summary>
      <FigureTree :figure="answer.score.total" :entries="byId" class="mt-1" />
    </details>
  </article>
</template>

<style scoped>
.objections {
  margin-top: 8px;
  border-left: 4px solid var(--pen-speaking);
  padding-left: 10px;
}
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
