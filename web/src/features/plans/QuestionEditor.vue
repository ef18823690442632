<script setup lang="ts">
import { computed, ref } from 'vue'
import { sendFile, type Schemas } from '../../api/client'
import Notice from '../../ui/Notice.vue'
import { moved } from '../../ui/reorder'
import NumberInput from '../../ui/NumberInput.vue'
import { kinds, newOption, newQuestion, type Question } from './plan'
import QuestionCard from './QuestionCard.vue'

/** A question being written, and beside it what a student will see. */
const question = defineModel<Question>({ required: true })
defineProps<{ number?: number }>()

const problem = ref<string>()
const busy = ref<string>()
const quiz = computed(() => question.value.purpose === 'quiz')
const hasOptions = computed(() =>
  ['singleChoice', 'multipleChoice', 'trueFalse', 'ranking', 'pictureChoice'].includes(question.value.kind),
)
const oneRight = computed(() => ['singleChoice', 'trueFalse', 'pictureChoice'].includes(question.value.kind))
const marksOptions = computed(() => quiz.value && hasOptions.value && question.value.kind !== 'ranking')
const accepted = computed({
  get: () => question.value.acceptedAnswers.join('\n'),
  set: (text: string) => (question.value.acceptedAnswers = text.split('\n').filter((line) => line.trim() !== '')),
})

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

function right(id: string, on: boolean) {
  for (const o of question.value.options) {
    if (o.id === id) o.right = on
    else if (oneRight.value) o.right = false
  }
}

const move = (index: number, by: number) => (question.value.options = moved(question.value.options, index, index + by))

async function picture(id: string, event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  problem.value = undefined
  busy.value = id
  try {
    const kept = await sendFile<Schemas['PictureKept']>('/api/pictures', file, {})
    const option = question.value.options.find((o) => o.id === id)
    if (option) option.picture = kept.id
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = undefined
  }
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

      <ol
        v-if="hasOptions"
        class="mt-1"
        :aria-label="question.kind === 'ranking' ? 'Options in the right order' : 'Options'"
      >
        <li v-for="(option, i) in question.options" :key="option.id" class="option">
          <span v-if="question.kind === 'ranking'" class="w-5 font-bold">{{ i + 1 }}</span>
          <label v-if="marksOptions" class="flex items-center gap-1 text-small text-ink-soft">
            <input
              :type="oneRight ? 'radio' : 'checkbox'"
              class="size-4"
              :name="`right-${question.id}`"
              :checked="option.right"
              @change="right(option.id, ($event.target as HTMLInputElement).checked)"
            />
            right</label
          >
          <input
            v-model="option.text"
            class="field min-w-0 flex-1"
            maxlength="200"
            :aria-label="`Option ${i + 1}`"
            @keydown.alt.up.prevent="move(i, -1)"
            @keydown.alt.down.prevent="move(i, 1)"
          />
          <template v-if="question.kind === 'pictureChoice'">
            <label class="quiet cursor-pointer text-small focus-within:outline-2">
              {{ busy === option.id ? 'Scaling…' : option.picture ? 'other picture' : 'choose a picture' }}
              <input
                type="file"
                class="sr-only"
                accept="image/jpeg,image/png,image/webp,image/gif"
                :aria-label="`Picture of option ${i + 1}`"
                @change="picture(option.id, $event)"
              />
            </label>
            <input
              v-if="option.picture"
              v-model="option.alternativeText"
              class="field order-last min-w-0 basis-full"
              maxlength="200"
              placeholder="what it shows, for those who cannot see it"
              :aria-label="`What picture ${i + 1} shows`"
            />
          </template>
          <template v-if="question.kind !== 'trueFalse'">
            <button
              type="button"
              class="quiet text-small"
              :aria-label="`Move option ${i + 1} up`"
              :disabled="i === 0"
              @click="move(i, -1)"
            >
              ↑
            </button>
            <button
              type="button"
              class="quiet text-small"
              :aria-label="`Take out option ${i + 1}`"
              @click="question.options.splice(i, 1)"
            >
              out
            </button>
          </template>
        </li>
      </ol>
      <p class="mt-1 flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <button
          v-if="hasOptions && question.kind !== 'trueFalse' && question.options.length < 12"
          type="button"
          class="quiet"
          @click="question.options.push(newOption())"
        >
          Add an option
        </button>
        <label v-if="quiz && question.kind === 'multipleChoice'" class="flex items-center gap-2 text-small"
          ><input v-model="question.allOrNothing" type="checkbox" class="size-4" /> marks only for exactly the right
          ones</label
        >
        <span v-if="question.kind === 'ranking'" class="text-small text-ink-soft"
          >In the right order; students see them mixed.</span
        >
      </p>

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
          >{{ question.kind === 'number' ? 'The right number' : 'Target, if any'
          }}<NumberInput v-model="question.target"
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
.option {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
.option:has(.order-last) {
  margin-bottom: 10px;
}
@media (max-width: 1000px) {
  .editor {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
