<script setup lang="ts">
import { reactive } from 'vue'
import type { Schemas } from '../../api/client'
import { count } from '../../ui/format'
import type { QuestionChoice } from './files'

/** The questions of a table of answers: which question of the lesson each is, what is right, and what is left out. */
const props = defineProps<{ questions: Schemas['FileQuestion'][]; known: Schemas['KnownQuestion'][] }>()
const emit = defineEmits<{ take: [questions: QuestionChoice[]] }>()

const own = 'own'
const left = 'left'
const choices = reactive(
  props.questions.map((q) => ({
    place: q.place,
    is: q.leave ? left : (q.as ?? own),
    right: [...q.right],
    byPoints: q.byPoints,
  })),
)

const take = () =>
  emit(
    'take',
    choices.map((c) => ({
      place: c.place,
      as: c.is === own || c.is === left ? null : c.is,
      leave: c.is === left,
      right: c.right,
      byPoints: c.byPoints,
    })),
  )
</script>

<template>
  <div class="mt-3">
    <table class="sheet-table max-w-[60rem]">
      <thead>
        <tr>
          <th>Question in the file</th>
          <th>Is</th>
          <th>Right</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(q, i) in questions" :key="q.place">
          <td class="max-w-[24rem]">
            {{ q.text }}
            <span class="block text-small text-ink-soft">{{ count(q.answers, 'answer') }}</span>
          </td>
          <td>
            <select v-model="choices[i]!.is" class="field min-w-[12rem]" :aria-label="`What “${q.text}” is`">
              <option v-for="k in known" :key="k.id" :value="k.id">
                {{ k.asked ? 'asked here' : 'in the plan' }}: {{ k.text }}
              </option>
              <option :value="own">a question of its own</option>
              <option :value="left">left out</option>
            </select>
            <label v-if="q.hasPoints && choices[i]!.is !== left" class="mt-1 block text-small">
              <input v-model="choices[i]!.byPoints" type="checkbox" /> marks are the points of the file
            </label>
          </td>
          <td>
            <select
              v-if="choices[i]!.is === own && q.written.length && !q.anonymous"
              v-model="choices[i]!.right"
              multiple
              class="field min-w-[10rem]"
              :size="Math.min(q.written.length, 4)"
              :aria-label="`What is right in “${q.text}”`"
            >
              <option v-for="w in q.written" :key="w">{{ w }}</option>
            </select>
            <span v-else-if="choices[i]!.is !== left" class="text-ink-soft">{{ q.right.join(', ') }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="mt-2 text-small text-ink-soft">
      Where nothing is marked as right, having answered is what counts.
      <button class="press ml-3" @click="take">Bring it in so</button>
    </p>
  </div>
</template>
