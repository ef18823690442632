<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../api/client'
import { vFocus } from '../../ui/vFocus'
import DrawingView from './DrawingView.vue'
import FiguresTable from './FiguresTable.vue'
import SayText from './SayText.vue'

/** A part of a report: what is to be known, the same as a drawing, and in figures. */
const props = defineProps<{
  section: Schemas['Section']
  classId: string
  drawingAt?: (ending: string) => string
  lead?: boolean
}>()
const emit = defineEmits<{ edit: [part: string, text: string] }>()

const text = ref<string>()
const begin = () => (text.value = props.section.says.map((s) => s.text).join(' '))
function keep(words: string) {
  emit('edit', props.section.key!, words)
  text.value = undefined
}
</script>

<template>
  <section class="part" :class="{ first: lead }">
    <h2 v-if="section.heading">{{ section.heading }}</h2>
    <form v-if="text !== undefined" class="no-print" @submit.prevent="keep(text)">
      <label class="sr-only" for="words">In your words</label>
      <textarea
        id="words"
        v-model="text"
        v-focus
        class="field"
        rows="5"
        maxlength="4000"
        @keydown.esc="text = undefined"
      />
      <p class="mt-1 flex gap-4">
        <button class="press-first">Keep these words</button>
        <button type="button" class="quiet" @click="text = undefined">leave it</button>
      </p>
    </form>
    <template v-else>
      <SayText v-if="section.says.length" :says="section.says" :class-id="classId" />
      <p v-if="section.key" class="no-print mt-1 flex flex-wrap gap-4 text-small text-ink-soft">
        <button class="quiet" @click="begin">put it in your words</button>
        <template v-if="section.plain">
          <span>In your words.</span>
          <span v-if="section.outOfDate" role="status"
            >What the count says has changed since: <i>{{ section.plain }}</i></span
          >
          <button class="quiet" @click="keep('')">back to the words of the count</button>
        </template>
      </p>
    </template>
    <div
      v-if="section.drawing"
      class="mt-2 overflow-x-auto pb-1"
      tabindex="0"
      role="group"
      :aria-label="section.heading"
    >
      <DrawingView :drawing="section.drawing" />
      <p v-if="drawingAt" class="no-print mt-1 flex gap-4 text-small">
        <a class="quiet" :href="drawingAt('svg')" download>drawing as SVG</a>
        <a class="quiet" :href="drawingAt('png')" download>as PNG</a>
      </p>
    </div>
    <details v-if="section.figures?.fold" class="no-print mt-1">
      <summary class="text-small">the same in figures</summary>
      <FiguresTable :figures="section.figures" :class-id="classId" />
    </details>
    <FiguresTable v-else-if="section.figures?.rows.length" :figures="section.figures" :class-id="classId" />
  </section>
</template>

<style scoped>
.part {
  margin-top: 18px;
  break-inside: avoid-page;
}
.part.first {
  max-width: 54rem;
  font-size: var(--text-lead);
  line-height: 1.6;
}
h2 {
  margin-bottom: 6px;
  border-bottom: 1.5px solid var(--ink);
  padding-bottom: 2px;
  font-weight: 700;
}
</style>
