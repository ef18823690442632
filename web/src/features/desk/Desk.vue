<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask } from '../../api/client'
import { count, hour, isoDay, longDay, weekDay } from '../../ui/format'
import { dueIn } from '../../ui/due'
import EmptyState from '../../ui/EmptyState.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import UndoNote from '../../ui/UndoNote.vue'
import NewClass from '../classes/NewClass.vue'
import { stageOf, wayTo } from '../lessons/lessons'
import ObjectionText from '../objections/ObjectionText.vue'
import { useAnswering } from '../objections/answering'
import NextLesson from './NextLesson.vue'

const desk = useQuery({ queryKey: ['desk'], queryFn: () => ask(api.GET('/api/desk')), refetchInterval: 30_000 })
const day = computed(() => (desk.data.value ? longDay(desk.data.value.now) : ''))
const next = computed(
  () =>
    desk.data.value?.today.find((l) => l.stage === 'live') ??
    desk.data.value?.today.find((l) => l.stage === 'planned' && !l.cancelled && l.plannedEnd > desk.data.value!.now),
)
const rulesLost = computed(() => desk.data.value?.classes.filter((c) => c.rulesLost) ?? [])
const waiting = computed(
  () =>
    (desk.data.value?.toSettle.length ?? 0) +
    (desk.data.value?.notHandedIn.length ?? 0) +
    (desk.data.value?.notReady.length ?? 0) +
    (desk.data.value?.wordsNotSent.length ?? 0) +
    (desk.data.value?.objections.length ?? 0) +
    rulesLost.value.length,
)

const { done: answered, problem, answer } = useAnswering()
const handedIn = ref('')
async function handInDay() {
  handedIn.value = 'The registers are handed in…'
  const query = { day: isoDay(desk.data.value!.now) }
  try {
    const registers = await ask(api.POST('/api/registers', { params: { query } }))
    const taken = registers.filter((r) => r.state === 'taken').length
    const others = registers
      .filter((r) => r.state !== 'taken')
      .map((r) => `${r.lesson.title}: ${r.said || 'on its way'}`)
    handedIn.value = [`${count(taken, 'register')} handed in.`, ...others].join(' ')
  } catch (failure) {
    handedIn.value = (failure as Error).message
  }
  await desk.refetch()
}
</script>

