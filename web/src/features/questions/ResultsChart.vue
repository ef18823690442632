<script setup lang="ts">
import { computed, inject } from 'vue'
import type { Schemas } from '../../api/client'
import { wordSize } from './wordSize'

/** What the answers to a question amount to: bars, a scale, places of a ranking, words by count, or texts. */
const props = defineProps<{
  kind: Schemas['QuestionKind']
  options: readonly { id: string; text: string; picture?: string | null; alternativeText?: string }[]
  counts: readonly Schemas['AnswerCount'][]
  ranking: readonly Schemas['RankedOption'][]
  words: readonly { word: string; count: number }[]
  texts: readonly { text: string; count: number }[]
  /** Options that were right, if it is to be shown. */
  right?: readonly string[] | null
  scaleFromLabel?: string
  scaleToLabel?: string
}>()
const pictures = inject('pictures', '/api/pictures')
const most = computed(() => Math.max(1, ...props.counts.map((c) => c.count ?? 0)))
const labelOf = (c: Schemas['AnswerCount'], index: number) =>
  c.option === null
    ? String(c.number)
    : props.options.find((o) => o.id === c.option)?.text || 'ABCDEFGHIJKL'[index] || '…'
const pictureOf = (c: Schemas['AnswerCount']) => props.options.find((o) => o.id === c.option)?.picture
const isRight = (option: string | null) => option !== null && !!props.right?.includes(option)
const textOf = (option: string) => props.options.find((o) => o.id === option)?.text ?? '…'
</script>

<template>
  <ol v-if="kind === 'scale'" class="scale" aria-label="Answers by step">
    <li v-for="c in counts" :key="String(c.number)">
      <span class="column" :style="{ height: `${((c.count ?? 0) / most) * 4}em` }" />
      <b>{{ c.count ?? 'few' }}</b>
      <span>{{ c.number }}</span>
    </li>
    <li v-if="scaleFromLabel || scaleToLabel" class="ends" aria-hidden="true">
      <span>{{ scaleFromLabel }}</span><span>{{ scaleToLabel }}</span>
    </li>
  </ol>
  <ol v-else-if="ranking.length" aria-label="Options by their mean place">
    <li class="line heads" aria-hidden="true">
      <span class="mean">mean place</span>
      <span class="places"
        ><span v-for="n in ranking.length" :key="n" class="head">{{ n }}.</span></span
      >
    </li>
    <li v-for="r in ranking" :key="r.option" class="line">
      <b class="number">{{ r.meanPlace.toFixed(1) }}</b>
      <span>{{ textOf(r.option) }}</span>
      <span class="places" :aria-label="`put at place 1 to ${r.places.length}: ${r.places.join(', ')}`" role="img">
        <span
          v-for="(n, i) in r.places"
          :key="i"
          class="place"
          :style="{ opacity: n ? 0.25 + (0.75 * n) / Math.max(...r.places) : 0.08 }"
        />
      </span>
    </li>
  </ol>
  <ol v-else-if="counts.length" aria-label="Answers by choice">
    <li v-for="(c, i) in counts" :key="c.option ?? String(c.number)" class="line" :class="{ right: isRight(c.option) }">
      <b class="number">{{ c.count ?? 'few' }}</b>
      <span class="choice"
        ><img v-if="pictureOf(c)" class="picture" :src="`${pictures}/${pictureOf(c)}`" alt="" />{{ labelOf(c, i)
        }}<i v-if="isRight(c.option)"> right</i></span
      >
      <span class="bar" :style="{ width: `${((c.count ?? 0) / most) * 100}%` }" />
    </li>
  </ol>
  <p v-else-if="words.length" class="words" aria-label="Words by how many gave them">
    <span v-for="w in words" :key="w.word" :style="{ fontSize: wordSize(w.count, words) }"
      ><bdi>{{ w.word }}</bdi
      ><sub v-if="w.count > 1">{{ w.count }}</sub></span
    >
  </p>
  <ol v-else-if="texts.length" aria-label="Answers that are alike together">
    <li v-for="t in texts" :key="t.text" class="line">
      <b class="number">{{ t.count }}</b>
      <bdi>{{ t.text }}</bdi>
    </li>
  </ol>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 2.2em minmax(0, 1fr) minmax(0, 1.2fr);
  gap: 0.6em;
  align-items: center;
  padding: 0.25em 0;
  border-bottom: 1px solid var(--rule);
  overflow-wrap: anywhere;
}
.number {
  text-align: right;
}
.choice {
  display: flex;
  gap: 0.5em;
  align-items: center;
}
.picture {
  height: 2.4em;
  border: 1px solid var(--rule);
}
.bar {
  height: 0.7em;
  background: var(--pen-questions);
}
.right {
  font-weight: 700;
  box-shadow: inset 3px 0 0 var(--ink);
}
.scale {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  align-items: end;
  text-align: center;
  position: relative;
  padding-bottom: 1.4em;
}
.scale li:not(.ends) {
  display: flex;
  flex-direction: column;
  align-items: center;
}
.column {
  width: 40%;
  background: var(--pen-questions);
}
.scale li:not(.ends) > span:last-child {
  border-top: 1.5px solid var(--ink);
  width: 100%;
}
.ends {
  position: absolute;
  inset: auto 0 0;
  display: flex;
  justify-content: space-between;
  color: var(--ink-soft);
  font-size: 0.85em;
}
.places {
  display: flex;
  gap: 2px;
}
.heads {
  color: var(--ink-soft);
  font-size: 0.85em;
}
.heads .mean {
  grid-column: span 2;
}
.heads .head {
  flex: 1;
}
.place {
  flex: 1;
  height: 0.8em;
  background: var(--pen-questions);
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1em 0.9em;
  align-items: baseline;
  padding: 0.4em 0;
}
.words sub {
  color: var(--ink-soft);
  font-size: 0.6em;
  margin-left: 0.15em;
}
</style>
