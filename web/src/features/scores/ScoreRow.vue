<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import type { Columns } from './columns'
import ScoreTrend from './ScoreTrend.vue'
import { hoursOf, wordOf, type Cell, type Row } from './sheet'

/** A student of the sheet: the score over all lessons, how it went, and a number a lesson. */
const props = defineProps<{
  student: Row
  sheet: Schemas['ScoreSheet']
  hours: boolean
  columns: Columns
  open: (cell: Cell) => boolean
}>()
const emit = defineEmits<{ why: [cell: Cell, beside: boolean] }>()

const drawn = computed(() =>
  props.sheet.lessons
    .slice(props.columns.from, props.columns.to)
    .map((lesson, i) => ({ lesson, cell: props.student.cells[props.columns.from + i] })),
)
const name = () => `${props.student.called} ${props.student.rest}`
const spoken = (cell: Schemas['ScoredCell']) =>
  [cell.notes, cell.restsOnLittle ? 'rests on less than half of the scheme' : '', cell.corrected ?? '']
    .filter(Boolean)
    .join('; ')
const shown = (cell: Schemas['ScoredCell']) =>
  props.hours ? `${cell.minutes} min` : (cell.score?.toFixed(props.sheet.places) ?? wordOf(cell.status))
</script>

<template>
  <tr>
    <th scope="row" class="who">
      <b>{{ student.called }}</b> <span class="font-normal text-ink-soft">{{ student.rest }}</span>
    </th>
    <td class="term">
      <button
        class="cell"
        :aria-pressed="open({ student: student.id })"
        :aria-label="`Why ${student.term ?? 'no score'} over the term, ${name()}?`"
        @click="emit('why', { student: student.id }, $event.shiftKey)"
      >
        {{ hours ? hoursOf(student) : (student.term?.toFixed(sheet.places) ?? '–') }}
      </button>
    </td>
    <td v-if="sheet.bands.length && !hours" class="band text-small text-ink-soft">{{ student.band }}</td>
    <td v-if="!hours" class="trend text-ink-soft">
      <ScoreTrend :scores="student.cells.map((c) => c?.score ?? null)" />
    </td>
    <td v-if="columns.before" />
    <td v-for="{ lesson, cell } in drawn" :key="lesson.id" class="num">
      <button
        v-if="cell"
        class="cell"
        :class="{ word: cell.score === null, little: cell.restsOnLittle, byHand: cell.corrected }"
        :aria-pressed="open({ student: student.id, lesson: lesson.id })"
        :aria-label="`Why ${cell.score ?? wordOf(cell.status)} in lesson ${lesson.number}, ${name()}?${cell.corrected ? ' Put right by hand.' : ''}`"
        :title="spoken(cell)"
        @click="emit('why', { student: student.id, lesson: lesson.id }, $event.shiftKey)"
      >
        {{ shown(cell) }}<sup v-if="cell.status === 'absent' || cell.status === 'late'" :data-status="cell.status[0]" />
      </button>
    </td>
    <td v-if="columns.after" />
    <td v-if="!hours" class="look text-small text-ink-soft">{{ student.needsLook.join('; ') }}</td>
  </tr>
</template>
