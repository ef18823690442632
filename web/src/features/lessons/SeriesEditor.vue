<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import type { Done } from '../../ui/done'
import { addDays, count, dayName, isoDay } from '../../ui/format'
import Notice from '../../ui/Notice.vue'

/** Lessons that come back every week: seen day by day before they are made. */
const props = defineProps<{ page: Schemas['ClassView']; series?: Schemas['SeriesLine'] }>()
const emit = defineEmits<{ done: [done: Done]; close: [] }>()
const today = isoDay(Date.now())
/** What of a series can be changed. */
const sentOf = (s: Schemas['SeriesLine']): Schemas['SeriesSent'] => ({
  title: s.title,
  days: [...s.days],
  everyWeeks: s.everyWeeks,
  time: s.time,
  minutes: s.minutes,
  firstDay: s.firstDay,
  lastDay: s.lastDay,
  dropIn: s.dropIn,
  meetingLink: s.meetingLink,
  except: [...s.except],
})
const sent = ref<Schemas['SeriesSent']>(
  props.series
    ? sentOf(props.series)
    : {
        title: props.page.name,
        days: [],
        everyWeeks: 1,
        time: '09:30',
        minutes: 50,
        firstDay: props.page.term && props.page.term.firstDay > today ? props.page.term.firstDay : today,
        lastDay: props.page.term?.lastDay ?? addDays(today, 83),
        dropIn: false,
        meetingLink: props.page.meetingLink ?? '',
        except: [],
      },
)
const week = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const dates = ref<Schemas['SeriesDate'][]>([])
const problem = ref<string>()
const busy = ref(false)
const held = computed(() => dates.value.filter((d) => !d.off && !sent.value.except.includes(d.day)))
const body = () => ({ ...sent.value, meetingLink: sent.value.meetingLink || null })
let asked = 0

watch(
  () => [sent.value.days, sent.value.everyWeeks, sent.value.firstDay, sent.value.lastDay, sent.value.time],
  async () => {
    const mine = ++asked
    if (!sent.value.days.length || !sent.value.firstDay || !sent.value.lastDay || !sent.value.time)
      return (dates.value = [])
    const params = { path: { id: props.page.id } }
    const found = await ask(
      api.POST('/api/classes/{id}/series/preview', { params, body: { ...body(), title: 'x', minutes: 50 } }),
    ).catch((failure: Error) => failure)
    if (mine !== asked) return
    problem.value = found instanceof Error ? found.message : undefined
    dates.value = found instanceof Error ? [] : found
  },
  { deep: true, immediate: true },
)

const toggle = (day: string) =>
  (sent.value.except = sent.value.except.includes(day)
    ? sent.value.except.filter((d) => d !== day)
    : [...sent.value.except, day])

const restore = (id: string) => ask(api.POST('/api/series/{id}/restore', { params: { path: { id } } }))

