<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask } from '../../api/client'
import ClassTabs from '../../ui/ClassTabs.vue'
import EmptyState from '../../ui/EmptyState.vue'
import { count } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import ScoreTable from './ScoreTable.vue'
import { useSheet } from './sheet'
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
const { rows, tags, looked, hours, sortBy, tag, band, look } = useSheet(sheet)
const open = computed(() => ({
  student: route.query.student as string | undefined,
  lesson: route.query.lesson as string | undefined,
}))
const close = () => router.replace({ query: {} })
const why = (student: string, lesson?: string) =>
  open.value.student === student && open.value.lesson === lesson
    ? close()
    : router.replace({ query: { student, ...(lesson ? { lesson } : {}) } })
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
    <div v-else-if="sheet" class="split" :class="{ beside: open.student }" @keydown.esc="close">
      <section class="min-w-0">
        <h1 class="text-head font-bold">Scores, {{ count(sheet.lessons.length, 'settled lesson') }}</h1>
        <p class="text-ink-soft">
          {{
            hours
              ? 'How long each was there, for nobody has to come. Press any number for what was noted.'
              : 'From 0 to 100, of what each student had a chance to do. Press any number for the reason.'
          }}
        </p>
        <p class="no-print mt-2 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-small">
          <label
            >in order of
            <select v-model="sortBy" class="field !w-auto">
              <option value="name">names</option>
              <option value="term">term score, lowest first</option>
              <option value="trend">change, largest loss first</option>
            </select></label
          >
          <label v-if="tags.length"
            >tag
            <select v-model="tag" class="field !w-auto">
              <option value="">any</option>
              <option v-for="t in tags" :key="t">{{ t }}</option>
            </select></label
          >
          <label v-if="sheet.bands.length"
            >band
            <select v-model="band" class="field !w-auto">
              <option value="">any</option>
              <option v-for="b in sheet.bands" :key="b.from">{{ b.name }}</option>
            </select></label
          >
          <label v-if="looked && !hours" class="flex items-center gap-2 self-end"
            ><input v-model="look" type="checkbox" class="size-6" /> only the {{ looked }} that need a look</label
          >
          <span class="ml-auto flex gap-4">
            take as
            <a class="quiet" :href="`/api/classes/${id}/gradebook.csv`" download>CSV</a>
            <a class="quiet" :href="`/api/classes/${id}/gradebook.xlsx`" download>workbook</a>
          </span>
        </p>
        <ScoreTable :sheet="sheet" :rows="rows" :open="open" @why="why" @close="close" />
        <p v-if="!rows.length" class="mt-2">Nobody is like that. Choose another tag or band.</p>
      </section>
      <aside v-if="open.student" class="why" aria-live="polite">
        <button class="quiet float-end text-small" @click="close">put away</button>
        <WhyLesson v-if="open.lesson" :key="open.lesson + open.student" :lesson="open.lesson" :student="open.student" />
        <WhyTerm v-else :key="open.student" :class-id="id" :student="open.student" />
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
.split.beside {
  grid-template-columns: minmax(0, 1fr) 430px;
}
.beside :deep(.day),
.beside :deep(.band) {
  display: none;
}
.why {
  border-left: 1px solid var(--ink-soft);
  padding-left: 22px;
}
@media (max-width: 1000px) {
  .split.beside {
    grid-template-columns: 1fr;
  }
  .why {
    border-left: 0;
    padding: 0;
    order: -1;
  }
}
</style>
