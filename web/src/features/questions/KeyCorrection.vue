<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { numberIn } from '../../ui/numberIn'

/** The key of a question that was asked, put right; all its answers are marked anew. */
const props = defineProps<{ asking: string; question: Schemas['Question'] }>()
const emit = defineEmits<{ correct: []; close: [] }>()
const { note } = useLive()

const q = props.question
const keyRight = ref((q.kind === 'ranking' ? q.options : q.options?.filter((o) => o.right))?.map((o) => o.id) ?? [])
const keyTarget = ref(q.target === null || q.target === undefined ? '' : String(q.target))
const keyTolerance = ref(String(q.tolerance ?? 0))
const keyAccepted = ref(q.acceptedAnswers?.join('\n') ?? '')

function chooseRight(option: string) {
  if (q.kind !== 'multipleChoice') keyRight.value = [option]
  else if (keyRight.value.includes(option)) keyRight.value = keyRight.value.filter((o) => o !== option)
  else keyRight.value = [...keyRight.value, option]
}
function correct() {
  emit('correct')
  note({
    type: 'keyCorrected',
    asking: props.asking,
    right: keyRight.value,
    target: keyTarget.value === '' ? null : numberIn(keyTarget.value),
    tolerance: numberIn(keyTolerance.value) || 0,
    acceptedAnswers: keyAccepted.value
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean),
  })
  emit('close')
}
</script>

<template>
  <form @submit.prevent="correct">
    <template v-if="question.kind === 'ranking'">
      <p class="text-small text-ink-soft">The right order</p>
      <p v-for="(o, i) in keyRight" :key="o" class="flex gap-3 border-b border-rule py-1">
        <span class="flex-1">{{ question.options?.find((q) => q.id === o)?.text }}</span>
        <button
          type="button"
          class="quiet text-small"
          :disabled="i === 0"
          @click="keyRight.splice(i - 1, 2, keyRight[i]!, keyRight[i - 1]!)"
        >
          up
        </button>
      </p>
    </template>
    <label
      v-for="o in question.kind === 'ranking' ? [] : question.options"
      :key="o.id"
      class="flex items-center gap-2 border-b border-rule py-1"
    >
      <input
        :type="question.kind === 'multipleChoice' ? 'checkbox' : 'radio'"
        name="right"
        class="size-4"
        :checked="keyRight.includes(o.id)"
        @change="chooseRight(o.id)"
      />
      <img v-if="o.picture" :src="`/api/pictures/${o.picture}`" alt="" class="h-8 border border-rule" />
      {{ o.text || o.alternativeText }}
    </label>
    <p v-if="question.kind === 'number' || question.kind === 'scale'" class="flex gap-4 text-small text-ink-soft">
      <label>right<input v-model="keyTarget" class="field text-ink" inputmode="decimal" /></label>
      <label>within ±<input v-model="keyTolerance" class="field text-ink" inputmode="decimal" /></label>
    </p>
    <label v-if="question.kind === 'shortText'" class="text-small text-ink-soft"
      >Accepted, one a line<textarea v-model="keyAccepted" class="field text-ink" rows="3" />
    </label>
    <p class="mt-2 flex gap-4">
      <button class="press">Mark anew</button>
      <button type="button" class="quiet" @click="emit('close')">not now</button>
    </p>
  </form>
</template>
