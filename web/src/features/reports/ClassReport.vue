<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { count, longDay, shortDay } from '../../ui/format'
import ClassTabs from '../../ui/ClassTabs.vue'
import EmptyState from '../../ui/EmptyState.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import PresenceRibbon from '../../ui/PresenceRibbon.vue'
import StatusMark from '../../ui/StatusMark.vue'
import ReportTabs from './ReportTabs.vue'
import { inked } from '../../ui/strokes'
import TallyStrokes from '../../ui/TallyStrokes.vue'

const props = defineProps<{ id: string }>()
const query = useQuery({
  queryKey: ['report', props.id],
  queryFn: () => ask(api.GET('/api/classes/{id}/report', { params: { path: { id: props.id } } })),
})
const report = computed(() => query.data.value)
const percent = (share: number) => `${Math.round(share * 100)}\u00a0%`
const unheard = computed(() => report.value?.students.filter((s) => s.turns === 0 && s.present + s.late > 0) ?? [])
const attended = computed(() => {
  const t = report.value?.totals
  const all = t ? t.present + t.late + t.absent : 0
  return t && all > 0 ? (t.present + t.late) / all : null
})

const outOf = (part: number, whole: number) => `${part}\u00a0of\u00a0${whole}`
function there(row: Schemas['ReportRow']) {
  const parts = [outOf(row.present + row.late, row.present + row.late + row.absent)]
  if (row.late) parts.push(`${row.late} late`)
  if (row.excused) parts.push(`${row.excused} excused`)
  return parts.join(', ')
}
const asked = computed(() => report.value?.students.some((s) => s.asked) ?? false)
const inGroups = computed(() => report.value?.students.some((s) => s.groupSeen) ?? false)
const answered = (row: Schemas['ReportRow']) => (row.asked ? outOf(row.answered, row.asked) : '')
const together = (row: Schemas['ReportRow']) => (row.groupSeen ? outOf(row.groupCredits, row.groupSeen) : '')
const label = (cell: Schemas['ReportCell'], i: number) =>
  `lesson ${report.value!.lessons[i]!.number}: ${cell.status}${cell.notes ? `, ${cell.notes}` : ''}`
/** The day of a lesson; its month stands only where it begins. */
function dayOf(at: number) {
  const day = (i: number) => shortDay(report.value!.lessons[i]!.plannedStart).split(' ')
  return at > 0 && day(at - 1)[1] === day(at)[1] ? day(at)[0] : day(at).join('\u00a0')
}
const print = () => window.print()
</script>

