<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useLive } from '../../live/lesson'
import KeyCap from '../../ui/KeyCap.vue'
import type { Question } from '../plans/plan'
import { goesTo, onTheSpot } from './asking'

/** A question asked on the spot. It goes to the whole class unless a group is chosen for this one, and says so before it goes. */
const props = defineProps<{ note: (question: Question, to: (string | null)[]) => string[] }>()
const { drawn } = useLive()
const groups = computed(() => drawn.value?.groups ?? [])
const text = ref('')
const choices = ref('')
const choosing = ref(false)
const to = ref('class')
const field = useTemplateRef<HTMLInputElement>('field')
const toWhom = computed(
  () =>
    ({ class: 'the whole class', each: 'each group' })[to.value] ??
    groups.value.find((g) => g.id === to.value)?.name ??
    'the whole class',
)

/** What was asked last, until it is certain that it went. */
let last: { entries: string[]; text: string; choices: string } | undefined
function open() {
  if (!text.value.trim()) return
  const question = onTheSpot(text.value, choosing.value ? choices.value : '')
  last = { entries: props.note(question, goesTo(to.value, groups.value)), text: text.value, choices: choices.value }
  text.value = ''
  choices.value = ''
  choosing.value = false
  to.value = 'class'
  ;(document.activeElement as HTMLElement | null)?.blur()
}
watch(
  () => drawn.value?.refused.some((r) => last?.entries.includes(r.id)),
  (refused) => {
    if (!refused || text.value) return
    text.value = last!.text
    choices.value = last!.choices
    choosing.value = !!choices.value
  },
)
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <form class="mb-3" @submit.prevent="open">
    <label class="text-small text-ink-soft" for="spot">On the spot <KeyCap k="0" /></label>
    <input
      id="spot"
      ref="field"
      v-model="text"
      class="field"
      maxlength="1000"
      placeholder="Ask something"
      autocomplete="off"
    />
    <textarea
      v-if="choosing"
      v-model="choices"
      class="field text-small"
      rows="3"
      aria-label="Choices, one a line"
      placeholder="one choice a line"
    />
    <p class="flex flex-wrap items-baseline justify-between gap-x-3 text-small">
      <button type="button" class="quiet" :aria-pressed="choosing" @click="choosing = !choosing">
        {{ choosing ? 'yes or no' : 'other choices' }}
      </button>
      <select v-if="groups.length" v-model="to" class="quiet" aria-label="To whom what is asked on the spot goes">
        <option value="class">the whole class</option>
        <option v-for="g in groups" :key="g.id" :value="g.id">{{ g.name }}</option>
        <option v-if="groups.length > 1" value="each">each group</option>
      </select>
      <button class="quiet font-semibold" :disabled="!text.trim()">open it to {{ toWhom }} <KeyCap k="Enter" /></button>
    </p>
  </form>
</template>
