<script setup lang="ts">
import { computed } from 'vue'
import NumberInput from '../../ui/NumberInput.vue'
import type { Question } from './plan'

/** What a question of numbers or words needs beside its text: its range, and what is right. */
const question = defineModel<Question>({ required: true })
const quiz = computed(() => question.value.purpose === 'quiz')
const accepted = computed({
  get: () => question.value.acceptedAnswers.join('\n'),
  set: (text: string) => (question.value.acceptedAnswers = text.split('\n').filter((line) => line.trim() !== '')),
})
</script>

<template>
  <div v-if="question.kind === 'scale'" class="field-grid wide-fields mt-1">
    <label
      >From<NumberInput
        :model-value="question.scaleFrom"
        @update:model-value="(n) => (question.scaleFrom = Math.round(n ?? 1))"
    /></label>
    <label>which means<input v-model="question.scaleFromLabel" class="field" maxlength="200" /></label>
    <label
      >to<NumberInput
        :model-value="question.scaleTo"
        @update:model-value="(n) => (question.scaleTo = Math.round(n ?? 5))"
    /></label>
    <label>which means<input v-model="question.scaleToLabel" class="field" maxlength="200" /></label>
  </div>
  <div v-if="quiz && (question.kind === 'number' || question.kind === 'scale')" class="field-grid wide-fields mt-1">
    <label
      >{{ question.kind === 'number' ? 'The right number' : 'Target, if any' }}<NumberInput v-model="question.target"
    /></label>
    <label
      >right within ±<NumberInput
        :model-value="question.tolerance"
        @update:model-value="(n) => (question.tolerance = n ?? 0)"
    /></label>
  </div>
  <label v-if="quiz && question.kind === 'shortText'" class="mt-1 block text-small text-ink-soft"
    >Accepted answers, one a line; others are marked by you<textarea
      v-model.lazy="accepted"
      class="field text-base text-ink"
      rows="2"
    />
  </label>
  <label v-if="question.kind === 'wordList'" class="mt-1 block w-44 text-small text-ink-soft"
    >Words each may give<NumberInput
      :model-value="question.wordsEach"
      class="text-base text-ink"
      @update:model-value="(n) => (question.wordsEach = Math.round(n ?? 1))"
  /></label>
</template>

<style scoped>
.wide-fields {
  grid-template-columns: repeat(auto-fit, minmax(10.5rem, 1fr));
}
</style>
