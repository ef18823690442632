<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask } from '../../api/client'
import ClassTabs from '../../ui/ClassTabs.vue'
import EmptyState from '../../ui/EmptyState.vue'
import { count } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import BesideChoice from './BesideChoice.vue'
import JudgeSpan from './JudgeSpan.vue'
import { useOpened } from './opened'
import ScoreTable from './ScoreTable.vue'
import { useSheet } from './sheet'
import SheetBar from './SheetBar.vue'
import WhyLesson from './WhyLesson.vue'
import WhyTerm from './WhyTerm.vue'

const props = defineProps<{ id: string }>()
const { asked, cells, judging, why, isOpen, lookAt, judge, putAway, close } = useOpened()
const scores = useQuery({
  queryKey: ['scores', props.id, asked],
  queryFn: () =>
    ask(api.GET('/api/classes/{id}/scores', { params: { path: { id: props.id }, query: { ...asked.value } } })),
  placeholderData: keepPreviousData,
})
const sheet = computed(() => scores.data.value)
const { rows, tags, looked, hours, sortBy, tag, band, look } = useSheet(sheet)
const empty = computed(() => sheet.value && !sheet.value.lessons.length && !asked.value.from && !asked.value.to)
</script>

<template>
  <Page>
    <template #above><ClassTabs :id="id" :name="sheet?.className" /></template>
    <Notice v-if="scores.error.value" tone="wrong">{{ scores.error.value.message }}</Notice>
    <EmptyState v-if="empty" title="No lesson is settled yet">
      Scores come from settled lessons: teach one, end it, confirm its register.
      <template #act
        ><RouterLink class="press-first inline-block" :to="`/classes/${id}`">To the lessons</RouterLink></template
      >
    </EmptyState>
    <div v-else-if="sheet" class="split" :class="[`open-${cells.length || Number(judging)}`]" @keydown.esc="close">
      <section class="min-w-0">
        <h1 class="text-head font-bold">Scores, {{ count(sheet.lessons.length, 'settled lesson') }}</h1>
        <p class="text-ink-soft">
          {{
            hours
              ? 'How long each was there, for nobody has to come. Press any number for what was noted.'
              : 'From 0 to 100, of what each student had a chance to do. Press any number for the reason.'
          }}
        </p>
        <SheetBar
          v-model:sort-by="sortBy"
          v-model:tag="tag"
          v-model:band="band"
          v-model:look="look"
          :sheet="sheet"
          :asked="asked"
          :tags="tags"
          :looked="looked"
          @ask="lookAt"
        >
          <button v-if="!hours && !judging" class="quiet" @click="judge">judge by the rubric</button>
        </SheetBar>
        <ScoreTable :sheet="sheet" :rows="rows" :open="isOpen" @why="why" />
        <p v-if="!rows.length" class="mt-2">Nobody is like that. Choose another tag or band.</p>
        <p v-else-if="!sheet.lessons.length" class="mt-2">No lesson is settled on these days. Choose others.</p>
      </section>
      <aside v-if="judging && !cells.length" class="why">
        <button class="quiet no-print float-end text-small" @click="close">put away</button>
        <JudgeSpan :class-id="id" :asked="asked" :lessons="sheet.lessons" />
      </aside>
      <aside v-for="(cell, i) in cells" :key="`${cell.student} ${cell.lesson}`" class="why" aria-live="polite">
        <button class="quiet no-print float-end text-small" @click="putAway(cell)">put away</button>
        <WhyLesson v-if="cell.lesson" :lesson="cell.lesson" :student="cell.student" />
        <WhyTerm v-else :class-id="id" :student="cell.student" :asked="asked" />
        <BesideChoice
          v-if="i === 0 && cells.length === 1"
          :sheet="sheet"
          :cell="cell"
          @choose="(other) => why(other, true)"
        />
      </aside>
    </div>
  </Page>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 26px;
}
.split.open-1 {
  grid-template-columns: minmax(0, 1fr) 430px;
}
.split.open-2 {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
.open-2 > section {
  grid-column: 1 / -1;
  grid-row: 2;
}
.split:not(.open-0) :deep(.day),
.split:not(.open-0) :deep(.band) {
  display: none;
}
.why {
  border-left: 1px solid var(--ink-soft);
  padding-left: 22px;
}
@media (max-width: 1000px) {
  .split.open-1,
  .split.open-2 {
    grid-template-columns: minmax(0, 1fr);
  }
  .open-2 > section {
    grid-row: auto;
  }
  .why {
    border-left: 0;
    padding: 0;
    order: -1;
  }
}
/* On paper an explanation stands alone. */
@media print {
  .split:not(.open-0) > section {
    display: none;
  }
  .split.open-1 {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
