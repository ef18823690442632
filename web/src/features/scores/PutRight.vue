<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'
import { strands } from '../ground-rules/rules'

/** One case is put right by hand: a strand or the lesson is left out or set, always with a reason. */
const props = defineProps<{ corrections: readonly Schemas['Correction'][]; busy: boolean }>()
const emit = defineEmits<{ correct: [act: Schemas['ActScoreCorrected']]; takeBack: [entry: string] }>()

const what = ref<Schemas['CorrectionKind']>('strandSet')
const strand = ref<Schemas['Strand']>('speaking')
const value = ref<number>()
const reason = ref('')
const ofStrand = computed(() => what.value === 'strandSet' || what.value === 'strandLeftOut')
const sets = computed(() => what.value === 'strandSet' || what.value === 'scoreSet')
const ready = computed(() => reason.value.trim() && (!sets.value || typeof value.value === 'number'))
const choices: { value: Schemas['CorrectionKind']; label: string }[] = [
  { value: 'strandSet', label: 'set a strand' },
  { value: 'strandLeftOut', label: 'leave a strand out' },
  { value: 'scoreSet', label: 'set the score' },
  { value: 'lessonLeftOut', label: 'leave the lesson out' },
]

function send() {
  emit('correct', {
    student: '',
    what: what.value,
    strand: ofStrand.value ? strand.value : null,
    value: sets.value ? (ofStrand.value ? value.value! / 100 : value.value!) : null,
    reason: reason.value.trim(),
  })
  reason.value = ''
  value.value = undefined
}
</script>

<template>
  <ul v-if="props.corrections.length" class="mt-3 text-small">
    <li v-for="c in props.corrections" :key="c.entry" class="border-b border-rule py-1">
      <b>{{ c.said }}</b>, {{ c.by }}
      <button class="quiet ml-2" :disabled="busy" @click="emit('takeBack', c.entry)">take back</button>
    </li>
  </ul>
  <details class="mt-3 text-small">
    <summary class="quiet inline-block">Put it right by hand</summary>
    <form class="mt-1 flex flex-wrap items-baseline gap-2" @submit.prevent="send">
      <select v-model="what" class="field !w-auto" aria-label="What is put right">
        <option v-for="c in choices" :key="c.value" :value="c.value">{{ c.label }}</option>
      </select>
      <select v-if="ofStrand" v-model="strand" class="field !w-auto" aria-label="Which strand">
        <option v-for="s in strands" :key="s.name" :value="s.name">{{ s.label.toLowerCase() }}</option>
      </select>
      <label v-if="sets"
        >to
        <input v-model.number="value" class="field !w-16 text-end" type="number" min="0" max="100" step="any" />
        {{ ofStrand ? '%' : 'of 100' }}</label
      >
      <input
        v-model="reason"
        class="field !w-full"
        maxlength="1000"
        placeholder="why"
        aria-label="Why it is put right"
      />
      <button class="press" :disabled="busy || !ready">Put it right</button>
    </form>
  </details>
</template>
