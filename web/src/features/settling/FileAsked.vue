<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import ColumnChooser from '../../ui/ColumnChooser.vue'
import { count } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import { kinds, likeWhat, rowsIn, type Decided } from './files'
import FirstRows from './FirstRows.vue'
import MarkLines from './MarkLines.vue'
import MomentChoice from './MomentChoice.vue'
import QuestionsOfFile from './QuestionsOfFile.vue'

/** A file that cannot be brought in without a word of the teacher: what is asked, what was read, and how to put it right. */
const props = defineProps<{ file: File; look: Schemas['FileLook']; day: number }>()
const emit = defineEmits<{ decide: [more: Decided]; leave: [] }>()

const time = [
  { name: 'date', label: 'day of its times' },
  { name: 'email', label: 'e-mail address' },
]
const fields: Record<Schemas['FileKind'], { name: string; label: string }[]> = {
  attendance: [
    { name: 'name', label: 'name in the meeting' },
    { name: 'joined', label: 'joining time' },
    { name: 'left', label: 'leaving time' },
    { name: 'length', label: 'minutes there' },
    { name: 'event', label: 'event (joined or left)' },
    { name: 'time', label: 'time of the event' },
    ...time,
    { name: 'number', label: 'student number' },
    { name: 'person', label: 'id of the person' },
    { name: 'device', label: 'device' },
  ],
  chat: [
    { name: 'name', label: 'who wrote' },
    { name: 'text', label: 'message' },
    { name: 'time', label: 'when' },
    { name: 'to', label: 'to whom' },
    ...time,
  ],
  captions: [],
  answers: [
    { name: 'name', label: 'who answered' },
    { name: 'given', label: 'given name' },
    { name: 'family', label: 'family name' },
    { name: 'time', label: 'when' },
    ...time,
    { name: 'number', label: 'student number' },
    { name: 'question', label: 'the question (a row an answer)' },
    { name: 'answer', label: 'the answer (a row an answer)' },
    { name: 'points', label: 'points' },
    { name: 'try', label: 'number of the try' },
  ],
  people: [],
}
const zones = computed(() => [...new Set([props.look.timeZone, ...Intl.supportedValuesOf('timeZone')])].sort())
/** What its columns are taken for now, as a decision. */
const taken = computed(() =>
  Object.fromEntries(props.look.columns.flatMap((c) => (c.field ? [[c.field, c.index]] : []))),
)
const readingOf = (kind: Schemas['FileKind']) => props.look.readings.find((r) => r.kind === kind)
const article = { ...kinds, attendance: 'an attendance list', chat: 'a saved chat', people: 'a list of people' }
/** What was said of another reading says nothing of this one. */
const anew: Decided = {
  kind: undefined,
  mapping: undefined,
  questions: undefined,
  leaveOut: undefined,
  sure: undefined,
}
const rezone = (event: Event) => emit('decide', { zone: (event.target as HTMLSelectElement).value })
</script>

<template>
  <section class="border-l-[3px] border-ink pl-5" :aria-label="file.name">
    <h3 class="text-lead font-bold">
      {{ file.name }}<template v-if="look.kind">: {{ kinds[look.kind] }}, {{ rowsIn(look.kind, look.rows) }}</template>
    </h3>
    <p v-if="look.like" class="mt-1">
      Read like {{ likeWhat(look.like) }}.
      <button class="quiet ml-2" @click="emit('decide', { anew: true })">Read anew</button>
    </p>
    <template v-if="look.couldBe.length > 1">
      <p class="mt-1"><span class="marked">This file could be one or the other. Choose how to read it:</span></p>
      <div class="flex flex-wrap gap-x-10">
        <div v-for="k in look.couldBe" :key="k" class="mt-2 max-w-[34rem] flex-1 basis-[20rem]">
          <button class="press" @click="emit('decide', { kind: k })">Read as {{ article[k] }}</button>
          <FirstRows
            v-if="readingOf(k)"
            :rows="readingOf(k)!.first"
            :more="readingOf(k)!.rows - readingOf(k)!.first.length"
          />
        </div>
      </div>
    </template>
    <Notice v-for="p in look.problems" :key="p" tone="wrong">{{ p }}</Notice>
    <Notice v-for="d in look.doubts" :key="d" tone="wrong"
      >{{ d }} <button class="press" @click="emit('decide', { sure: true })">It is of this class</button></Notice
    >
    <Notice v-if="look.unclear.length" tone="wrong">
      {{ look.unclear.join(' ') }}
      <MomentChoice v-if="look.kind === 'people'" :day="day" @choose="emit('decide', { at: $event })" />
      <template v-else-if="!look.questions.length"
        >Say below what its columns are, or
        <button class="press" @click="emit('decide', { mapping: taken })">read it so</button></template
      >
    </Notice>
    <QuestionsOfFile
      v-if="look.questions.length"
      :questions="look.questions"
      :known="look.knownQuestions"
      @take="(questions) => emit('decide', { questions })"
    />
    <Notice v-for="remark in look.remarks" :key="remark">{{ remark }}</Notice>
    <template v-if="look.wrongRows">
      <Notice tone="wrong">{{ count(look.wrongRows, 'row') }} cannot be read.</Notice>
      <ul>
        <li v-for="line in look.wrong.slice(0, 8)" :key="line.row" class="py-0.5">
          <b>Row {{ line.row }}</b> {{ line.problems.join(' It ') }}
        </li>
      </ul>
      <button v-if="!look.problems.length" class="press mt-1" @click="emit('decide', { leaveOut: true })">
        Leave {{ look.wrongRows === 1 ? 'this row' : 'these rows' }} out
      </button>
    </template>
    <p v-if="!look.namesZone" class="mt-2">
      <label>
        The file does not say its time zone. Its times are read as
        <select class="field inline-block w-auto" :value="look.timeZone" @change="rezone">
          <option v-for="z in zones" :key="z">{{ z }}</option>
        </select>
      </label>
    </p>
    <ColumnChooser
      v-if="look.kind && look.columns.length"
      class="mt-3 max-w-[46rem]"
      :columns="look.columns"
      :fields="fields[look.kind]"
      @change="(mapping) => emit('decide', { mapping })"
    />
    <details v-if="look.first.length" class="mt-2">
      <summary class="quiet inline-block">First rows as they were read</summary>
      <FirstRows class="max-w-[46rem]" :rows="look.first" />
    </details>
    <details v-if="look.lines.length" class="mt-2" :open="!look.couldBe.length">
      <summary class="quiet inline-block">Mark by hand what is what</summary>
      <MarkLines class="mt-1" :lines="look.lines" @marks="emit('decide', { ...anew, marks: $event })" />
    </details>
    <button class="quiet mt-3" @click="emit('leave')">Leave it</button>
  </section>
</template>
