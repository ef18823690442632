<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask } from '../../api/client'
import { useDone, type Done } from '../../ui/done'
import { addDays, dayName, hour, isoDay, minuteOfDay, mondayOf } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import UndoNote from '../../ui/UndoNote.vue'
import LessonEditor from './LessonEditor.vue'
import { stageOf, wayTo, type Lesson } from './lessons'

const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const from = computed(() => mondayOf(typeof route.query.from === 'string' ? route.query.from : isoDay(Date.now())))
const week = useQuery({
  queryKey: ['calendar', from],
  queryFn: () => ask(api.GET('/api/calendar', { params: { query: { from: from.value, days: 7 } } })),
})
const classes = useQuery({ queryKey: ['classes'], queryFn: () => ask(api.GET('/api/classes')) })
const inUse = computed(() => classes.data.value?.filter((c) => !c.archived) ?? [])
const { done, finished } = useDone()
const link = ref<string>()
const adding = ref<{ day: string; classId: string }>()
const lessons = computed(() => week.data.value?.days.flatMap((d) => d.lessons) ?? [])
// From eight to four, or as early and as late as the lessons of the week.
const hours = computed(() => {
  const starts = lessons.value.map((l) => Math.floor(minuteOfDay(l.plannedStart) / 60))
  const ends = lessons.value.map((l) =>
    Math.ceil((minuteOfDay(l.plannedStart) + (l.plannedEnd - l.plannedStart) / 60_000) / 60),
  )
  return { first: Math.min(8, ...starts), last: Math.min(24, Math.max(16, ...ends)) }
})
const scale = computed(() =>
  Array.from({ length: hours.value.last - hours.value.first + 1 }, (_, i) => hours.value.first + i),
)
const share = (minute: number) =>
  ((minute - hours.value.first * 60) / ((hours.value.last - hours.value.first) * 60)) * 100
const left = (lesson: Lesson) => share(minuteOfDay(lesson.plannedStart))
const width = (lesson: Lesson) =>
  Math.min(100 - left(lesson), share(hours.value.first * 60 + (lesson.plannedEnd - lesson.plannedStart) / 60_000))
// The words of a lesson may run on until the next one of the day begins.
function room(day: readonly Lesson[], lesson: Lesson) {
  const next = day.map(left).filter((l) => l > left(lesson))
  return (next.length ? Math.min(...next) : 100) - left(lesson)
}

// Where there is no room to the right, the words end with the lesson instead of beginning with it.
const isLate = (lesson: Lesson) => left(lesson) > 84
function placed(day: readonly Lesson[], lesson: Lesson) {
  const space = room(day, lesson)
  if (isLate(lesson))
    return {
      right: `${100 - left(lesson) - width(lesson)}%`,
      width: '16%',
      textAlign: 'right' as const,
      '--bar': `${(width(lesson) / 16) * 100}%`,
    }
  return { left: `${left(lesson)}%`, width: `${space}%`, '--bar': `${(width(lesson) / space) * 100}%` }
}

const to = (day: string) => router.replace({ query: { from: day } })
function onKey(event: KeyboardEvent) {
  if (
    (event.target as HTMLElement).closest('input, textarea, select') ||
    event.altKey ||
    event.ctrlKey ||
    event.metaKey
  )
    return
  if (event.key === 'ArrowLeft') void to(addDays(from.value, -7))
  else if (event.key === 'ArrowRight') void to(addDays(from.value, 7))
  else return
  event.preventDefault()
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))

async function planned(what: Done) {
  adding.value = undefined
  await finished(what)
}

async function makeLink() {
  const made = await ask(api.POST('/api/calendar/link'))
  link.value = location.origin + made.path
  await queries.invalidateQueries()
}

async function revokeLink() {
  await ask(api.DELETE('/api/calendar/link'))
  link.value = undefined
  await finished({ said: 'The private link opens nothing any more.' })
}
const copied = ref(false)
async function copy() {
  await navigator.clipboard.writeText(link.value!)
  copied.value = true
}
</script>