async function store() {
  problem.value = undefined
  busy.value = true
  try {
    if (props.series) {
      const before = sentOf(props.series)
      const id = props.series.id
      const put = (body: Schemas['SeriesSent']) => ask(api.PUT('/api/series/{id}', { params: { path: { id } }, body }))
      const changed = await put(body())
      const parts = [
        changed.moved && `${changed.moved} moved`,
        changed.made && `${changed.made} new`,
        changed.cancelled && `${changed.cancelled} cancelled`,
      ].filter(Boolean)
      // What this cancelled comes back first, so that the series finds it where it was.
      const undo = async () => {
        if (changed.cancelled) await restore(id)
        return put(before)
      }
      emit('done', { said: `The series is changed: ${parts.join(', ') || 'no lesson moved'}.`, undo })
    } else {
      const params = { path: { id: props.page.id } }
      const made = await ask(api.POST('/api/classes/{id}/series', { params, body: body() }))
      const undo = () => ask(api.DELETE('/api/series/{id}', { params: { path: { id: made.id } } }))
      emit('done', { said: `${count(made.made, 'lesson')} planned.`, undo })
    }
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}

async function cancel() {
  const params = { path: { id: props.series!.id } }
  try {
    const ended = await ask(api.DELETE('/api/series/{id}', { params }))
    emit('done', {
      said: `${count(ended.cancelled, 'lesson')} of the series cancelled; those that have begun stay.`,
      undo: () => restore(props.series!.id),
    })
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}
</script>

<template>
  <form class="opened" @submit.prevent="store" @keydown.esc.stop="emit('close')">
    <fieldset class="flex flex-wrap gap-x-4 gap-y-1">
      <legend class="text-small text-ink-soft">Days</legend>
      <label v-for="(name, i) in week" :key="name" class="flex items-center gap-1.5"
        ><input v-model="sent.days" type="checkbox" class="size-4" :value="i + 1" :aria-label="name" />
        {{ name.slice(0, 3) }}</label
      >
    </fieldset>
    <div class="field-grid mt-2">
      <label class="wide"
        >What they are about<input v-model="sent.title" class="field" maxlength="100" required
      /></label>
      <label>Start<input v-model="sent.time" class="field" type="time" required /></label>
      <label
        >Minutes<input v-model.number="sent.minutes" class="field" type="number" min="5" max="600" required
      /></label>
      <label
        >Every<select v-model.number="sent.everyWeeks" class="field">
          <option :value="1">week</option>
          <option v-for="n in [2, 3, 4]" :key="n" :value="n">{{ n }} weeks</option>
        </select></label
      >
      <label>First day<input v-model="sent.firstDay" class="field" type="date" required /></label>
      <label>Last day<input v-model="sent.lastDay" class="field" type="date" required /></label>
      <label
        >Who comes<select v-model="sent.dropIn" class="field">
          <option :value="false">everybody</option>
          <option :value="true">drop-in</option>
        </select></label
      >
      <label class="wide"
        >Link to the meeting<input
          v-model="sent.meetingLink"
          class="field"
          type="url"
          maxlength="500"
          placeholder="https://"
      /></label>
    </div>
    <div v-if="dates.length" class="mt-3">
      <p class="text-small text-ink-soft">
        {{ count(held.length, 'lesson') }}. Press a day to take it out<template v-if="series"
          >; lessons that have begun or were moved by themselves stay</template
        >.
      </p>
      <p
        class="mt-1 flex max-h-[9.5rem] flex-wrap gap-x-3 gap-y-1 overflow-y-auto"
        role="group"
        aria-label="Days of the series"
      >
        <button
          v-for="date in dates"
          :key="date.day"
          type="button"
          class="date"
          :disabled="date.off !== null"
          :aria-pressed="!date.off && !sent.except.includes(date.day)"
          :title="date.off ?? undefined"
          @click="toggle(date.day)"
        >
          {{ dayName(date.day, { weekday: 'short', day: 'numeric', month: 'short' })
          }}<i v-if="date.off">{{ `, ${date.off}` }}</i>
        </button>
      </p>
    </div>
    <Notice v-if="problem" tone="wrong" class="mt-3">{{ problem }}</Notice>
    <p class="mt-3 flex flex-wrap items-center gap-5">
      <button class="press-first" :disabled="busy || !held.length">
        {{ series ? 'Change those to come' : `Plan ${count(held.length, 'lesson')}` }}
      </button>
      <button type="button" class="press" @click="emit('close')">Close</button>
      <button v-if="series" type="button" class="quiet ml-auto" @click="cancel">Cancel those to come</button>
    </p>
  </form>
</template>

<style scoped>
.date {
  min-height: 1.5rem;
  border-bottom: 2px solid var(--ink);
  font-size: var(--text-small);
}
.date[aria-pressed='false'] {
  border-color: var(--rule);
  color: var(--ink-soft);
  text-decoration: line-through;
}
.date:disabled {
  border-color: transparent;
  text-decoration: none;
}
</style>
