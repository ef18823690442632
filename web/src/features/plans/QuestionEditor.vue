<script setup lang="ts">
import { computed, ref } from 'vue'
import Notice from '../../ui/Notice.vue'
import NumberInput from '../../ui/NumberInput.vue'
import KeyFields from './KeyFields.vue'
import OptionsEditor from './OptionsEditor.vue'
import { kinds, newQuestion, type Question } from './plan'
import QuestionCard from './QuestionCard.vue'

/** A question being written, and beside it what a student will see. */
const question = defineModel<Question>({ required: true })
defineProps<{ number?: number }>()

const problem = ref<string>()
const quiz = computed(() => question.value.purpose === 'quiz')
const hasOptions = computed(() =>
  ['singleChoice', 'multipleChoice', 'trueFalse', 'ranking', 'pictureChoice'].includes(question.value.kind),
)
function changeKind(event: Event) {
  const kind = (event.target as HTMLSelectElement).value as Question['kind']
  const fresh = newQuestion(kind)
  const had = question.value.options
  // What was written stays where the new kind has a place for it.
  const keeps =
    fresh.options.length > 0 && kind !== 'trueFalse' && question.value.kind !== 'trueFalse' && had.length > 0
  question.value.options = keeps ? had : fresh.options
  question.value.kind = kind
}
</script>

<template>
  <div class="opened editor">
    <div class="min-w-0">
      <div class="field-grid wide-fields">
        <label
          >Kind<select class="field" :value="question.kind" @change="changeKind">
            <option v-for="k in kinds" :key="k.kind" :value="k.kind">{{ k.label }}</option>
          </select></label
        >
        <label
          >Purpose<select v-model="question.purpose" class="field">
            <option value="poll">poll, not marked</option>
            <option value="quiz">quiz, marked</option>
          </select></label
        >
        <label
          >For<select v-model="question.audience" class="field">
            <option value="wholeClass">the whole class</option>
            <option value="group">a group</option>
          </select></label
        >
        <label>Seconds to answer<NumberInput v-model="question.timeLimitSeconds" placeholder="no limit" /></label>
      </div>
      <label class="block text-small text-ink-soft"
        >Question<textarea
          v-model="question.text"
          class="field text-base text-ink"
          rows="2"
          maxlength="1000"
          :aria-label="number ? `Question ${number}` : 'Question'"
          placeholder="What is still open, such as {the first reading}, goes in braces"
        />
      </label>

      <OptionsEditor v-if="hasOptions" v-model="question" @failed="problem = $event" />

      <KeyFields v-model="question" />
      <p v-if="!quiz" class="mt-2 flex flex-wrap gap-x-6 gap-y-1">
        <label class="flex items-center gap-2"
          ><input v-model="question.anonymous" type="checkbox" class="size-4" /> anonymous</label
        >
        <label v-if="question.anonymous" class="flex items-center gap-2"
          ><input v-model="question.countsTakingPart" type="checkbox" class="size-4" /> that somebody answered
          counts</label
        >
      </p>
      <Notice v-if="problem" tone="wrong" class="mt-2">{{ problem }}</Notice>
    </div>
    <div>
      <p class="mb-1 text-small text-ink-soft">As a student sees it</p>
      <QuestionCard :question="question" />
    </div>
  </div>
</template>

<style scoped>
.editor {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 19rem;
  gap: 28px;
}
.wide-fields {
  grid-template-columns: repeat(auto-fit, minmax(10.5rem, 1fr));
}
@media (max-width: 1000px) {
  .editor {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
