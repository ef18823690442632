<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import type { Schemas } from '../../api/client'
import { shortDay } from '../../ui/format'
import ScoreTrend from './ScoreTrend.vue'
import { hoursOf, isOfHours, type Row } from './sheet'

/** Students by lessons. Arrows go from number to number, Enter opens one, Escape puts it away. */
const props = defineProps<{
  sheet: Schemas['ScoreSheet']
  rows: readonly Row[]
  open: { student?: string | undefined; lesson?: string | undefined }
}>()
const emit = defineEmits<{ why: [student: string, lesson?: string]; close: [] }>()
const table = useTemplateRef<HTMLTableElement>('table')
const hours = computed(() => isOfHours(props.sheet))
const isOpen = (student: string, lesson?: string) => props.open.student === student && props.open.lesson === lesson
const words: Record<string, string> = {
  present: 'no score',
  late: 'no score',
  absent: 'absent',
  excused: 'excused',
  didNotCome: 'did not come',
}
const steps: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
}

function key(event: KeyboardEvent) {
  if (event.key === 'Escape') return emit('close')
  const step = steps[event.key]
  const cell = (event.target as HTMLElement).closest('td')
  if (!step || !cell) return
  event.preventDefault()
  const lines = [...table.value!.tBodies[0]!.rows]
  let [y, x] = [lines.indexOf(cell.parentElement as HTMLTableRowElement), cell.cellIndex]
  // Over what has no number to the next that has one.
  do {
    y += step[0]
    x += step[1]
    const button = lines[y]?.cells[x]?.querySelector('button')
    if (button) return button.focus()
  } while (lines[y]?.cells[x])
}

const spoken = (row: Row, i: number) => {
  const cell = row.cells[i]!
  const about = [cell.notes, cell.restsOnLittle ? 'rests on less than half of the scheme' : '', cell.corrected ?? '']
  return about.filter(Boolean).join('; ')
}
</script>

<template>
  <div class="mt-3 overflow-x-auto">
    <table ref="table" class="sheet-table grid-of-scores" @keydown="key">
      <thead>
        <tr>
          <th>Student</th>
          <th class="term">{{ hours ? 'Hours' : 'Term' }}</th>
          <th v-if="sheet.bands.length && !hours" class="band">Band</th>
          <th v-if="!hours" class="trend"><span class="sr-only">How it went</span></th>
          <th v-for="lesson in sheet.lessons" :key="lesson.id" class="num" :title="lesson.title">
            <span class="block">{{ lesson.number }}</span><span class="day text-ink-soft">{{
              shortDay(lesson.plannedStart)
            }}</span>
          </th>
          <th v-if="!hours" class="look">Needs a look</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="student in rows" :key="student.id">
          <th scope="row" class="who">
            <b>{{ student.called }}</b> <span class="font-normal text-ink-soft">{{ student.rest }}</span>
          </th>
          <td class="term">
            <button
              class="cell"
              :aria-pressed="isOpen(student.id)"
              :aria-label="`Why ${student.term ?? 'no score'} over the term, ${student.called} ${student.rest}?`"
              @click="emit('why', student.id)"
            >
              {{ hours ? hoursOf(student) : (student.term?.toFixed(sheet.places) ?? '–') }}
            </button>
          </td>
          <td v-if="sheet.bands.length && !hours" class="band text-small text-ink-soft">{{ student.band }}</td>
          <td v-if="!hours" class="trend text-ink-soft">
            <ScoreTrend :scores="student.cells.map((c) => c?.score ?? null)" />
          </td>
          <td v-for="(cell, i) in student.cells" :key="i" class="num">
            <button
              v-if="cell"
              class="cell"
              :class="{ word: cell.score === null, little: cell.restsOnLittle, byHand: cell.corrected }"
              :aria-pressed="isOpen(student.id, sheet.lessons[i]!.id)"
              :aria-label="`Why ${cell.score ?? words[cell.status]} in lesson ${sheet.lessons[i]!.number}, ${student.called} ${student.rest}?${cell.corrected ? ' Put right by hand.' : ''}`"
              :title="spoken(student, i)"
              @click="emit('why', student.id, sheet.lessons[i]!.id)"
            >
              {{ hours ? `${cell.minutes} min` : (cell.score?.toFixed(sheet.places) ?? words[cell.status])
              }}<sup v-if="cell.status === 'absent' || cell.status === 'late'" :data-status="cell.status[0]" />
            </button>
          </td>
          <td v-if="!hours" class="look text-small text-ink-soft">{{ student.needsLook.join('; ') }}</td>
        </tr>
      </tbody>
    </table>
  </div>
  <p v-if="!hours" class="mt-2 text-small text-ink-soft">
    <sup>l</sup> came late, <sup>a</sup> absent without excuse, <i class="cell little !min-w-0">thin</i> rests on less
    than half of the scheme, <span class="cell byHand !min-w-0">underlined</span> put right by hand
  </p>
</template>

<style scoped>
sup::after {
  content: attr(data-status);
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
.band {
  white-space: nowrap;
}
.trend {
  padding-inline: 4px !important;
}
.look {
  padding-left: 14px !important;
  white-space: nowrap;
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
.little {
  font-weight: 300;
  font-style: italic;
  color: var(--ink-soft);
}
.byHand {
  border-bottom: 2px solid var(--pen-rubric);
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
</style>
