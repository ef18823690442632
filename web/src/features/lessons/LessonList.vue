<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'
import type { Done } from '../../ui/done'
import { count, dayName, hour, weekDay } from '../../ui/format'
import LessonEditor from './LessonEditor.vue'
import { stageOf, wayTo } from './lessons'
import SeriesEditor from './SeriesEditor.vue'

/** The lessons of a class, the newest first; planned ones and series are changed in place. */
const props = defineProps<{ page: Schemas['ClassView'] }>()
const emit = defineEmits<{ done: [done: Done] }>()
const open = ref<string>()
const withCancelled = ref(false)
const cancelled = computed(() => props.page.lessons.filter((l) => l.cancelled).length)
const shown = computed(() => props.page.lessons.filter((l) => withCancelled.value || !l.cancelled))
const toggle = (what: string) => (open.value = open.value === what ? undefined : what)
const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']

function finished(done: Done) {
  open.value = undefined
  emit('done', done)
}
</script>

<template>
  <div>
    <div class="rule-head">
      <h1 id="lessons">{{ count(page.lessons.length - cancelled, 'lesson') }}</h1>
      <span class="flex flex-wrap items-baseline gap-x-4 text-small font-normal">
        <button class="quiet" :aria-expanded="open === 'one'" @click="toggle('one')">Plan one</button>
        <button class="quiet" :aria-expanded="open === 'series'" @click="toggle('series')">Every week</button>
        <RouterLink class="quiet" to="/calendar/file">From a calendar</RouterLink>
      </span>
    </div>
    <LessonEditor
      v-if="open === 'one'"
      :class-id="page.id"
      :link="page.meetingLink"
      @done="finished"
      @close="open = undefined"
    />
    <SeriesEditor v-if="open === 'series'" :page="page" @done="finished" @close="open = undefined" />
    <template v-for="series in page.series" :key="series.id">
      <p v-if="series.coming" class="rule-line text-small text-ink-soft">
        <span class="flex-1"
          >{{ series.days.map((d) => days[d - 1]).join(' and ') }} {{ series.time }},
          {{ series.everyWeeks > 1 ? `every ${series.everyWeeks} weeks, ` : '' }}until
          {{ dayName(series.lastDay, { day: 'numeric', month: 'short' }) }}: {{ series.coming }} to come</span
        >
        <button class="quiet" :aria-expanded="open === series.id" @click="toggle(series.id)">change</button>
      </p>
      <SeriesEditor
        v-if="open === series.id"
        :page="page"
        :series="series"
        @done="finished"
        @close="open = undefined"
      />
    </template>
    <ol>
      <li v-for="lesson in shown" :key="lesson.id">
        <div class="rule-line lesson" :class="{ 'text-ink-soft line-through': lesson.cancelled }">
          <span class="w-6 shrink-0 font-semibold">{{ lesson.number || '' }}</span>
          <span class="w-[92px] shrink-0">{{ weekDay(lesson.plannedStart) }}</span>
          <RouterLink class="min-w-0 flex-1 font-semibold hover:underline" :to="wayTo(lesson)">{{
            lesson.title
          }}</RouterLink>
          <span class="text-ink-soft">{{ hour(lesson.plannedStart) }}</span>
          <span class="w-[66px] shrink-0 text-ink-soft"
            ><span :class="{ marked: lesson.stage === 'live' }">{{ stageOf(lesson) }}</span></span
          >
          <button
            class="quiet w-[3.4rem] text-small"
            :aria-label="`Change ${lesson.title}, ${weekDay(lesson.plannedStart)}`"
            :aria-expanded="open === lesson.id"
            @click="toggle(lesson.id)"
          >
            change
          </button>
        </div>
        <LessonEditor
          v-if="open === lesson.id"
          :class-id="page.id"
          :lesson="lesson"
          @done="finished"
          @close="open = undefined"
        />
      </li>
    </ol>
    <p v-if="!page.lessons.length" class="rule-line text-ink-soft">
      No lesson yet. Plan one, a weekly series, or bring in the calendar you have.
    </p>
    <button v-if="cancelled" class="quiet mt-2 text-small" @click="withCancelled = !withCancelled">
      {{ withCancelled ? 'Without' : 'Show' }} the {{ count(cancelled, 'cancelled lesson') }}
    </button>
  </div>
</template>

<style scoped>
.lesson {
  padding: 4px 0 3px;
}
</style>
