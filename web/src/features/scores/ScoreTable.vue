<script setup lang="ts">
import { useMediaQuery, useVirtualList } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Schemas } from '../../api/client'
import { shortDay } from '../../ui/format'
import { allColumns, useColumns, widths } from './columns'
import ScoreRow from './ScoreRow.vue'
import { isOfHours, type Cell, type Row } from './sheet'

/** Students by lessons. Arrows go from number to number, Enter opens one, with Shift beside what is open. */
const props = defineProps<{ sheet: Schemas['ScoreSheet']; rows: readonly Row[]; open: (cell: Cell) => boolean }>()
const emit = defineEmits<{ why: [cell: Cell, beside: boolean] }>()
const table = useTemplateRef<HTMLTableElement>('table')
const hours = computed(() => isOfHours(props.sheet))

// A large class scrolls in a frame of its own, in which only the rows that are seen are drawn.
const mostAtOnce = 60
const rowHeight = 27
const printed = useMediaQuery('print')
const framed = computed(() => props.rows.length > mostAtOnce && !printed.value)
const { list, containerProps, wrapperProps } = useVirtualList(
  computed(() => (framed.value ? [...props.rows] : [])),
  { itemHeight: rowHeight, overscan: 4 },
)
const drawn = computed(() => (framed.value ? list.value.map((l) => l.data) : props.rows))

const banded = computed(() => props.sheet.bands.length > 0 && !hours.value)
const lessons = computed(() => props.sheet.lessons.length)
const start = computed(
  () => widths.who + widths.term + (banded.value ? widths.band : 0) + (hours.value ? 0 : widths.trend),
)
const seen = useColumns(containerProps.ref, start, lessons)
const columns = computed(() => (framed.value ? seen.value : allColumns(lessons.value)))
const width = computed(() => start.value + lessons.value * widths.lesson + (hours.value ? 0 : widths.look))

const wide = (px: number) => (framed.value ? { width: `${px}px` } : {})

const steps: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
}

function key(event: KeyboardEvent) {
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
</script>

<template>
  <div
    v-bind="framed ? containerProps : {}"
    class="mt-3 overflow-x-auto"
    :class="{ 'score-frame': framed }"
    :tabindex="framed ? 0 : undefined"
    :role="framed ? 'region' : undefined"
    :aria-label="framed ? 'The sheet of scores' : undefined"
  >
    <div v-bind="framed ? wrapperProps : {}">
      <table
        ref="table"
        class="sheet-table grid-of-scores"
        :style="framed ? { tableLayout: 'fixed', width: `${width}px` } : {}"
        :aria-rowcount="rows.length + 1"
        @keydown="key"
      >
        <thead>
          <tr>
            <th class="who" :style="wide(widths.who)">Student</th>
            <th class="term" :style="wide(widths.term)">{{ hours ? 'Hours' : 'Term' }}</th>
            <th v-if="banded" class="band" :style="wide(widths.band)">Band</th>
            <th v-if="!hours" class="trend" :style="wide(widths.trend)"><span class="sr-only">How it went</span></th>
            <td v-if="columns.before" :style="wide(columns.before)" />
            <th
              v-for="lesson in sheet.lessons.slice(columns.from, columns.to)"
              :key="lesson.id"
              class="num"
              :style="wide(widths.lesson)"
              :title="lesson.title"
            >
              <span class="block">{{ lesson.number }}</span><span class="day text-ink-soft">{{
                shortDay(lesson.plannedStart)
              }}</span>
            </th>
            <td v-if="columns.after" :style="wide(columns.after)" />
            <th v-if="!hours" class="look" :style="wide(widths.look)">Needs a look</th>
          </tr>
        </thead>
        <tbody>
          <ScoreRow
            v-for="student in drawn"
            :key="student.id"
            :student="student"
            :sheet="sheet"
            :hours="hours"
            :columns="columns"
            :open="open"
            @why="(cell, beside) => emit('why', cell, beside)"
          />
        </tbody>
      </table>
    </div>
  </div>
  <p v-if="!hours" class="mt-2 text-small text-ink-soft">
    <sup>l</sup> came late, <sup>a</sup> absent without excuse, <i class="little">thin</i> rests on less than half of
    the scheme, <span class="byHand">underlined</span> put right by hand
  </p>
</template>

<style>
.score-frame {
  max-height: max(320px, calc(100vh - 290px));
  overflow: auto;
}
/* The head takes its place beside the rows, at the top of the frame and at its end. */
.score-frame > div {
  box-sizing: content-box;
  padding-bottom: 46px;
}
.score-frame thead th {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--paper);
}
.score-frame thead .who {
  z-index: 3;
}
.score-frame tbody tr {
  height: 27px;
}
.grid-of-scores sup::after {
  content: attr(data-status);
}
/* Lines that belong to their cells go with those that stay in view. */
.grid-of-scores {
  width: auto;
  border-collapse: separate;
  border-spacing: 0;
}
.grid-of-scores th,
.grid-of-scores td {
  padding-block: 0;
}
.grid-of-scores .num,
.grid-of-scores .term {
  padding-right: 4px !important;
  text-align: end !important;
}
.grid-of-scores .num {
  min-width: 36px;
}
.grid-of-scores .term {
  padding-right: 14px !important;
  font-weight: 700;
}
.grid-of-scores .band {
  white-space: nowrap;
}
.grid-of-scores .trend {
  padding-inline: 4px !important;
}
.grid-of-scores .look {
  padding-left: 14px !important;
  white-space: nowrap;
}
.grid-of-scores .who {
  position: sticky;
  left: 0;
  z-index: 1;
  background: var(--paper);
}
.grid-of-scores tbody .who {
  border-bottom: 1px solid var(--rule);
  font-size: var(--text-base) !important;
  white-space: nowrap;
  vertical-align: middle !important;
}
.grid-of-scores .cell {
  min-width: 34px;
  min-height: 25px;
  padding: 1px 4px;
  text-align: end;
}
.grid-of-scores .cell:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.grid-of-scores .cell[aria-pressed='true'] {
  background: var(--live);
  color: var(--on-live);
  font-weight: 700;
}
.grid-of-scores .word {
  font-size: var(--text-small);
  font-style: italic;
}
.grid-of-scores .little,
p > .little {
  font-weight: 300;
  font-style: italic;
  color: var(--ink-soft);
}
.grid-of-scores .byHand,
p > .byHand {
  border-bottom: 2px solid var(--pen-rubric);
}
.grid-of-scores .cell sup {
  position: static;
  display: inline-block;
  width: 0;
  font-size: 0.65em;
  font-weight: 700;
  line-height: 1;
  vertical-align: super;
}
.grid-of-scores .day {
  display: block;
  font-size: 0.6875rem;
  font-weight: 400;
  white-space: nowrap;
}
</style>
