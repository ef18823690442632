<script setup lang="ts">
import { computed, inject, ref, watch } from 'vue'
import { numberIn } from '../ui/numberIn'
import type { Doing, PageQuestion } from './page'

/** A question on a student's page: to be answered, changed while it is open, or passed over. */
const props = defineProps<{ question: PageQuestion; now: number; onItsWay?: Doing; answeredHere: boolean }>()
const emit = defineEmits<{ act: [act: Doing] }>()
const pictures = inject<string>('pictures')

const chosen = ref<string[]>([])
const number = ref('')
const text = ref('')
const words = ref<string[]>([])
const changing = ref(false)
const q = computed(() => props.question)
const many = computed(() => q.value.kind === 'multipleChoice')
const left = computed(() => (q.value.deadline === null ? null : Math.ceil((q.value.deadline - props.now) / 1000)))
const inTime = computed(() => q.value.open && (left.value === null || left.value > 0))
// When the answers of an anonymous question have been counted, nobody but the tab that gave one knows whose it was.
const answered = computed(() => !!props.onItsWay || q.value.answered || (!q.value.open && props.answeredHere))
const asks = computed(() => inTime.value && ((!answered.value && !q.value.cannot) || changing.value))
const steps = computed(() =>
  Array.from({ length: q.value.scaleTo - q.value.scaleFrom + 1 }, (_, i) => q.value.scaleFrom + i),
)
const complete = computed(() => {
  if (q.value.kind === 'number' || q.value.kind === 'scale') return Number.isFinite(numberIn(number.value))
  if (q.value.kind === 'shortText') return text.value.trim() !== ''
  if (q.value.kind === 'wordList') return words.value.some((w) => w.trim())
  return chosen.value.length > 0
})
const labelOf = (id: string) => {
  const index = q.value.options.findIndex((o) => o.id === id)
  return q.value.options[index]?.text || 'ABCDEFGHIJKL'[index] || ''
}
// What was answered last, whether it has arrived or not.
const latest = computed(() => props.onItsWay?.answer ?? q.value.answer)
const said = computed(() => {
  const a = latest.value
  if (!a) return ''
  if (a.text) return a.text
  if (a.words?.length) return a.words.join(', ')
  if (a.number !== null && a.number !== undefined) return String(a.number)
  return (a.options ?? []).map(labelOf).join(q.value.kind === 'ranking' ? ', then ' : ', ')
})
const rightSaid = computed(
  () => q.value.rightWords ?? (q.value.right ?? []).map(labelOf).join(q.value.kind === 'ranking' ? ', then ' : ', '),
)

/** Starts from what was answered before. */
function begin() {
  const a = latest.value
  chosen.value =
    q.value.kind === 'ranking' && !a?.options?.length ? q.value.options.map((o) => o.id) : [...(a?.options ?? [])]
  number.value = a?.number === null || a?.number === undefined ? '' : String(a.number)
  text.value = a?.text ?? ''
  words.value = Array.from({ length: q.value.wordsEach }, (_, i) => a?.words?.[i] ?? '')
}
watch(() => props.question.asking, begin, { immediate: true })
function choose(id: string) {
  if (!many.value) chosen.value = [id]
  else if (chosen.value.includes(id)) chosen.value = chosen.value.filter((o) => o !== id)
  else chosen.value = [...chosen.value, id]
}
const scaleSaid = computed(() => {
  const { scaleFrom, scaleTo, scaleFromLabel, scaleToLabel } = q.value
  return scaleFromLabel && scaleToLabel
    ? `${scaleFrom} is “${scaleFromLabel}”, ${scaleTo} is “${scaleToLabel}”`
    : `From ${scaleFromLabel || scaleFrom} to ${scaleToLabel || scaleTo}`
})
function move(index: number, by: number) {
  const next = [...chosen.value]
  const [taken] = next.splice(index, 1)
  next.splice(index + by, 0, taken!)
  chosen.value = next
}
function answer() {
  const { kind } = q.value
  const answer =
    kind === 'number' || kind === 'scale'
      ? { number: numberIn(number.value) }
      : kind === 'shortText'
        ? { text: text.value.trim() }
        : kind === 'wordList'
          ? { words: words.value.map((w) => w.trim()).filter(Boolean) }
          : { options: chosen.value }
  changing.value = false
  emit('act', { doing: 'answer', asking: q.value.asking, answer })
}
function change() {
  begin()
  changing.value = true
}
</script>

