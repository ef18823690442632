<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { count } from '../../ui/format'
import type { Rules } from '../ground-rules/rules'
import ChangeRow from './ChangeRow.vue'
import LessonChoice from './LessonChoice.vue'

/** The whole class as it is and as it would be, the largest loss first. */
const chosen = defineModel<string[]>({ required: true })
const props = defineProps<{
  classId: string
  compared: Schemas['SchemeCompared'] | undefined
  lessons: readonly Schemas['SchemeLesson'][]
  bands: Rules['scheme']['bands']
  changed: boolean
  places: number
}>()
const rows = computed(() => props.compared?.students ?? [])
/** The scheme is as it is, and every lesson is scored by it. */
const same = computed(() => !props.changed && !props.compared?.gain && !props.compared?.lose)
const values = computed(() => rows.value.flatMap((r) => [r.before, r.after]).filter((v) => v !== null))
/** From the ten below the lowest to 100, so that small changes can be seen. */
const lowest = computed(() => (values.value.length ? Math.max(0, Math.floor(Math.min(...values.value) / 10) * 10) : 0))
const ticks = computed(() => {
  const step = 100 - lowest.value > 60 ? 20 : 10
  return [...Array(11).keys()].map((i) => i * step).filter((t) => t >= lowest.value && t <= 100)
})
const at = (score: number) => ((score - lowest.value) / (100 - lowest.value)) * 100
const borders = computed(() => props.bands.filter((b) => b.from > lowest.value && b.from < 100))
</script>

<template>
  <section aria-labelledby="before-after" class="min-w-0">
    <p v-if="compared" class="mb-3 text-lead" aria-live="polite">
      <template v-if="same">Nothing moves. Change a weight, and the whole class is seen before and after.</template>
      <template v-else
        ><template v-if="!changed">If the lessons that an older version scores were scored by this one: </template
        ><mark class="said">{{ compared.inWords[0] }}</mark> {{ compared.inWords.slice(1).join(' ') }}</template
      >
    </p>
    <h2 id="before-after" class="rule-head flex flex-wrap items-baseline justify-between gap-x-4">
      Before and after
      <span class="text-small font-normal text-ink-soft"
        >term score, largest loss first; a name opens the reasons · <LessonChoice v-model="chosen" :lessons="lessons"
      /></span>
    </h2>
    <p v-if="!lessons.length" class="mt-2 text-ink-soft">
      No lesson is settled yet: there is nothing to compare, and the scheme holds from the first lesson on.
    </p>
    <div v-else-if="rows.length" class="rows">
      <p class="scale" aria-hidden="true">
        <span v-for="t in ticks" :key="t" :style="{ left: `${at(t)}%` }">{{ t }}</span>
      </p>
      <ChangeRow
        v-for="row in rows"
        :key="row.id"
        :row="row"
        :at="at"
        :borders="borders"
        :class-id="classId"
        :places="places"
      />
    </div>
    <p v-else-if="compared" class="mt-2 text-ink-soft">
      {{ count(lessons.length, 'settled lesson') }} and nobody on the roster.
    </p>
  </section>
</template>

<style scoped>
.said {
  background: linear-gradient(transparent 55%, var(--live) 55%);
  color: inherit;
}
.scale {
  position: relative;
  height: 20px;
  margin-right: 232px;
  margin-left: 190px;
  font-size: var(--text-small);
  color: var(--ink-soft);
}
.scale span {
  position: absolute;
  transform: translateX(-50%);
}
@media (max-width: 700px) {
  .scale {
    display: none;
  }
}
</style>