<template>
  <Page :title="day">
    <Notice v-if="desk.error.value" tone="wrong">{{ desk.error.value.message }}</Notice>
    <p v-else-if="!desk.data.value" class="text-ink-soft">Laying out the day…</p>
    <template v-else>
      <NextLesson v-if="next" class="mt-2" :lesson="next" :now="desk.data.value.now" />
      <EmptyState v-if="desk.data.value.classes.length === 0" class="mt-6" title="No class yet">
        Name one and bring in its roster; then a lesson starts with one press, or plan the weeks to come.
        <template #act><NewClass first /></template>
      </EmptyState>

      <div v-else class="desk">
        <section aria-labelledby="today">
          <div class="rule-head">
            <h2 id="today">Today</h2>
            <span class="flex gap-5 text-small font-normal">
              <a
                v-if="desk.data.value.today.some((l) => l.stage === 'settled' && !l.dropIn)"
                class="quiet"
                :href="`/api/registers.csv?day=${isoDay(desk.data.value.now)}`"
                download
                >registers of today as a file</a
              >
              <button v-if="desk.data.value.confirmed" class="quiet" @click="handInDay">
                hand in {{ count(desk.data.value.confirmed, 'register') }} of today
              </button>
              <RouterLink class="quiet" to="/calendar">The week</RouterLink>
            </span>
          </div>
          <p v-if="handedIn" role="status" class="py-1 text-small">{{ handedIn }}</p>
          <ol>
            <li v-for="lesson in desk.data.value.today" :key="lesson.id" class="rule-line">
              <span class="when">{{ hour(lesson.plannedStart) }}</span>
              <RouterLink class="what" :class="{ 'line-through': lesson.cancelled }" :to="wayTo(lesson)">
                <b>{{ lesson.title }}</b><span class="ml-2 text-ink-soft"
                  >{{ lesson.className }}{{ lesson.number ? `, lesson ${lesson.number}` : '' }}</span
                >
              </RouterLink>
              <a
                v-if="lesson.meetingLink && lesson.stage === 'planned' && !lesson.cancelled"
                class="quiet text-small"
                :href="lesson.meetingLink"
                target="_blank"
                rel="noopener noreferrer"
                :aria-label="`Open the meeting of ${lesson.title}`"
                >meeting</a
              >
              <span :class="lesson.stage === 'live' ? 'marked' : 'text-ink-soft'">{{ stageOf(lesson) }}</span>
            </li>
            <li v-if="!desk.data.value.today.length" class="rule-line text-ink-soft">Nothing is planned for today.</li>
          </ol>

          <h2 class="rule-head mt-8">Coming</h2>
          <ol>
            <li v-for="lesson in desk.data.value.coming" :key="lesson.id" class="rule-line">
              <span class="when">{{ weekDay(lesson.plannedStart) }}</span>
              <RouterLink class="what" :to="`/lessons/${lesson.id}/plan`"
                ><b>{{ lesson.title }}</b
                ><span class="ml-2 text-ink-soft">{{ lesson.className }}, lesson {{ lesson.number }}</span></RouterLink
              >
              <i v-if="!lesson.prepared" class="text-small text-ink-soft">nothing prepared</i>
              <span class="text-ink-soft">{{ hour(lesson.plannedStart) }}</span>
            </li>
            <li v-if="!desk.data.value.coming.length" class="rule-line text-ink-soft">
              Nothing is planned after today. A class takes weekly lessons, or a calendar file.
            </li>
          </ol>
        </section>

        <section aria-labelledby="waits">
          <h2 id="waits" class="rule-head">Waits on you</h2>
          <Notice v-if="problem" tone="wrong">{{ problem }}</Notice>
          <UndoNote v-model="answered" />
          <ol>
            <li v-for="c in rulesLost" :key="`rules${c.id}`" class="rule-line">
              <RouterLink class="what" :to="`/classes/${c.id}/rules`">
                <b>Ground rules of {{ c.name }}</b
                ><span class="block text-small text-ink-soft"
                  >The stored rules cannot be read, and the usual ones count meanwhile. Look at them and store them
                  again.</span
                >
              </RouterLink>
              <span class="shrink-0 text-ink-soft">to put right</span>
            </li>
            <li v-for="o in desk.data.value.objections" :key="o.id" class="rule-line !block">
              <b>{{ o.called }} thinks that a score is wrong</b
              ><span class="ml-2 text-ink-soft">{{ o.lesson.className }}, lesson {{ o.lesson.number }}</span>
              <ObjectionText :objection="o" @answer="(text) => answer(o, text)">
                <RouterLink
                  class="quiet"
                  :to="`/classes/${o.lesson.classId}/scores?student=${o.student}&lesson=${o.lesson.id}`"
                  >look at the score, and put it right</RouterLink
                >
              </ObjectionText>
            </li>
            <li v-for="{ lesson, dueAt } in desk.data.value.toSettle" :key="lesson.id" class="rule-line">
              <RouterLink class="what" :to="`/lessons/${lesson.id}/settle`">
                <b>Register of {{ weekDay(lesson.plannedStart) }}</b
                ><span class="ml-2 text-ink-soft">{{ lesson.className }}, lesson {{ lesson.number }}</span>
              </RouterLink>
              <span class="shrink-0" :class="dueAt && dueAt <= desk.data.value.now ? 'marked' : 'text-ink-soft'">{{
                dueAt ? dueIn(dueAt, desk.data.value.now) : 'to settle'
              }}</span>
            </li>
            <li v-for="late in desk.data.value.notHandedIn" :key="`h${late.lesson.id}`" class="rule-line">
              <RouterLink class="what" :to="`/lessons/${late.lesson.id}/settle`">
                <b>Register of {{ weekDay(late.lesson.plannedStart) }}</b
                ><span class="block text-small text-ink-soft">{{ late.said || 'It is on its way.' }}</span>
              </RouterLink>
              <span class="shrink-0" :class="late.state === 'refused' ? 'marked' : 'text-ink-soft'">{{
                late.state === 'refused' ? 'not taken' : late.state === 'inDoubt' ? 'in doubt' : 'not there yet'
              }}</span>
            </li>
            <li v-for="word in desk.data.value.wordsNotSent" :key="`w${word.lesson.id}`" class="rule-line">
              <RouterLink class="what" :to="`/lessons/${word.lesson.id}/plan`">
                <b>Word ahead of {{ word.lesson.title }}</b
                ><span class="block text-small text-ink-soft">{{ word.why }}</span>
              </RouterLink>
              <span class="shrink-0 text-ink-soft">not sent</span>
            </li>
            <li v-for="late in desk.data.value.notReady" :key="`r${late.lesson.id}`" class="rule-line">
              <RouterLink class="what" :to="`/lessons/${late.lesson.id}/plan`">
                <b>{{ late.lesson.title }}, {{ weekDay(late.lesson.plannedStart) }}</b
                ><span class="block text-small text-ink-soft"
                  >{{ late.first }}{{ late.missing > 1 ? ` And ${late.missing - 1} more.` : '' }}</span
                >
              </RouterLink>
              <span class="shrink-0 text-ink-soft">to prepare</span>
            </li>
            <li v-if="!waiting" class="rule-line text-ink-soft">
              Nothing: every register is in, and what comes is ready.
            </li>
          </ol>

          <h2 class="rule-head mt-8">Classes</h2>
          <ol>
            <li v-for="c in desk.data.value.classes" :key="c.id" class="rule-line">
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
