<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { placeOf } from './kinds'

/** Figures as a table; a row that rests on more opens to it. */
const props = defineProps<{ figures: Schemas['Figures']; classId: string }>()
const ofNumbers = (column: number) => props.figures.rows.some((r) => r.cells[column]?.number != null)
</script>

<template>
  <div class="overflow-x-auto" tabindex="0" role="group" :aria-label="figures.name">
    <table class="sheet-table figures">
      <caption class="sr-only">
        {{
          figures.name
        }}
      </caption>
      <thead>
        <tr>
          <th v-for="(h, i) in figures.headings" :key="i" scope="col" :class="{ number: ofNumbers(i) }">{{ h }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, r) in figures.rows" :key="r">
          <td v-for="(cell, i) in row.cells" :key="i" :class="{ number: ofNumbers(i), short: cell.text.length < 12 }">
            <RouterLink v-if="i === 0 && row.opens" class="why" :to="placeOf(classId, row.opens)"
              ><bdi>{{ cell.text }}</bdi></RouterLink
            >
            <bdi v-else>{{ cell.text }}</bdi>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.figures {
  width: auto;
  min-width: 40%;
}
.figures td,
.figures th {
  padding-block: 3px;
}
.number {
  text-align: end !important;
}
.short {
  white-space: nowrap;
}
.why {
  text-decoration: underline;
  text-decoration-color: var(--rule);
  text-underline-offset: 3px;
}
.why:hover {
  text-decoration-color: var(--ink);
}
</style>