<template>
  <Page>
    <template #above><ClassTabs :id="id" :name="report?.className" /><ReportTabs :id="id" /></template>
    <Notice v-if="query.error.value" tone="wrong">{{ query.error.value.message }}</Notice>
    <EmptyState v-if="report && !report.lessons.length" title="Nothing to report yet">
      A report is made from settled lessons. Confirm a register, and it begins.
      <template #act
        ><RouterLink class="press-first inline-block" :to="`/classes/${id}`">To the lessons</RouterLink></template
      >
    </EmptyState>
    <template v-else-if="report">
      <div class="flex flex-wrap items-end justify-between gap-4">
        <div>
          <p class="hidden text-lead font-bold print:block">{{ report.className }}</p>
          <h1 class="text-title font-bold">The class so far</h1>
          <p class="mt-1 max-w-[46rem] text-lead">
            {{ count(report.totals.settled, 'lesson') }} from {{ longDay(report.lessons[0]!.plannedStart) }} to
            {{ longDay(report.lessons.at(-1)!.plannedStart) }}.
            <template v-if="attended !== null"
              >Students were there for <span class="marked">{{ percent(attended) }}</span> of what they were not excused
              from.
            </template>
            <template v-if="report.totals.heardShare !== null">
              <span class="marked">{{ percent(report.totals.heardShare) }}</span> of them have spoken<template
                v-if="unheard.length && unheard.length <= 4"
                >, all but {{ unheard.map((s) => s.called).join(', ') }}</template
              >; {{ report.totals.mostHeard }} held {{ percent(report.totals.mostHeardShare!) }} of all
              {{ count(report.totals.turns, 'turn') }}.
            </template>
          </p>
        </div>
        <p class="no-print flex gap-5">
          <button class="press" @click="print">Print</button>
          <a class="press" :href="`/api/classes/${id}/report.csv`" download>Take as CSV</a>
        </p>
      </div>

      <div class="mt-5 overflow-x-auto print:overflow-visible">
        <table class="sheet-table report">
          <thead>
            <tr>
              <th>Student</th>
              <th v-for="(lesson, i) in report.lessons" :key="lesson.id" class="lesson" :title="lesson.title">
                {{ lesson.number }}<span class="day text-ink-soft">{{ dayOf(i) }}</span>
              </th>
              <th>There</th>
              <th class="text-pen-speaking">Speaking</th>
              <th v-if="asked" class="text-pen-questions">Questions</th>
              <th class="text-pen-chat">Chat</th>
              <th v-if="inGroups" class="text-pen-group">Groups</th>
              <th class="text-pen-nods">Nods</th>
              <th class="score">Score</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in report.students" :key="row.id">
              <th scope="row" class="who">
                <b>{{ row.called }}</b> <span class="font-normal text-ink-soft">{{ row.rest }}</span>
              </th>
              <td v-for="(cell, i) in row.cells" :key="i" class="lesson">
                <template v-if="cell">
                  <span
                    v-if="cell.status === 'absent' || cell.status === 'excused'"
                    class="flex items-center gap-1 text-small"
                    ><StatusMark :status="cell.status" /><i>{{ cell.status === 'absent' ? 'abs' : 'exc' }}</i></span
                  >
                  <PresenceRibbon v-else :stretches="cell.stretches" :spoke="cell.spoke" :label="label(cell, i)" />
                </template>
              </td>
              <td class="there text-small">{{ there(row) }}</td>
              <td>
                <TallyStrokes
                  :strokes="inked(row.id, row.fullTurns, row.partialTurns)"
                  pen="speaking"
                  :height="11"
                  :label="`${row.fullTurns} full and ${row.partialTurns} partial turns`"
                />
              </td>
              <td v-if="asked" class="there text-small">{{ answered(row) }}</td>
              <td>
                <TallyStrokes
                  :strokes="inked(row.id, row.chat)"
                  pen="chat"
                  :height="11"
                  :label="count(row.chat, 'contribution')"
                />
              </td>
              <td v-if="inGroups" class="there text-small">{{ together(row) }}</td>
              <td>
                <TallyStrokes
                  :strokes="inked(row.id, row.nods)"
                  pen="nods"
                  :height="11"
                  :label="count(row.nods, 'nod')"
                />
              </td>
              <td class="score">
                <RouterLink
                  :to="{ name: 'scores', params: { id }, query: { student: row.id } }"
                  class="hover:underline"
                  >{{ row.term ?? '–' }}</RouterLink
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="mt-3 text-small text-ink-soft">
        A line is the lesson: solid while there, a cap where they came late, left or dropped out, a dot where they
        spoke. Strokes in fives; a short stroke is a partial turn. The score is of what each had a chance to do; every
        one opens into its reasons.
      </p>
    </template>
  </Page>
</template>

<style scoped>
.report td,
.report th {
  padding-block: 2px;
}
.who {
  border-bottom: 1px solid var(--rule) !important;
  font-size: var(--text-base) !important;
  white-space: nowrap;
  vertical-align: middle !important;
}
.lesson {
  width: 32px;
  min-width: 31px;
  padding-right: 4px !important;
}
.day {
  display: block;
  font-size: 0.6875rem;
  font-weight: 400;
  white-space: nowrap;
}
/* Whoever has very many strokes has them a little smaller, so that the score stays in sight. */
.report :deep(.tally) {
  max-width: 112px;
}
.there {
  min-width: 62px;
  line-height: 1.15;
}
.score {
  padding-right: 0 !important;
  text-align: end !important;
  font-weight: 700;
}
@media print {
  .report td,
  .report th {
    padding-block: 1px;
    padding-right: 6px;
  }
}
</style>