<template>
  <article class="question" :class="{ open: inTime && asks }">
    <h2>
      <bdi>{{ q.text }}</bdi>
    </h2>
    <p v-if="q.anonymous" class="soft">
      Nobody sees who answers what.{{ q.countsTakingPart ? ' That you answer counts.' : '' }}
    </p>
    <p v-if="q.forGroup" class="soft">For your group.</p>
    <p v-if="q.open && left !== null" class="soft" role="timer">
      {{ left > 0 ? `${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')} left` : 'Your time is up.' }}
    </p>

    <form v-if="asks" @submit.prevent="answer">
      <fieldset v-if="q.kind === 'ranking'">
        <legend class="soft">Put them in order</legend>
        <p v-for="(id, i) in chosen" :key="id" class="option">
          <b>{{ i + 1 }}</b>
          <span class="grow">{{ labelOf(id) }}</span>
          <button type="button" :disabled="i === 0" :aria-label="`${labelOf(id)} up`" @click="move(i, -1)">↑</button>
          <button
            type="button"
            :disabled="i === chosen.length - 1"
            :aria-label="`${labelOf(id)} down`"
            @click="move(i, 1)"
          >
            ↓
          </button>
        </p>
      </fieldset>
      <fieldset v-else-if="q.options.length">
        <legend class="soft">{{ many ? 'Choose any' : 'Choose one' }}</legend>
        <label v-for="(o, i) in q.options" :key="o.id" class="option">
          <input
            :type="many ? 'checkbox' : 'radio'"
            :name="q.asking"
            :checked="chosen.includes(o.id)"
            @change="choose(o.id)"
          />
          <img v-if="o.picture" :src="`${pictures}/${o.picture}`" :alt="o.alternativeText" />
          <span>{{ o.text || 'ABCDEFGHIJKL'[i] }}</span>
        </label>
      </fieldset>
      <fieldset v-else-if="q.kind === 'scale'" class="scale">
        <legend class="soft">{{ scaleSaid }}</legend>
        <label v-for="step in steps" :key="step">
          <input v-model="number" type="radio" :name="q.asking" :value="String(step)" /> {{ step }}
        </label>
      </fieldset>
      <input v-else-if="q.kind === 'number'" v-model="number" inputmode="decimal" aria-label="A number" />
      <input v-else-if="q.kind === 'shortText'" v-model="text" maxlength="200" aria-label="A few words" />
      <template v-else>
        <p class="soft">{{ words.length === 1 ? 'One word' : `Up to ${words.length} words, one to a line` }}</p>
        <input
          v-for="(_, i) in words"
          :key="i"
          v-model="words[i]"
          maxlength="40"
          :aria-label="`Word ${i + 1} of up to ${words.length}`"
        />
      </template>
      <p class="row">
        <button class="first" :disabled="!complete">Answer</button>
        <button
          v-if="!answered"
          type="button"
          class="quiet"
          @click="emit('act', { doing: 'cannotAnswer', asking: q.asking })"
        >
          I can’t do this on my device
        </button>
      </p>
    </form>
    <template v-else>
      <p v-if="answered" role="status">
        <b :class="{ pencil: onItsWay }">{{
          onItsWay ? 'On its way' : q.anonymous && q.open ? 'Sent' : 'Answered'
        }}</b><template v-if="said"
          >: <bdi>{{ said }}</bdi></template
        >{{
          q.anonymous && q.open && !onItsWay
            ? ', counted when the question closes. Leave this page open until then.'
            : '.'
        }}
        <button v-if="inTime && (!q.anonymous || answeredHere)" class="quiet" @click="change">change it</button>
      </p>
      <p v-else-if="q.cannot">
        Your teacher knows that you can’t. It does not count for you.
        <button v-if="inTime" class="quiet" @click="change">I can after all</button>
      </p>
      <p v-else-if="q.anonymous && !q.open" class="soft">Closed. Who answered is not kept.</p>
      <p v-else class="soft">{{ q.open ? '' : 'Closed.' }} You did not answer.</p>
      <p v-if="rightSaid">
        Right: <b>{{ rightSaid }}</b><template v-if="q.marks !== null"
          >. You have {{ Math.round(q.marks * 100) / 100 }} of 1.</template
        >
      </p>
    </template>
  </article>
</template>
