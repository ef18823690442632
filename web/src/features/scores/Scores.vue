<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask } from '../../api/client'
import { count, shortDay } from '../../ui/format'
import ClassTabs from '../../ui/ClassTabs.vue'
import EmptyState from '../../ui/EmptyState.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import WhyLesson from './WhyLesson.vue'
import WhyTerm from './WhyTerm.vue'

const props = defineProps<{ id: string }>()
const route = useRoute()
const router = useRouter()
const scores = useQuery({
  queryKey: ['scores', props.id],
  queryFn: () => ask(api.GET('/api/classes/{id}/scores', { params: { path: { id: props.id } } })),
})
const sheet = computed(() => scores.data.value)
const open = computed(() => ({
  student: route.query.student as string | undefined,
  lesson: route.query.lesson as string | undefined,
}))
const isOpen = (student: string, lesson?: string) => open.value.student === student && open.value.lesson === lesson
const why = (student: string, lesson?: string) =>
  router.replace({ query: isOpen(student, lesson) ? {} : { student, ...(lesson ? { lesson } : {}) } })
const words: Record<string, string> = {
  present: 'no score',
  late: 'no score',
  absent: 'absent',
  excused: 'excused',
  didNotCome: 'did not come',
}
</script>

<template>
  <Page>
    <template #above><ClassTabs :id="id" :name="sheet?.className" /></template>
    <Notice v-if="scores.error.value" tone="wrong">{{ scores.error.value.message }}</Notice>
    <EmptyState v-if="sheet && !sheet.lessons.length" title="No lesson is settled yet">
      Scores come from settled lessons: teach one, end it, confirm its register.
      <template #act
        ><RouterLink class="press-first inline-block" :to="`/classes/${id}`">To the lessons</RouterLink></template
      >
    </EmptyState>
    <div v-else-if="sheet" class="split" :class="{ opened: open.student }">
      <section class="min-w-0">
        <h1 class="text-head font-bold">Scores, {{ count(sheet.lessons.length, 'settled lesson') }}</h1>
        <p class="text-ink-soft">
          From 0 to 100, of what each student had a chance to do. Press any number for the reason.
        </p>
        <div class="mt-3 overflow-x-auto">
          <table class="sheet-table grid-of-scores">
            <thead>
              <tr>
                <th>Student</th>
                <th class="term">Term</th>
                <th v-for="lesson in sheet.lessons" :key="lesson.id" class="num" :title="lesson.title">
                  <span class="block">{{ lesson.number }}</span><span class="day text-ink-soft">{{
                    shortDay(lesson.plannedStart)
                  }}</span>
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="student in sheet.students" :key="student.id">
                <th scope="row" class="who">
                  <b>{{ student.called }}</b> <span class="font-normal text-ink-soft">{{ student.rest }}</span>
                </th>
                <td class="term">
                  <button
                    class="cell"
                    :aria-pressed="isOpen(student.id)"
                    :aria-label="`Why ${student.term ?? 'no score'} over the term, ${student.called} ${student.rest}?`"
                    @click="why(student.id)"
                  >
                    {{ student.term ?? '–' }}
                  </button>
                </td>
                <td v-for="(cell, i) in student.cells" :key="i" class="num">
                  <button
                    v-if="cell"
                    class="cell"
                    :class="{ word: cell.score === null }"
                    :aria-pressed="isOpen(student.id, sheet.lessons[i]!.id)"
                    :aria-label="`Why ${cell.score ?? words[cell.status]} in lesson ${sheet.lessons[i]!.number}, ${student.called} ${student.rest}?`"
                    :title="cell.notes"
                    @click="why(student.id, sheet.lessons[i]!.id)"
                  >
                    {{ cell.score ?? words[cell.status]
                    }}<sup v-if="cell.status === 'absent' || cell.status === 'late'" :data-status="cell.status[0]" />
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="mt-2 text-small text-ink-soft"><sup>l</sup> came late, <sup>a</sup> absent without excuse</p>
      </section>
      <aside v-if="open.student" class="why" aria-live="polite">
        <button class="quiet float-end text-small" @click="router.replace({ query: {} })">put away</button>
        <WhyLesson v-if="open.lesson" :key="open.lesson + open.student" :lesson="open.lesson" :student="open.student" />
        <WhyTerm v-else :key="open.student" :class-id="id" :student="open.student" />
      </aside>
    </div>
  </Page>
</template>

<style scoped>
sup::after {
  content: attr(data-status);
}
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 26px;
}
.split.opened {
  grid-template-columns: minmax(0, 1fr) 430px;
}
.why {
  border-left: 1px solid var(--ink-soft);
  padding-left: 22px;
}
.grid-of-scores {
  width: auto;
}
.grid-of-scores th,
.grid-of-scores td {
  padding-block: 0;
}
.num,
.term {
  padding-right: 4px !important;
  text-align: end !important;
}
.num {
  min-width: 36px;
}
.term {
  padding-right: 14px !important;
  font-weight: 700;
}
.who {
  position: sticky;
  left: 0;
  background: var(--paper);
  box-shadow: inset 0 -1px 0 var(--rule);
  border-bottom: 0 !important;
  font-size: var(--text-base) !important;
  white-space: nowrap;
  vertical-align: middle !important;
}
.cell {
  position: relative;
  min-width: 34px;
  min-height: 25px;
  padding: 1px 4px;
  text-align: end;
}
.cell:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.cell[aria-pressed='true'] {
  background: var(--live);
  color: var(--on-live);
  font-weight: 700;
}
.word {
  font-size: var(--text-small);
  font-style: italic;
}
.cell sup {
  position: absolute;
  top: 0;
  right: -3px;
  font-size: 0.65em;
  font-weight: 700;
  line-height: 1.6;
}
.day {
  display: block;
  font-size: 0.6875rem;
  font-weight: 400;
  white-space: nowrap;
}
.opened .day {
  display: none;
}
@media (max-width: 1000px) {
  .split.opened {
    grid-template-columns: 1fr;
  }
  .why {
    border-left: 0;
    padding: 0;
    order: -1;
  }
}
</style>
