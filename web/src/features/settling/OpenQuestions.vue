<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../../api/client'
import { count } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import NameChoice from './NameChoice.vue'
import type { Answer } from './settling'

/** What only the teacher can know: each with the answers there are, one of them proposed. The keys 1, 2, 3 give an answer, Enter the proposed one. */
const props = defineProps<{ questions: Schemas['OpenQuestion'][]; people: Schemas['Person'][] }>()
const emit = defineEmits<{ answer: [answers: Answer[], said: string]; done: [] }>()

type Question = Schemas['OpenQuestion']
const at = ref(0)
const lines = useTemplateRef<HTMLElement[]>('lines')
const nameOf = (student: string | null) => props.people.find((p) => p.id === student)?.fullName ?? ''
const about = (q: Question) => (q.student ? nameOf(q.student) : q.about)
const said = (c: Schemas['Choice']) => (c.student ? nameOf(c.student) : c.says)
const alike = (q: Question) => props.questions.filter((o) => o.asks === q.asks && o.proposed !== null)
/** Kinds of which several have a proposal, so that all can be taken at once. */
const kinds = computed(() => [
  ...new Map(props.questions.filter((q) => alike(q).length > 1).map((q) => [q.asks, alike(q)])).values(),
])
const kindName: Record<Schemas['Asks'], string> = {
  whoseName: 'of names',
  whichClock: 'of clocks',
  whichStatus: 'of the register',
  wereTheyAway: 'of who was away',
  whenTheyCame: 'of who came late',
  wasItTheLine: 'of connections that failed',
  wasItATurn: 'of turns',
  howItEnded: 'of how turns ended',
  whichAnswer: 'of answers',
  whatMessages: 'of messages',
}

// Whatever was answered and however, the next question has the keys; after the last of them the register has.
let answered = false
function answer(answers: Answer[], text: string) {
  answered = true
  emit('answer', answers, text)
}
function focus() {
  at.value = Math.min(at.value, Math.max(0, props.questions.length - 1))
  void nextTick(() => lines.value?.[at.value]?.focus({ preventScroll: props.questions.length > 0 && at.value === 0 }))
}
const isWriting = () => !!document.activeElement?.closest('input, textarea, select, [role=dialog], [role=listbox]')
watch(
  () => props.questions.map((q) => q.id).join(),
  (now, before) => {
    if (!now && answered) emit('done')
    else if (now && (answered || !before) && !isWriting()) focus()
    answered = false
  },
)
onMounted(() => props.questions.length && !isWriting() && focus())

function take(q: Question, place: number | null) {
  const choice = place === null ? undefined : q.choices[place]
  if (choice) answer([choice], `${about(q)}: ${said(choice)}`)
}

function chosen(q: Question, student: string) {
  // Whoever is chosen by hand is noted as the name is, with what tells it apart.
  const act = q.choices.flatMap((c) => c.acts).find((a) => a.type === 'nameMatched')
  if (act) answer([{ acts: [{ ...act, student }] }], `${about(q)}: ${nameOf(student)}`)
}

const takeAll = (all: Question[]) =>
  answer(
    all.map((q) => q.choices[q.proposed!]!),
    `${count(all.length, 'proposal')} taken`,
  )

function move(by: number) {
  at.value = Math.min(Math.max(at.value + by, 0), props.questions.length - 1)
  void nextTick(() => lines.value?.[at.value]?.focus())
}

function key(event: KeyboardEvent, q: Question) {
  if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === 'ArrowDown') move(1)
  else if (event.key === 'ArrowUp') move(-1)
  else if (event.key === 'Enter') take(q, q.proposed)
  else if (/^[1-9]$/.test(event.key)) take(q, Number(event.key) - 1)
  else return
  event.preventDefault()
}
</script>

<template>
  <section v-if="questions.length" aria-labelledby="questions">
    <div class="head">
      <h2 id="questions">
        <span class="marked">{{ count(questions.length, 'thing') }}</span> only you can know
      </h2>
      <span class="font-normal text-ink-soft no-print"
        >↑ ↓ move · <KeyCap k="Enter" /> takes the proposal · <KeyCap k="1" /> <KeyCap k="2" /> the one or the
        other</span
      >
    </div>
    <p v-if="kinds.length" class="flex flex-wrap gap-x-6 pt-1.5 no-print">
      <button v-for="all in kinds" :key="all[0]!.asks" class="quiet" @click="takeAll(all)">
        take all {{ all.length }} proposals {{ kindName[all[0]!.asks] }}
      </button>
    </p>
    <ul>
      <li
        v-for="(q, i) in questions"
        :key="q.id"
        ref="lines"
        class="line"
        :tabindex="i === at ? 0 : -1"
        :aria-label="`${about(q)}. ${q.choices.map((c, n) => `${n + 1}: ${c.by} ${said(c)}`).join('. ')}. ${q.why}`"
        @focus="at = i"
        @keydown="key($event, q)"
      >
        <b class="who">{{ about(q) }}</b>
        <span class="choices">
          <button
            v-for="(c, n) in q.choices"
            :key="n"
            class="choice"
            :class="{ proposed: n === q.proposed }"
            tabindex="-1"
            @click="take(q, n)"
          >
            <KeyCap :k="String(n + 1)" />
            <template v-if="c.by">{{ c.by }}: </template><b>{{ said(c) }}</b>
          </button>
          <NameChoice
            v-if="q.asks === 'whoseName'"
            :people="people"
            :for-name="q.about"
            @choose="(s) => chosen(q, s)"
          />
        </span>
        <span class="why">{{ q.why }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 2px 20px;
  border-bottom: 1.5px solid var(--ink);
  padding-bottom: 3px;
  font-weight: 650;
}
.line {
  display: grid;
  grid-template-columns: minmax(9rem, 13rem) minmax(16rem, 1.6fr) minmax(12rem, 1fr);
  align-items: baseline;
  gap: 2px 18px;
  border-bottom: 1px solid var(--rule);
  border-left: 3px solid transparent;
  padding: 5px 0 5px 8px;
  scroll-margin: 60px;
}
.line:focus {
  outline: none;
  border-left-color: var(--ink);
  background: var(--paper-deep);
}
.choices {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 20px;
}
.choice:hover b {
  text-decoration: underline;
  text-underline-offset: 4px;
}
.choice:not(.proposed) b {
  font-weight: 400;
}
.why {
  color: var(--ink-soft);
  font-size: var(--text-small);
}
@media (max-width: 60rem) {
  .line {
    grid-template-columns: 1fr;
  }
}
</style>
