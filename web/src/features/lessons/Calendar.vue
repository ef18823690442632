<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask } from '../../api/client'
import { useDone } from '../../ui/done'
import { addDays, dayName, isoDay, mondayOf } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import UndoNote from '../../ui/UndoNote.vue'
import CalendarDay from './CalendarDay.vue'
import CalendarElsewhere from './CalendarElsewhere.vue'
import { hoursOf, share } from './weekScale'

const route = useRoute()
const router = useRouter()
const from = computed(() => mondayOf(typeof route.query.from === 'string' ? route.query.from : isoDay(Date.now())))
const week = useQuery({
  queryKey: ['calendar', from],
  queryFn: () => ask(api.GET('/api/calendar', { params: { query: { from: from.value, days: 7 } } })),
})
const classes = useQuery({ queryKey: ['classes'], queryFn: () => ask(api.GET('/api/classes')) })
const inUse = computed(() => classes.data.value?.filter((c) => !c.archived) ?? [])
const { done, finished } = useDone()
const hours = computed(() => hoursOf(week.data.value?.days.flatMap((d) => d.lessons) ?? []))
const scale = computed(() =>
  Array.from({ length: hours.value.last - hours.value.first + 1 }, (_, i) => hours.value.first + i),
)

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
useEventListener(window, 'keydown', onKey)
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
        <span v-for="h in scale" :key="h" :style="{ left: `${share(h * 60, hours)}%` }">{{
          String(h).padStart(2, '0')
        }}</span>
      </div>
      <CalendarDay
        v-for="day in week.data.value.days"
        :key="day.day"
        :day="day"
        :today="week.data.value.today"
        :hours="hours"
        :classes="inUse"
        @done="finished"
      />
    </div>

    <CalendarElsewhere
      class="mt-8 max-w-[60rem]"
      :has-link="week.data.value?.hasLink"
      :time-zone="week.data.value?.timeZone"
      @done="finished"
    />
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
kbd {
  font-family: inherit;
  font-weight: 700;
}
@media (max-width: 700px) {
  .scale {
    display: none;
  }
}
</style>
