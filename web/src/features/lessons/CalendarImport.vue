<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, sendFile, type Schemas } from '../../api/client'
import { useDone } from '../../ui/done'
import { count, hour, weekDay } from '../../ui/format'
import FileDrop from '../../ui/FileDrop.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import UndoNote from '../../ui/UndoNote.vue'

interface Choice {
  classId: string
  dropIn: boolean
}
const router = useRouter()
const classes = useQuery({ queryKey: ['classes'], queryFn: () => ask(api.GET('/api/classes')) })
const inUse = computed(() => classes.data.value?.filter((c) => !c.archived) ?? [])
const file = ref<File>()
const look = ref<Schemas['CalendarLook']>()
const until = ref('')
const choices = ref<Record<string, Choice>>({})
const { done, problem, tried } = useDone()
const busy = ref(false)
const endless = computed(() => look.value?.titles.some((t) => t.endless))
const chosen = computed(() => Object.entries(choices.value).filter(([, c]) => c.classId))
const dates = computed(() =>
  look.value?.titles.filter((t) => choices.value[t.title]?.classId).reduce((sum, t) => sum + t.dates, 0),
)

async function lookAt() {
  busy.value = true
  problem.value = undefined
  done.value = undefined
  try {
    look.value = await sendFile<Schemas['CalendarLook']>(
      '/api/calendar/preview',
      file.value!,
      until.value ? { until: until.value } : {},
    )
    for (const title of look.value.titles) {
      // A class of the same name, or the one whose lessons these are already, is the likeliest.
      const like = inUse.value.find((c) => c.name.toLowerCase().includes(title.title.toLowerCase()) && title.title)
      choices.value[title.title] ??= { classId: title.classId ?? like?.id ?? '', dropIn: false }
    }
  } catch (failure) {
    look.value = undefined
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}

function take(taken: File) {
  file.value = taken
  choices.value = {}
  until.value = ''
  void lookAt()
}

function saidOf(r: Schemas['CalendarBroughtIn']) {
  const parts = [
    r.made && `${count(r.made, 'lesson')} planned`,
    r.moved && `${r.moved} moved`,
    r.cancelled && `${r.cancelled} cancelled or put back`,
    r.unchanged && `${r.unchanged} as they were`,
    r.begun && `${r.begun} had begun already and stay`,
  ].filter(Boolean)
  return `${parts.join(', ')}.`
}

async function bringIn() {
  busy.value = true
  const stored = await tried(async () => {
    const { counts, made } = await sendFile<Schemas['CalendarStored']>('/api/calendar', file.value!, {
      ...(until.value ? { until: until.value } : {}),
      choices: JSON.stringify(chosen.value.map(([title, c]) => ({ title, ...c }))),
    })
    const undo = () => ask(api.POST('/api/calendar/undo', { body: { lessons: made } }))
    return { said: saidOf(counts), undo: made.length ? undo : undefined }
  })
  busy.value = false
  if (stored) look.value = undefined
}
</script>

<template>
  <Page title="Bring in a calendar" lead="An iCalendar file from any program. Nothing is planned until you say so.">
    <FileDrop
      class="mt-5 max-w-[46rem]"
      what="a calendar"
      hint="A file that ends in .ics. Brought in again later, moved and cancelled lessons follow."
      accept=".ics,text/calendar"
      :busy="busy"
      @file="take"
    />
    <Notice v-if="problem" tone="wrong" class="mt-5">{{ problem }}</Notice>
    <template v-if="done">
      <UndoNote v-model="done" class="mt-5" />
      <p class="mt-4"><button class="press-first" @click="router.push('/calendar')">See the calendar</button></p>
    </template>
    <Notice v-if="classes.data.value && !inUse.length" class="mt-5"
      >There is no class yet that lessons could belong to.
      <RouterLink class="quiet" to="/classes">Make one first</RouterLink>.</Notice
    >

    <template v-if="look && file">
      <h2 class="mt-8 text-head font-bold">{{ file.name }}</h2>
      <label v-if="endless" class="mt-2 block max-w-[16rem]"
        >Read what goes on without end until<input v-model="until" class="field" type="date" @change="lookAt"
      /></label>
      <div class="mt-4 overflow-x-auto">
        <table class="sheet-table max-w-[68rem]">
          <thead>
            <tr>
              <th>Event</th>
              <th>Dates</th>
              <th>From and to</th>
              <th>Belongs to</th>
              <th>Who comes</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="title in look.titles" :key="title.title">
              <td>
                <b class="font-semibold">{{ title.title || 'without a title' }}</b>
                <span v-for="p in title.problems" :key="p" class="block max-w-[22rem] text-small italic">{{ p }}</span>
              </td>
              <td>
                {{ title.dates }}<span v-if="title.known" class="text-ink-soft">, {{ title.known }} here already</span
                ><span v-if="title.cancelled" class="text-ink-soft">, {{ title.cancelled }} cancelled</span>
              </td>
              <td class="text-ink-soft">
                <template v-if="title.first"
                  >{{ weekDay(title.first) }} {{ hour(title.first) }} to {{ weekDay(title.last!) }},
                  {{ title.minutes }} min</template
                >
              </td>
              <td>
                <select
                  v-model="choices[title.title]!.classId"
                  class="field min-w-[13rem]"
                  :disabled="!title.dates"
                  :aria-label="`${title.title} belongs to`"
                >
                  <option value="">leave it out</option>
                  <option v-for="c in inUse" :key="c.id" :value="c.id">{{ c.name }}</option>
                </select>
              </td>
              <td>
                <select
                  v-model="choices[title.title]!.dropIn"
                  class="field"
                  :disabled="!choices[title.title]!.classId"
                  :aria-label="`Who comes to ${title.title}`"
                >
                  <option :value="false">everybody</option>
                  <option :value="true">drop-in</option>
                </select>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="mt-5 flex gap-5">
        <button class="press-first" :disabled="busy || !chosen.length || !dates" @click="bringIn">
          Bring in {{ count(dates ?? 0, 'date') }}
        </button>
        <RouterLink class="press" to="/calendar">Leave it</RouterLink>
      </p>
    </template>
  </Page>
</template>
