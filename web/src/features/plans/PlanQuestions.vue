<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { nextTick, ref } from 'vue'
import { api, ask } from '../../api/client'
import type { Done } from '../../ui/done'
import { moved, useReorder } from '../../ui/reorder'
import { copyOf, kindOf, newQuestion, type Question } from './plan'
import QuestionEditor from './QuestionEditor.vue'

/** The questions of a plan, in their order, and the shelf that others are taken from. */
const all = defineModel<Question[]>({ required: true })
const emit = defineEmits<{ done: [what: Done]; failed: [why: string | undefined] }>()
const queries = useQueryClient()
const open = ref<string>()
const fromShelf = ref(false)
const questions = ref<HTMLElement>()
const shelf = useQuery({ queryKey: ['shelf'], queryFn: () => ask(api.GET('/api/shelf')), enabled: fromShelf })

useReorder(questions, move)
function move(from: number, to: number) {
  all.value = moved(all.value, from, to)
}

async function step(index: number, by: number) {
  move(index, index + by)
  await nextTick()
  questions.value?.querySelectorAll<HTMLElement>('.handle')[Math.max(0, index + by)]?.focus()
}

function add(question: Question = newQuestion('singleChoice')) {
  all.value.push(question)
  open.value = question.id
}

async function keepOnShelf(question: Question) {
  emit('failed', undefined)
  try {
    const kept = await ask(api.POST('/api/shelf', { body: { question } }))
    await queries.invalidateQueries({ queryKey: ['shelf'] })
    const undo = () => ask(api.DELETE('/api/shelf/{id}', { params: { path: { id: kept.id } } }))
    emit('done', { said: 'The question is on your shelf, for any lesson.', undo })
  } catch (failure) {
    emit('failed', (failure as Error).message)
  }
}
</script>

<template>
  <section aria-labelledby="questions">
    <h2 class="rule-head">
      <span id="questions">Questions</span>
      <span class="flex items-baseline gap-4 text-small font-normal">
        <button class="quiet" @click="add()">Add a question</button>
        <button class="quiet" :aria-expanded="fromShelf" @click="fromShelf = !fromShelf">From the shelf</button>
      </span>
    </h2>
    <ul v-if="fromShelf" class="shelf" aria-label="Shelf">
      <li v-for="line in shelf.data.value" :key="line.id" class="rule-line">
        <span class="min-w-0 flex-1 truncate">{{ line.question.text || 'without text' }}</span>
        <span class="text-small text-ink-soft">{{ kindOf(line.question as Question) }}</span>
        <button class="quiet text-small" @click="add(copyOf(line.question as Question))">use it</button>
      </li>
      <li v-if="shelf.data.value && !shelf.data.value.length" class="py-2 text-ink-soft">
        The shelf is empty. “Keep” beside a question puts it there.
      </li>
    </ul>
    <ol ref="questions" aria-label="Questions">
      <li v-for="(question, i) in all" :key="question.id">
        <div class="rule-line question">
          <button
            type="button"
            class="handle"
            :aria-label="`Move question ${i + 1}: drag, or Alt with an arrow`"
            @keydown.alt.up.prevent="step(i, -1)"
            @keydown.alt.down.prevent="step(i, 1)"
          >
            ⋮⋮
          </button>
          <b class="w-4">{{ i + 1 }}</b>
          <button
            class="min-w-0 flex-1 truncate text-start hover:underline"
            :aria-expanded="open === question.id"
            @click="open = open === question.id ? undefined : question.id"
          >
            {{ question.text || 'a new question' }}
          </button>
          <span class="text-small whitespace-nowrap text-ink-soft"
            >{{ kindOf(question) }}, {{ question.purpose }}{{ question.anonymous ? ', anonymous' : ''
            }}{{ question.audience === 'group' ? ', group' : '' }}</span
          >
          <button
            class="quiet text-small"
            :aria-label="`Keep question ${i + 1} on the shelf`"
            @click="keepOnShelf(question)"
          >
            keep
          </button>
          <button
            class="quiet text-small text-ink-soft"
            :aria-label="`Take out question ${i + 1}`"
            @click="all.splice(i, 1)"
          >
            out
          </button>
        </div>
        <QuestionEditor v-if="open === question.id" v-model="all[i]!" :number="i + 1" />
      </li>
    </ol>
    <p v-if="!all.length" class="py-1 text-ink-soft">
      No question prepared. They open in the lesson, one by one, when you say so.
    </p>
  </section>
</template>

<style scoped>
.question {
  padding: 2px 0;
}
.shelf {
  border-left: 3px solid var(--ink);
  padding-left: 16px;
  margin: 4px 0 8px;
  max-height: 16rem;
  overflow-y: auto;
}
</style>