<template>
  <Page>
    <div class="flex flex-wrap items-baseline gap-x-6 gap-y-1">
      <h1 class="text-title font-bold">
        {{ dayName(from, { day: 'numeric', month: 'long' }) }} to
        {{ dayName(addDays(from, 6), { day: 'numeric', month: 'long', year: 'numeric' }) }}
      </h1>
      <p class="flex gap-5">
        <button class="quiet" @click="to(addDays(from, -7))">Week before <kbd>←</kbd></button>
        <button class="quiet" @click="to(isoDay(Date.now()))">This week</button>
        <button class="quiet" @click="to(addDays(from, 7))">Week after <kbd>→</kbd></button>
      </p>
      <p class="ml-auto flex gap-5 text-small">
        <RouterLink class="quiet" to="/calendar/file">Bring in a calendar</RouterLink>
        <RouterLink class="quiet" to="/terms">Terms and days off</RouterLink>
      </p>
    </div>
    <UndoNote v-model="done" class="mt-3" />
    <Notice v-if="week.error.value" tone="wrong" class="mt-3">{{ week.error.value.message }}</Notice>

    <div v-if="week.data.value" class="week mt-4">
      <div class="scale" aria-hidden="true">
        <span v-for="h in scale" :key="h" :style="{ left: `${share(h * 60)}%` }">{{ String(h).padStart(2, '0') }}</span>
      </div>
      <section v-for="day in week.data.value.days" :key="day.day" class="day" :aria-label="dayName(day.day)">
        <h2 class="name">
          <span :class="{ marked: day.day === week.data.value.today }">{{
            dayName(day.day, { weekday: 'long' })
          }}</span>
          <span class="block text-small font-normal text-ink-soft">{{
            dayName(day.day, { day: 'numeric', month: 'short' })
          }}</span>
        </h2>
        <div class="line">
          <p v-if="day.off" class="off">{{ day.off }}</p>
          <p v-if="!day.lessons.length" class="sr-only">No lessons.</p>
          <RouterLink
            v-for="lesson in day.lessons"
            :key="lesson.id"
            class="lesson"
            :class="{ cancelled: lesson.cancelled, live: lesson.stage === 'live', late: isLate(lesson) }"
            :to="wayTo(lesson)"
            :style="placed(day.lessons, lesson)"
          >
            <span class="bar" :class="{ open: lesson.dropIn }" />
            <span class="words"
              ><b>{{ hour(lesson.plannedStart) }}</b> <b class="title">{{ lesson.title }}</b></span
            >
            <span class="words text-small text-ink-soft"
              >{{ lesson.className
              }}<template v-if="lesson.stage !== 'settled'">
                ·
                {{
                  lesson.stage === 'planned' && !lesson.cancelled
                    ? lesson.prepared
                      ? 'prepared'
                      : 'nothing prepared'
                    : stageOf(lesson)
                }}</template
              ></span
            >
          </RouterLink>
        </div>
        <button
          v-if="inUse.length"
          class="add quiet text-small"
          :aria-label="`Plan a lesson on ${dayName(day.day)}`"
          @click="adding = { day: day.day, classId: inUse[0]!.id }"
        >
          plan
        </button>
        <div v-if="adding?.day === day.day" class="adding">
          <label class="block max-w-[24rem] text-small text-ink-soft"
            >Class<select v-model="adding.classId" class="field text-base text-ink">
              <option v-for="c in inUse" :key="c.id" :value="c.id">{{ c.name }}</option>
            </select></label
          >
          <LessonEditor :class-id="adding.classId" :day="day.day" @done="planned" @close="adding = undefined" />
        </div>
      </section>
    </div>

    <section class="mt-8 max-w-[60rem]" aria-labelledby="away">
      <h2 id="away" class="rule-head">In other calendars</h2>
      <p class="mt-2">
        <a class="quiet" href="/api/calendar.ics" download>Take it as a file</a>, or let another program follow it by a
        private link.
        <button v-if="!week.data.value?.hasLink" class="press ml-3" @click="makeLink">Make a private link</button>
        <template v-else>
          <button class="quiet ml-3" @click="makeLink">Make a new link</button>
          <button class="quiet ml-4" @click="revokeLink">Revoke the link</button>
        </template>
      </p>
      <Notice v-if="link" class="mt-3">
        Whoever has this address can read your calendar; it is shown this once.
        <span class="mt-1 flex flex-wrap items-center gap-4"
          ><input
            class="field max-w-[36rem]"
            readonly
            :value="link"
            aria-label="Private link"
            @focus="($event.target as HTMLInputElement).select()"
          />
          <button class="press" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</button></span
        >
      </Notice>
      <p v-if="week.data.value" class="mt-2 text-small text-ink-soft">
        All times are those of {{ week.data.value.timeZone }}.
      </p>
    </section>
  </Page>
</template>

<style scoped>
.week {
  max-width: 1180px;
}
.scale {
  position: relative;
  height: 20px;
  margin: 0 56px 0 112px;
  border-bottom: 1.5px solid var(--ink);
  font-size: 0.75rem;
  color: var(--ink-soft);
}
.scale span {
  position: absolute;
  transform: translateX(-50%);
}
.day {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr) 56px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  min-height: 62px;
}
.name {
  font-weight: 650;
  line-height: 1.2;
}
.line {
  position: relative;
  height: 60px;
}
.off {
  position: absolute;
  inset: 0;
  display: flex;
  align-items: center;
  padding-left: 10px;
  font-style: italic;
  color: var(--ink-soft);
  background: var(--paper-deep);
}
.lesson {
  position: absolute;
  top: 8px;
  padding-right: 8px;
  line-height: 1.25;
}
.bar {
  display: block;
  width: var(--bar);
  border-top: 3px solid var(--ink);
  margin-bottom: 3px;
}
.late .bar {
  margin-left: auto;
}
.bar.open {
  border-top-style: dashed;
}
.lesson.live .bar {
  border-color: var(--live);
  border-top-width: 5px;
  margin-bottom: 1px;
}
.words {
  display: block;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.lesson:hover .title {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.cancelled .words {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.cancelled .bar {
  border-color: var(--rule);
}
.add {
  justify-self: end;
}
.adding {
  grid-column: 1 / -1;
  padding-bottom: 8px;
}
kbd {
  font-family: inherit;
  font-weight: 700;
}
@media (max-width: 700px) {
  .scale {
    display: none;
  }
  .day {
    grid-template-columns: 80px minmax(0, 1fr) 40px;
    padding: 6px 0;
  }
  .line {
    height: auto;
  }
  .off {
    position: static;
    padding: 4px 8px;
  }
  .lesson {
    position: static;
    display: block;
    width: auto !important;
    padding: 4px 0;
  }
  .bar {
    width: 2rem;
  }
}
</style>
