<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask } from '../../api/client'
import { useDone } from '../../ui/done'
import { shortDay } from '../../ui/format'
import EmptyState from '../../ui/EmptyState.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import UndoNote from '../../ui/UndoNote.vue'
import { kindOf, newQuestion, type Question } from './plan'
import QuestionEditor from './QuestionEditor.vue'

const shelf = useQuery({ queryKey: ['shelf'], queryFn: () => ask(api.GET('/api/shelf')) })
const open = ref<{ id?: string; question: Question }>()
const wanted = ref('')
const { done, problem, tried } = useDone()
const shown = computed(() => {
  const word = wanted.value.trim().toLowerCase()
  return shelf.data.value?.filter((s) => !word || JSON.stringify(s.question).toLowerCase().includes(word)) ?? []
})

const remove = (id: string) => ask(api.DELETE('/api/shelf/{id}', { params: { path: { id } } }))
const put = (id: string, question: Question) =>
  ask(api.PUT('/api/shelf/{id}', { params: { path: { id } }, body: { question } }))

async function store() {
  const stored = await tried(async () => {
    const { id, question } = open.value!
    if (id) {
      const before = shelf.data.value!.find((s) => s.id === id)!.question as Question
      await put(id, question)
      return { said: 'The question is changed. Lessons that use it keep theirs.', undo: () => put(id, before) }
    }
    const kept = await ask(api.POST('/api/shelf', { body: { question } }))
    return { said: 'The question is on the shelf.', undo: () => remove(kept.id) }
  })
  if (stored) open.value = undefined
}

const takeOff = (id: string, question: Question) =>
  tried(async () => {
    await remove(id)
    return { said: 'The question is off the shelf.', undo: () => ask(api.POST('/api/shelf', { body: { question } })) }
  })

const begin = (id: string, question: Question) =>
  (open.value = open.value?.id === id ? undefined : { id, question: JSON.parse(JSON.stringify(question)) as Question })
</script>

<template>
  <Page title="Shelf" lead="Questions to use in any lesson. A lesson takes a copy; what is changed here stays here.">
    <UndoNote v-model="done" class="mt-3" />
    <Notice v-if="problem" tone="wrong" class="mt-3">{{ problem }}</Notice>
    <p class="mt-5 flex max-w-[64rem] flex-wrap items-end gap-6">
      <button class="press-first" @click="open = { question: newQuestion('singleChoice') }">A new question</button>
      <label v-if="shelf.data.value?.length" class="w-64 text-small text-ink-soft"
        >Find<input v-model="wanted" class="field text-base text-ink" type="search"
      /></label>
    </p>
    <form v-if="open && !open.id" class="mt-4 max-w-[64rem]" @submit.prevent="store">
      <QuestionEditor v-model="open.question" />
      <p class="flex gap-5 pl-5">
        <button class="press-first">Put it on the shelf</button>
        <button type="button" class="press" @click="open = undefined">Close</button>
      </p>
    </form>
    <EmptyState v-if="shelf.data.value && !shelf.data.value.length && !open" class="mt-6" title="The shelf is empty">
      Write a question here, or press “keep” beside one in a plan.
    </EmptyState>
    <ul class="mt-4 max-w-[64rem]">
      <li v-for="line in shown" :key="line.id">
        <div class="rule-line">
          <button
            class="min-w-0 flex-1 truncate text-start font-semibold hover:underline"
            :aria-expanded="open?.id === line.id"
            @click="begin(line.id, line.question as Question)"
          >
            {{ line.question.text || 'without text' }}
          </button>
          <span class="text-small text-ink-soft"
            >{{ kindOf(line.question as Question) }}, {{ line.question.purpose }}</span
          >
          <span class="w-14 text-small text-ink-soft">{{ shortDay(line.keptAt) }}</span>
          <button
            class="quiet text-small text-ink-soft"
            :aria-label="`Take off the shelf: ${line.question.text}`"
            @click="takeOff(line.id, line.question as Question)"
          >
            take off
          </button>
        </div>
        <form v-if="open && open.id === line.id" @submit.prevent="store">
          <QuestionEditor v-model="open.question" />
          <p class="flex gap-5 pb-4 pl-5">
            <button class="press-first">Store</button>
            <button type="button" class="press" @click="open = undefined">Close</button>
          </p>
        </form>
      </li>
    </ul>
  </Page>
</template>
