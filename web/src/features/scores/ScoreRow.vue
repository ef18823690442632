<script setup lang="ts">
import type { Schemas } from '../../api/client'
import ScoreTrend from './ScoreTrend.vue'
import { hoursOf, wordOf, type Cell, type Row } from './sheet'

/** A student of the sheet: the score over all lessons, how it went, and a number a lesson. */
const props = defineProps<{
  student: Row
  sheet: Schemas['ScoreSheet']
  hours: boolean
  open: (cell: Cell) => boolean
}>()
const emit = defineEmits<{ why: [cell: Cell, beside: boolean] }>()

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
    <td v-for="(cell, i) in student.cells" :key="i" class="num">
      <button
        v-if="cell"
        class="cell"
        :class="{ word: cell.score === null, little: cell.restsOnLittle, byHand: cell.corrected }"
        :aria-pressed="open({ student: student.id, lesson: sheet.lessons[i]!.id })"
        :aria-label="`Why ${cell.score ?? wordOf(cell.status)} in lesson ${sheet.lessons[i]!.number}, ${name()}?${cell.corrected ? ' Put right by hand.' : ''}`"
        :title="spoken(cell)"
        @click="emit('why', { student: student.id, lesson: sheet.lessons[i]!.id }, $event.shiftKey)"
      >
        {{ shown(cell) }}<sup v-if="cell.status === 'absent' || cell.status === 'late'" :data-status="cell.status[0]" />
      </button>
    </td>
    <td v-if="!hours" class="look text-small text-ink-soft">{{ student.needsLook.join('; ') }}</td>
  </tr>
</template>
