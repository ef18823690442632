<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'

/** An answer that the teacher enters for a student. */
const props = defineProps<{ asking: string; question: Schemas['Question']; student: string; name: string }>()
const emit = defineEmits<{ close: [] }>()
const { note } = useLive()

const takesMany = ['multipleChoice', 'ranking'].includes(props.question.kind)
const entered = ref('')
const chosen = ref<string[]>([])

function choose(option: string) {
  if (!takesMany) chosen.value = [option]
  else if (chosen.value.includes(option)) chosen.value = chosen.value.filter((o) => o !== option)
  else chosen.value = [...chosen.value, option]
}
function answer() {
  const text = entered.value.trim()
  if (props.question.kind === 'number' || props.question.kind === 'scale') return { number: Number(text) }
  if (props.question.kind === 'shortText') return { text }
  if (props.question.kind === 'wordList') return { words: text.split(/[,\n]/).map((w) => w.trim()) }
  return { options: chosen.value }
}
function enter() {
  note({ type: 'answerGiven', student: props.student, asking: props.asking, answer: answer() })
  emit('close')
}
</script>

<template>
  <form @submit.prevent="enter">
    <p>
      <b>{{ name }}</b> answers
    </p>
    <template v-if="question.options?.length">
      <label v-for="o in question.options" :key="o.id" class="flex items-center gap-2 border-b border-rule py-1">
        <input
          :type="takesMany ? 'checkbox' : 'radio'"
          name="answer-for"
          class="size-4"
          :checked="chosen.includes(o.id)"
          @change="choose(o.id)"
        />
        <b v-if="question.kind === 'ranking' && chosen.includes(o.id)">{{ chosen.indexOf(o.id) + 1 }}</b>
        {{ o.text || o.alternativeText }}
      </label>
    </template>
    <input v-else v-model="entered" class="field" aria-label="Their answer" maxlength="400" />
    <p class="mt-2 flex gap-4">
      <button class="press">Enter it</button>
      <button type="button" class="quiet" @click="emit('close')">not now</button>
    </p>
  </form>
</template>
