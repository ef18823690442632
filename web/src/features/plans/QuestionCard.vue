<script setup lang="ts">
import { computed } from 'vue'
import { count } from '../../ui/format'
import type { Question } from './plan'

/** A question exactly as a student will see it. Here it takes no answers: it is not open. */
const props = defineProps<{ question: Question }>()

// Blanks that are filled in during the lesson are shown as blanks, with their name for now.
const parts = (text: string) =>
  text
    .split(/(\{[^{}\n]{1,60}\})/)
    .map((part) => ({ blank: /^\{.+\}$/.test(part), text: part.replace(/^\{|\}$/g, '').trim() }))
// The order of a ranking is its answer: students see it by the end of the ids, which are random.
const options = computed(() =>
  props.question.kind === 'ranking'
    ? [...props.question.options].sort((a, b) => a.id.slice(-12).localeCompare(b.id.slice(-12)))
    : props.question.options,
)
const steps = computed(() =>
  Array.from(
    { length: Math.max(0, Math.min(11, props.question.scaleTo - props.question.scaleFrom + 1)) },
    (_, i) => props.question.scaleFrom + i,
  ),
)
const told = computed(() =>
  [
    props.question.anonymous &&
      (props.question.countsTakingPart
        ? 'Nobody sees who answered what. That you answered counts.'
        : 'Nobody sees who answered.'),
    props.question.timeLimitSeconds && `You have ${props.question.timeLimitSeconds} s.`,
    props.question.audience === 'group' && 'For your group.',
  ].filter(Boolean),
)
const letters = 'abcdefghijkl'
</script>

<template>
  <div class="card" aria-label="As a student sees it" role="group">
    <p class="text-lead leading-snug font-semibold">
      <template v-for="(part, i) in parts(question.text || 'The question')" :key="i"
        ><span v-if="part.blank" class="blank">{{ part.text }}</span
        ><template v-else>{{ part.text }}</template></template
      >
    </p>
    <ol v-if="question.kind === 'pictureChoice'" class="pictures">
      <li v-for="(o, i) in options" :key="o.id">
        <img v-if="o.picture" :src="`/api/pictures/${o.picture}`" :alt="o.alternativeText" />
        <span v-else class="no-picture">no picture yet</span>
        <span class="mark round" aria-hidden="true" /> {{ o.text || letters[i] }}
      </li>
    </ol>
    <ol v-else-if="question.options.length && question.kind !== 'ranking'">
      <li v-for="o in options" :key="o.id" class="choice">
        <span class="mark" :class="{ round: question.kind !== 'multipleChoice' }" aria-hidden="true" />
        <span
          ><template v-for="(part, i) in parts(o.text || '…')" :key="i"
            ><span v-if="part.blank" class="blank">{{ part.text }}</span
            ><template v-else>{{ part.text }}</template></template
          ></span
        >
      </li>
    </ol>
    <ol v-else-if="question.kind === 'ranking'">
      <li v-for="(o, i) in options" :key="o.id" class="choice">
        <b>{{ i + 1 }}</b> {{ o.text || '…' }} <span class="ml-auto text-ink-soft" aria-hidden="true">↑ ↓</span>
      </li>
    </ol>
    <div v-else-if="question.kind === 'scale'" class="mt-3">
      <p class="steps">
        <span v-for="step in steps" :key="step">{{ step }}</span>
      </p>
      <p class="flex justify-between text-small text-ink-soft">
        <span>{{ question.scaleFromLabel }}</span><span>{{ question.scaleToLabel }}</span>
      </p>
    </div>
    <p v-else-if="question.kind === 'number'" class="answer">a number</p>
    <p v-else-if="question.kind === 'wordList'" class="answer">up to {{ count(question.wordsEach, 'word') }}</p>
    <p v-else class="answer">a few words</p>
    <p v-for="line in told" :key="String(line)" class="mt-2 text-small text-ink-soft italic">{{ line }}</p>
    <p class="mt-3"><span class="send" aria-hidden="true">Answer</span></p>
  </div>
</template>

<style scoped>
.card {
  border: 1.5px solid var(--ink);
  border-radius: 3px;
  padding: 14px 16px;
  max-width: 24rem;
}
.blank {
  border-bottom: 1.5px dashed var(--ink);
  padding: 0 0.4em;
  font-style: italic;
  color: var(--ink-soft);
}
.choice {
  display: flex;
  align-items: baseline;
  gap: 10px;
  min-height: 34px;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
.mark {
  flex: none;
  align-self: center;
  width: 15px;
  height: 15px;
  border: 1.5px solid var(--ink);
}
.round {
  border-radius: 50%;
}
.pictures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  margin-top: 10px;
}
.pictures img,
.no-picture {
  display: block;
  width: 100%;
  aspect-ratio: 4 / 3;
  object-fit: cover;
  border: 1px solid var(--rule);
  margin-bottom: 4px;
}
.no-picture {
  display: grid;
  place-items: center;
  color: var(--ink-soft);
  font-style: italic;
}
.pictures .mark {
  display: inline-block;
  vertical-align: -2px;
}
.steps {
  display: flex;
  justify-content: space-between;
  border-bottom: 2px solid var(--ink);
  padding: 0 2px 4px;
  font-weight: 650;
}
.answer {
  margin-top: 12px;
  padding: 4px 2px;
  border-bottom: 1.5px solid var(--ink-soft);
  color: var(--ink-soft);
  font-style: italic;
}
.send {
  display: inline-block;
  background: var(--paper-deep);
  color: var(--ink-soft);
  font-weight: 650;
  padding: 0.35rem 0.9rem;
}
</style>
