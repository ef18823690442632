<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { useDone } from '../../ui/done'
import { addDays, count, dayName, isoDay } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import UndoNote from '../../ui/UndoNote.vue'

type Term = Schemas['TermLine']
const terms = useQuery({ queryKey: ['terms'], queryFn: () => ask(api.GET('/api/terms')) })
const open = ref<{ id?: string; sent: Schemas['TermSent'] }>()
const { done, problem, tried } = useDone()
const today = isoDay(Date.now())

const sentOf = ({ name, firstDay, lastDay, daysOff }: Term): Schemas['TermSent'] => ({
  name,
  firstDay,
  lastDay,
  daysOff: daysOff.map((d) => ({ ...d })),
})
const put = (id: string, body: Schemas['TermSent']) =>
  ask(api.PUT('/api/terms/{id}', { params: { path: { id } }, body }))
const remove = (id: string) => ask(api.DELETE('/api/terms/{id}', { params: { path: { id } } }))

async function store() {
  const stored = await tried(async () => {
    const { id, sent } = open.value!
    if (!id) {
      const made = await ask(api.POST('/api/terms', { body: sent }))
      return { said: `${made.name} is made.`, undo: () => remove(made.id) }
    }
    const before = sentOf(terms.data.value!.find((t) => t.id === id)!)
    await put(id, sent)
    return {
      said: `${sent.name} is changed. Lessons planned already stay where they are.`,
      undo: () => put(id, before),
    }
  })
  if (stored) open.value = undefined
}

const takeOut = (term: Term) =>
  tried(async () => {
    await remove(term.id)
    return {
      said: `${term.name} is gone. Its classes and lessons stay.`,
      undo: () => ask(api.POST('/api/terms', { body: sentOf(term) })),
    }
  })

const begin = () => (open.value = { sent: { name: '', firstDay: today, lastDay: addDays(today, 100), daysOff: [] } })
</script>

<template>
  <Page title="Terms" lead="Weekly lessons of a class keep to the days of its term and leave out its days off.">
    <UndoNote v-model="done" class="mt-3" />
    <ul v-if="terms.data.value?.length" class="mt-5 max-w-[46rem]">
      <li v-for="term in terms.data.value" :key="term.id" class="rule-line">
        <b class="w-[11rem] shrink-0 font-semibold">{{ term.name }}</b>
        <span class="flex-1 text-ink-soft"
          >{{ dayName(term.firstDay, { day: 'numeric', month: 'short' }) }} to
          {{ dayName(term.lastDay, { day: 'numeric', month: 'short', year: 'numeric' })
          }}<template v-if="term.daysOff.length">, {{ term.daysOff.map((d) => d.name).join(', ') }} off</template></span
        >
        <button class="quiet" @click="open = { id: term.id, sent: sentOf(term) }">change</button>
        <button class="quiet text-ink-soft" :aria-label="`Take out ${term.name}`" @click="takeOut(term)">
          take out
        </button>
      </li>
    </ul>
    <p v-else-if="terms.data.value" class="mt-4 text-ink-soft">
      No term yet. One is enough to begin with: its first and last day.
    </p>
    <p class="mt-5"><button v-if="!open" class="press-first" @click="begin">A new term</button></p>

    <form v-if="open" class="mt-5 max-w-[46rem]" @submit.prevent="store">
      <h2 class="rule-head">{{ open.id ? 'Change the term' : 'A new term' }}</h2>
      <div class="mt-3 grid grid-cols-3 gap-x-6 gap-y-2">
        <label class="text-small text-ink-soft"
          >Name<input
            v-model="open.sent.name"
            class="field text-base text-ink"
            required
            maxlength="100"
            placeholder="Autumn"
        /></label>
        <label class="text-small text-ink-soft"
          >First day<input v-model="open.sent.firstDay" class="field text-base text-ink" type="date" required
        /></label>
        <label class="text-small text-ink-soft"
          >Last day<input v-model="open.sent.lastDay" class="field text-base text-ink" type="date" required
        /></label>
        <template v-for="(off, i) in open.sent.daysOff" :key="i">
          <label class="text-small text-ink-soft"
            >Days off<input
              v-model="off.name"
              class="field text-base text-ink"
              required
              maxlength="100"
              placeholder="Holiday"
          /></label>
          <label class="text-small text-ink-soft"
            >from<input v-model="off.firstDay" class="field text-base text-ink" type="date" required
          /></label>
          <span class="flex items-end gap-3">
            <label class="flex-1 text-small text-ink-soft"
              >to<input v-model="off.lastDay" class="field text-base text-ink" type="date" required
            /></label>
            <button
              type="button"
              class="quiet mb-1 text-small"
              :aria-label="`Take out the days off ${off.name}`"
              @click="open.sent.daysOff.splice(i, 1)"
            >
              out
            </button>
          </span>
        </template>
      </div>
      <p class="mt-2">
        <button
          type="button"
          class="quiet"
          @click="open.sent.daysOff.push({ name: '', firstDay: open.sent.firstDay, lastDay: open.sent.firstDay })"
        >
          Add days off
        </button>
      </p>
      <Notice v-if="problem" tone="wrong" class="mt-3">{{ problem }}</Notice>
      <p class="mt-4 flex items-center gap-5">
        <button class="press-first">Store</button>
        <button type="button" class="press" @click="open = undefined">Close</button>
        <span v-if="open.sent.daysOff.length" class="text-small text-ink-soft">{{
          count(open.sent.daysOff.length, 'stretch of days off', 'stretches of days off')
        }}</span>
      </p>
    </form>
    <Notice v-else-if="problem" tone="wrong" class="mt-3">{{ problem }}</Notice>
  </Page>
</template>
