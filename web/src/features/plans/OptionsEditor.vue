<script setup lang="ts">
import { computed, ref } from 'vue'
import { sendFile, type Schemas } from '../../api/client'
import { moved } from '../../ui/reorder'
import { newOption, type Question } from './plan'

/** The options of a question: their order, their pictures, and which are right. */
const question = defineModel<Question>({ required: true })
const emit = defineEmits<{ failed: [why: string | undefined] }>()
const busy = ref<string>()
const quiz = computed(() => question.value.purpose === 'quiz')
const oneRight = computed(() => ['singleChoice', 'trueFalse', 'pictureChoice'].includes(question.value.kind))
const marksOptions = computed(() => quiz.value && question.value.kind !== 'ranking')

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
  emit('failed', undefined)
  busy.value = id
  try {
    const kept = await sendFile<Schemas['PictureKept']>('/api/pictures', file, {})
    const option = question.value.options.find((o) => o.id === id)
    if (option) option.picture = kept.id
  } catch (failure) {
    emit('failed', (failure as Error).message)
  } finally {
    busy.value = undefined
  }
}
</script>

<template>
  <ol class="mt-1" :aria-label="question.kind === 'ranking' ? 'Options in the right order' : 'Options'">
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
      v-if="question.kind !== 'trueFalse' && question.options.length < 12"
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
</template>

<style scoped>
.option {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
.option:has(.order-last) {
  margin-bottom: 10px;
}
</style>
