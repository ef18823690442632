<script setup lang="ts">
import { computed, inject, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../../api/client'
import { timeLeft } from '../../ui/format'
import Rendered from '../../ui/Rendered.vue'
import ResultsChart from '../questions/ResultsChart.vue'
import { useFit } from './fit'
import NodsSeen from './NodsSeen.vue'

/** What the class sees. Big, quiet, and nothing but what was put up; all of it within whatever frame it has. */
const props = defineProps<{
  board: Schemas['BoardView']
  now: number
  lesson?: string
  /** Stands among other things on a page, as long as it is. */
  flows?: boolean
}>()
const emit = defineEmits<{ fits: [fits: boolean] }>()
const pictures = inject('pictures', '/api/pictures')
const countFrom = 3
const countIn = computed(() => {
  const since = props.board.statement?.since
  if (since === undefined) return ''
  const left = countFrom - Math.floor((props.now - since) / 1000)
  return left > 0 ? String(Math.min(left, countFrom)) : 'Now'
})
const left = (to: number) => timeLeft(to, props.now)
const address = location.host + '/p'
/** What stays up; the time passes, and nods stand over it for a moment. */
const up = computed(() => ({ ...props.board, now: null, nods: null }))
const isEmpty = computed(() => Object.values(up.value).every((part) => part === null))
const beside = computed(() => {
  const b = props.board
  return !!(b.stage || b.timers || b.turn || b.handLine || b.signals || b.wayIn)
})
const main = computed(() => {
  const b = props.board
  return !!(
    b.statement ||
    b.questions?.length ||
    b.results ||
    b.messages?.length ||
    b.directions ||
    b.rubric ||
    b.groups
  )
})
// What is up and how long its texts are; not the time that is left, which changes by the second.
const fit = useFit(useTemplateRef('frame'), useTemplateRef('sheet'), () => JSON.stringify(up.value), props.flows)
watch(
  () => fit.fits,
  (fits) => emit('fits', fits),
)
const nods = computed(() => props.board.nods?.filter((n) => n.to > props.now) ?? [])
const first = <T,>(list: readonly T[]) => list.slice(0, fit.many)
const more = (list: readonly unknown[]) => (list.length > fit.many ? `and ${list.length - fit.many} more` : '')
</script>

<template>
  <div ref="frame" class="fitted" :class="{ flows }">
    <div
      ref="sheet"
      class="board"
      :class="{ both: beside && main && fit.layout === 'beside', below: fit.layout === 'below' }"
    >
      <p v-if="isEmpty" class="empty">The board is empty.</p>
      <div class="main">
        <section v-if="board.statement" class="statement">
          <p class="text">{{ board.statement.text }}</p>
          <p class="count" aria-live="polite">{{ countIn }}</p>
        </section>
        <section v-for="q in board.questions" :key="q.text" class="question">
          <p class="text">{{ q.text }}</p>
          <ol v-if="q.options.length">
            <li v-for="(o, i) in q.options" :key="o.id">
              <img v-if="o.picture" :src="`${pictures}/${o.picture}`" :alt="o.alternativeText" />
              {{ o.text || 'ABCDEFGHIJKL'[i] }}
            </li>
          </ol>
          <p v-if="q.deadline !== null" class="time">{{ left(q.deadline) }}</p>
        </section>
        <section v-if="board.results" class="results">
          <p class="text">{{ board.results.text }}</p>
          <ResultsChart v-bind="board.results" />
          <p v-if="board.results.rightWords">Right: {{ board.results.rightWords }}</p>
          <p v-for="n in first(board.results.named ?? [])" :key="n.who">
            <b>{{ n.who }}</b> {{ n.answer }}
          </p>
          <p v-if="more(board.results.named ?? [])" class="more">{{ more(board.results.named ?? []) }}</p>
        </section>
        <section v-if="board.messages?.length" class="messages">
          <p v-for="m in board.messages.slice(-fit.many)" :key="m.message">
            <b v-if="m.who">{{ m.who }}</b> <bdi>{{ m.text }}</bdi>
          </p>
        </section>
        <Rendered v-if="board.directions" class="directions" :html="board.directions" />
        <section v-if="board.groups" class="groups">
          <div v-for="group in board.groups" :key="group.name">
            <h2>{{ group.name }}</h2>
            <p>{{ group.members.join(', ') }}</p>
          </div>
        </section>
        <Rendered v-if="board.rubric" class="rubric" :html="board.rubric" />
      </div>
      <aside v-if="beside" class="beside">
        <section v-if="board.wayIn">
          <h2>Your page</h2>
          <p>{{ address }}</p>
          <p class="time">{{ board.wayIn }}</p>
          <img
            v-if="lesson"
            class="code"
            :src="`/api/lessons/${lesson}/way-in.svg`"
            alt="The address as a code for a camera"
          />
        </section>
        <section v-if="board.stage">
          <h2>{{ board.stage.name }}</h2>
          <p class="time">{{ left(board.stage.to) }}</p>
        </section>
        <section v-for="timer in board.timers ?? []" :key="timer.group ?? ''">
          <h2>
            {{ timer.group ? `${timer.group}${timer.task ? `: ${timer.task}` : ''}` : timer.task || 'Your task' }}
          </h2>
          <p class="time">{{ left(timer.to) }}</p>
        </section>
        <section v-if="board.turn">
          <h2>Turn</h2>
          <p class="time">
            <span class="marked">{{ board.turn }}</span>
          </p>
        </section>
        <section v-if="board.handLine">
          <h2>Hands</h2>
          <ol v-if="board.handLine.length">
            <li v-for="(name, i) in first(board.handLine)" :key="i">{{ i + 1 }} {{ name }}</li>
          </ol>
          <p v-if="more(board.handLine)" class="more">{{ more(board.handLine) }}</p>
          <p v-if="!board.handLine.length">nobody waits</p>
        </section>
        <section v-if="board.signals">
          <h2>Our signals</h2>
          <p v-for="s in board.signals" :key="s.meaning">
            <b>{{ s.meaning }}</b> {{ s.gesture }}
          </p>
        </section>
      </aside>
    </div>
    <NodsSeen v-if="nods.length" :nods="nods" class="over" />
  </div>
</template>

<style scoped>
.fitted {
  position: relative;
  height: 100%;
  overflow: auto;
  background: var(--paper);
  color: var(--ink);
}
.board {
  display: grid;
  gap: 1.6em 3em;
  padding: 2.4em 3em;
  line-height: 1.4;
  align-content: start;
  overflow-wrap: break-word;
}
/* What lies over it is sized by it, not by the window. */
.fitted:not(.flows) {
  container-type: size;
}
.flows,
.flows > .board {
  display: block;
  height: auto;
  padding: 0;
}
.board > * {
  min-width: 0;
}
.both {
  /* Less than this is no room for what the class is to read. */
  grid-template-columns: minmax(15em, 1fr) minmax(0, 13em);
}
.below .beside {
  columns: 13em;
  column-gap: 3em;
}
.below .beside > * {
  break-inside: avoid;
  padding-bottom: 1.2em;
}
/* A number stands in the line where one is meant. */
ol {
  list-style: none;
  padding: 0;
}
.more {
  color: var(--ink-soft);
}
.empty {
  color: var(--ink-soft);
}
.main > * + * {
  margin-top: 1.4em;
}
.main > .directions {
  font-size: 1.2em;
}
.statement .text {
  font-size: 1.7em;
  line-height: 1.25;
  font-weight: 700;
}
.statement .count {
  font-size: 3.4em;
  line-height: 1.2;
  font-weight: 700;
}
.board:not(.below) .beside > * + * {
  margin-top: 1.2em;
}
.both .beside {
  border-left: 3px solid var(--margin);
  padding-left: 1.2em;
}
/* For a moment, over the foot of what is up: the class goes on reading where it was. */
.over {
  position: absolute;
  inset: auto 0 0;
}
h2 {
  border-bottom: 2px solid var(--ink);
  font-weight: 650;
}
.time {
  font-size: 1.7em;
  line-height: 1.3;
  font-weight: 700;
}
.groups {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11em, 1fr));
  gap: 1em 1.6em;
}
.question ol {
  display: grid;
  gap: 0.3em;
  margin-top: 0.6em;
}
.question img {
  height: 4.5em;
  border: 1px solid var(--rule);
}
.code {
  width: 8em;
  margin-top: 0.4em;
  background: #fff;
}
.question .text,
.results .text {
  font-size: 1.3em;
  font-weight: 650;
}
.results .text {
  margin-bottom: 0.6em;
}
</style>
