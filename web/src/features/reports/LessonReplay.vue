<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, ask } from '../../api/client'
import { clock, count, hour } from '../../ui/format'
import { inked } from '../../ui/strokes'
import TallyStrokes from '../../ui/TallyStrokes.vue'

/** The sheet of a lesson as it stood at any minute of it. */
const props = defineProps<{ lesson: string; minute?: number | undefined }>()
const at = ref<number>()
const asked = refDebounced(at, 80)
const replay = useQuery({
  queryKey: ['replay', computed(() => props.lesson), asked],
  queryFn: () =>
    ask(api.GET('/api/lessons/{id}/replay', { params: { path: { id: props.lesson }, query: { at: asked.value } } })),
  placeholderData: keepPreviousData,
})
const sheet = computed(() => replay.data.value)

/** A minute that is asked for, counted from when the lesson was to begin: known when the lesson is. */
const opened = computed(() =>
  sheet.value && props.minute !== undefined ? sheet.value.planned + props.minute * 60_000 : undefined,
)
watch([opened, () => props.minute], ([moment]) => moment !== undefined && (at.value = moment))

const lasts = computed(() => (sheet.value ? Math.max(1, Math.round((sheet.value.to - sheet.value.from) / 60_000)) : 1))
const now = computed(() =>
  sheet.value ? Math.round(((at.value ?? sheet.value.at) - sheet.value.from) / 60_000) : lasts.value,
)
const go = (event: Event) => (at.value = sheet.value!.from + Number((event.target as HTMLInputElement).value) * 60_000)
</script>

<template>
  <section class="no-print mt-5" aria-labelledby="replay">
    <h2 id="replay" class="border-b-[1.5px] border-ink pb-0.5 font-bold">The sheet as it stood</h2>
    <template v-if="sheet">
      <label class="mt-2 flex items-center gap-3">
        <span class="w-14 font-bold">{{ hour(sheet.at) }}</span>
        <span class="sr-only">minute of the lesson</span>
        <input
          class="flex-1"
          type="range"
          min="0"
          :max="lasts"
          :value="now"
          :aria-valuetext="hour(sheet.at)"
          @input="go"
        />
      </label>
      <p class="mt-1 text-small" role="status">
        <b>{{ sheet.stage ?? '' }}</b>
        {{ count(sheet.rows.filter((r) => r.here).length, 'student') }} there.
        <template v-if="sheet.turn">{{ sheet.turn }} has the word.</template>
        <template v-if="sheet.hands.length">
          Hands: {{ sheet.hands.map((h) => `${h.name} ${clock(h.waitedSeconds * 1000)}`).join(', ') }}.</template
        >
        <template v-if="sheet.questions.length"> Open: {{ sheet.questions.join('; ') }}</template>
      </p>
      <ul v-if="sheet.groups.length" class="mt-1 text-small" aria-label="Groups">
        <li v-for="group in sheet.groups" :key="group.name">
          <b>{{ group.name }}</b> {{ group.members.join(', ') }}
        </li>
      </ul>
      <ul class="rows mt-2">
        <li v-for="row in sheet.rows" :key="row.id" :class="{ away: !row.here }">
          <span class="name">{{ row.name }}</span>
          <TallyStrokes
            :strokes="inked(row.id, row.fullTurns, row.partialTurns)"
            pen="speaking"
            :height="13"
            :label="`${row.fullTurns} full and ${row.partialTurns} partial turns`"
          />
          <TallyStrokes
            :strokes="inked(`${row.id}q`, row.answered)"
            pen="questions"
            :height="13"
            :label="`${row.answered} answered`"
          />
          <TallyStrokes
            :strokes="inked(`${row.id}c`, row.chat)"
            pen="chat"
            :height="13"
            :label="`${row.chat} in the chat`"
          />
          <TallyStrokes
            :strokes="inked(`${row.id}n`, row.nods)"
            pen="nods"
            :height="13"
            :label="count(row.nods, 'nod')"
          />
          <i v-if="!row.here" class="text-small text-ink-soft">not there</i>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.rows {
  columns: 3 280px;
  column-gap: 26px;
}
.rows li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 24px;
  border-bottom: 1px solid var(--rule);
  break-inside: avoid;
}
.name {
  width: 110px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.away .name {
  color: var(--ink-soft);
}
</style>
