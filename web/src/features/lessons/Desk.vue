<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { count, hour, longDay, weekDay } from '../../ui/format'
import EmptyState from '../../ui/EmptyState.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'

const desk = useQuery({ queryKey: ['desk'], queryFn: () => ask(api.GET('/api/desk')), refetchInterval: 30_000 })
const day = computed(() => (desk.data.value ? longDay(desk.data.value.now) : ''))
const live = computed(() => desk.data.value?.today.find((l) => l.stage === 'live'))
const next = computed(() => live.value ?? desk.data.value?.today.find((l) => l.stage === 'planned'))
const stages: Record<Schemas['LessonStage'], string> = {
  planned: 'planned',
  live: 'live now',
  ended: 'to settle',
  settled: 'settled',
}
const wayTo = (lesson: Schemas['LessonLine']) =>
  lesson.stage === 'ended' || lesson.stage === 'settled' ? `/lessons/${lesson.id}/settle` : `/lessons/${lesson.id}/live`
</script>

<template>
  <Page :title="day">
    <Notice v-if="desk.error.value" tone="wrong">{{ desk.error.value.message }}</Notice>
    <p v-else-if="!desk.data.value" class="text-ink-soft">Laying out the day…</p>
    <template v-else>
      <p v-if="next" class="mt-2 text-lead">
        <template v-if="live"
          >Lesson {{ live.number }} of {{ live.className }} is <span class="marked">live now</span>.</template
        >
        <template v-else
          >Next, at {{ hour(next.plannedStart) }}: lesson {{ next.number }} of {{ next.className }}.</template
        >
        <RouterLink class="press-first ml-3 inline-block" :to="`/lessons/${next.id}/live`">{{
          live ? 'Go to it' : 'Open it'
        }}</RouterLink>
      </p>
      <EmptyState v-if="desk.data.value.classes.length === 0" class="mt-6" title="No class yet">
        Make a class and bring in its roster; then a lesson starts with one press.
        <template #act><RouterLink class="press-first inline-block" to="/classes">Make a class</RouterLink></template>
      </EmptyState>

      <div v-else class="desk">
        <section aria-labelledby="today">
          <h2 id="today" class="head">Today</h2>
          <ol>
            <li v-for="lesson in desk.data.value.today" :key="lesson.id" class="line">
              <span class="when">{{ hour(lesson.plannedStart) }}</span>
              <RouterLink class="what" :to="wayTo(lesson)">
                <b>{{ lesson.title }}</b><span class="ml-2 text-ink-soft"
                  >{{ lesson.className }}, lesson {{ lesson.number }}</span
                >
              </RouterLink>
              <span :class="lesson.stage === 'live' ? 'marked' : 'text-ink-soft'">{{ stages[lesson.stage] }}</span>
            </li>
            <li v-if="!desk.data.value.today.length" class="line text-ink-soft">Nothing is planned for today.</li>
          </ol>

          <h2 class="head mt-8">Coming</h2>
          <ol>
            <li v-for="lesson in desk.data.value.coming" :key="lesson.id" class="line">
              <span class="when">{{ weekDay(lesson.plannedStart) }}</span>
              <span class="what"
                ><b>{{ lesson.title }}</b
                ><span class="ml-2 text-ink-soft">{{ lesson.className }}, lesson {{ lesson.number }}</span></span
              >
              <span class="text-ink-soft">{{ hour(lesson.plannedStart) }}</span>
            </li>
            <li v-if="!desk.data.value.coming.length" class="line text-ink-soft">Nothing is planned after today.</li>
          </ol>
        </section>

        <section aria-labelledby="waits">
          <h2 id="waits" class="head">Waits on you</h2>
          <ol>
            <li v-for="lesson in desk.data.value.toSettle" :key="lesson.id" class="line">
              <RouterLink class="what" :to="`/lessons/${lesson.id}/settle`">
                <b>Register of {{ weekDay(lesson.plannedStart) }}</b
                ><span class="ml-2 text-ink-soft">{{ lesson.className }}, lesson {{ lesson.number }}</span>
              </RouterLink>
              <span class="text-ink-soft">to settle</span>
            </li>
            <li v-if="!desk.data.value.toSettle.length" class="line text-ink-soft">Nothing: every register is in.</li>
          </ol>

          <h2 class="head mt-8">Classes</h2>
          <ol>
            <li v-for="c in desk.data.value.classes" :key="c.id" class="line">
              <RouterLink class="what" :to="`/classes/${c.id}`"
                ><b>{{ c.name }}</b></RouterLink
              >
              <span class="text-ink-soft">{{ count(c.students, 'student') }}, {{ c.settled }} settled</span>
            </li>
          </ol>
        </section>
      </div>
    </template>
  </Page>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: 3fr 2fr;
  gap: 40px;
  margin-top: 28px;
  max-width: 1120px;
}
.head {
  border-bottom: 1.5px solid var(--ink);
  padding-bottom: 3px;
  font-weight: 650;
}
.line {
  display: flex;
  align-items: baseline;
  gap: 14px;
  border-bottom: 1px solid var(--rule);
  padding: 7px 0 6px;
}
.when {
  flex: none;
  width: 92px;
  font-weight: 600;
}
.what {
  flex: 1;
  min-width: 0;
}
a.what:hover b {
  text-decoration: underline;
  text-underline-offset: 4px;
}
@media (max-width: 860px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
