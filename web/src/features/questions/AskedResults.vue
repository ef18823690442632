<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import ResultsChart from './ResultsChart.vue'
import { wordSize } from './wordSize'

/** What the answers to a question amount to; short texts are marked here, and words that are the same are brought together. */
const props = defineProps<{
  view: Schemas['AskingView']
  earlier?: Schemas['AskingView']
  nameOf: (student: string) => string
}>()
const { note } = useLive()

const question = computed(() => props.view.question)
const quiz = computed(() => question.value.purpose === 'quiz')
const right = computed(() => (quiz.value ? question.value.options?.filter((o) => o.right).map((o) => o.id) : undefined))
const rightWords = computed(() => {
  const q = question.value
  if (!quiz.value) return ''
  if (q.kind === 'shortText') return q.acceptedAnswers?.join(', ') ?? ''
  if (q.kind === 'ranking') return q.options?.map((o) => o.text).join(', ') ?? ''
  return q.target === null || q.target === undefined ? '' : `${q.target}${q.tolerance ? ` ± ${q.tolerance}` : ''}`
})
const toMark = computed(() => quiz.value && question.value.kind === 'shortText')
const marksOf = (students: readonly string[]) => {
  const marks = new Set(props.view.students.filter((s) => students.includes(s.student)).map((s) => s.marks))
  return marks.size === 1 ? [...marks][0] : undefined
}

const merging = ref<string>()
function merge(word: string) {
  if (merging.value === undefined) merging.value = word
  else {
    if (merging.value !== word)
      note({ type: 'wordsMerged', asking: props.view.asking, word: merging.value, into: word })
    merging.value = undefined
  }
}
</script>

<template>
  <p v-if="view.heldBack" class="py-2 text-ink-soft italic">{{ view.heldBack }}</p>
  <div v-else :class="{ sides: earlier }">
    <div v-if="earlier">
      <p class="text-small font-semibold">Before</p>
      <ResultsChart
        :kind="earlier.question.kind"
        :options="(earlier.question.options ?? []) as never"
        v-bind="earlier.results"
      />
    </div>
    <div>
      <p v-if="earlier" class="text-small font-semibold">After</p>
      <template v-if="question.kind === 'wordList'">
        <p v-for="w in view.results.words" :key="w.folded" class="word-line">
          <b class="w-7 text-right">{{ w.count }}</b>
          <bdi class="flex-1" :style="{ fontSize: wordSize(w.count, view.results.words) }">{{ w.word }}</bdi>
          <span v-if="w.with.length" class="text-small text-ink-soft">with {{ w.with.join(', ') }}</span>
          <button class="quiet text-small" :aria-pressed="merging === w.folded" @click="merge(w.folded)">
            {{ merging === undefined ? 'is the same as…' : merging === w.folded ? 'not' : 'this one' }}
          </button>
        </p>
      </template>
      <template v-else-if="toMark">
        <p v-for="t in view.results.texts" :key="t.text" class="word-line">
          <b class="w-7 text-right">{{ t.count }}</b>
          <span class="flex-1"
            ><bdi>{{ t.texts.join(' · ') }}</bdi>
            <span class="text-small text-ink-soft"> {{ t.students.map(nameOf).join(', ') }}</span></span
          >
          <span class="flex gap-2 text-small">
            <button
              v-for="m in [0, 0.5, 1]"
              :key="m"
              class="quiet"
              :aria-pressed="marksOf(t.students) === m"
              :aria-label="`${t.text}: ${m}`"
              @click="note({ type: 'answersMarked', asking: view.asking, students: t.students, marks: m })"
            >
              {{ m === 0.5 ? '½' : m }}
            </button>
          </span>
        </p>
      </template>
      <ResultsChart
        v-else
        :kind="question.kind"
        :options="(question.options ?? []) as never"
        :right="right"
        :scale-from-label="question.scaleFromLabel"
        :scale-to-label="question.scaleToLabel"
        v-bind="view.results"
      />
      <p v-if="rightWords" class="py-1 text-small">Right: {{ rightWords }}</p>
    </div>
  </div>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px;
}
.word-line {
  display: flex;
  gap: 10px;
  align-items: baseline;
  min-height: 28px;
  padding: 3px 0;
  border-bottom: 1px solid var(--rule);
  overflow-wrap: anywhere;
}
[aria-pressed='true'] {
  font-weight: 700;
}
</style>
