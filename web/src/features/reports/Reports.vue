<script setup lang="ts">
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { useMediaQuery } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask } from '../../api/client'
import ClassTabs from '../../ui/ClassTabs.vue'
import EmptyState from '../../ui/EmptyState.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import { queryOf } from '../../ui/query'
import { useClassSheet } from './classSheet'
import DocumentSection from './DocumentSection.vue'
import FiguresTable from './FiguresTable.vue'
import LessonReplay from './LessonReplay.vue'
import ManyReports from './ManyReports.vue'
import IntoPlan from './IntoPlan.vue'
import type { Asked, Kind } from './kinds'
import ReportChoice from './ReportChoice.vue'
import ReportFiles from './ReportFiles.vue'
import ReportTabs from './ReportTabs.vue'

/** A report of a class: what it is about is chosen above it, and stands in the address. */
const props = defineProps<{ id: string; kind: Kind }>()
const route = useRoute()
const router = useRouter()
const client = useQueryClient()
const text = (name: string) => (route.query[name] as string | undefined) || undefined

const sheet = useClassSheet(props.id)
const asked = computed<Asked>(() => ({
  student: props.kind === 'student' ? (text('student') ?? sheet.data.value?.students[0]?.id) : undefined,
  lesson: props.kind === 'lesson' ? (text('lesson') ?? sheet.data.value?.lessons.at(-1)?.id) : undefined,
  from: text('from'),
  to: text('to'),
  reader: text('reader'),
  hidden: text('hidden') === 'true',
}))
const lookAt = (next: Asked) =>
  router.replace({ query: { ...route.query, ...next, hidden: next.hidden ? 'true' : undefined } })

const key = computed(() => ['report', props.id, props.kind, asked.value])
const params = () => ({ path: { id: props.id, kind: props.kind }, query: { ...asked.value } })
const report = useQuery({
  queryKey: key,
  queryFn: () => ask(api.GET('/api/classes/{id}/reports/{kind}', { params: params() })),
  enabled: computed(() => !!sheet.data.value?.lessons.length),
  placeholderData: keepPreviousData,
})
const document = computed(() => report.data.value)
const printed = useMediaQuery('print')
const folded = computed(() => document.value?.sections.flatMap((s) => (s.figures?.fold ? [s.figures] : [])) ?? [])
const at = computed(() => `/api/classes/${props.id}/reports/${props.kind}`)
watch(document, (d) => d && (globalThis.document.title = `${d.title} – Polite Tally`))

const problem = ref('')
async function edit(part: string, words: string) {
  problem.value = ''
  await ask(api.PUT('/api/classes/{id}/reports/{kind}/text', { params: params(), body: { part, text: words } }))
    .then((next) => client.setQueryData(key.value, next))
    .catch((e: Error) => (problem.value = e.message))
}
</script>

<template>
  <Page>
    <template #above><ClassTabs :id="id" :name="sheet.data.value?.className" /><ReportTabs :id="id" /></template>
    <Notice v-if="sheet.error.value || report.error.value" tone="wrong">{{
      (sheet.error.value ?? report.error.value)!.message
    }}</Notice>
    <Notice v-if="problem" tone="wrong">{{ problem }}</Notice>
    <EmptyState v-if="sheet.data.value && !sheet.data.value.lessons.length" title="Nothing to report yet">
      A report is made from settled lessons. Confirm a register, and it begins.
      <template #act
        ><RouterLink class="press-first inline-block" :to="`/classes/${id}`">To the lessons</RouterLink></template
      >
    </EmptyState>
    <template v-else-if="sheet.data.value">
      <ReportChoice :kind="kind" :sheet="sheet.data.value" :asked="asked" @ask="lookAt" />
      <p v-if="!document" class="mt-4 text-ink-soft" role="status">Writing it…</p>
      <article v-else>
        <ReportFiles
          :at="at"
          :query="queryOf(asked)"
          :nameless="kind === 'questions' && !asked.hidden"
          :figures="document.sections.some((s) => s.figures?.rows.length)"
        >
          <template v-if="kind === 'class'">
            <a class="quiet" :href="`/api/classes/${id}/bundle.zip${queryOf(asked)}`" download
              >everything in one archive</a
            >
            <a class="quiet" :href="`/api/classes/${id}/statements.json${queryOf(asked)}`" download>learning events</a>
            <a class="quiet" :href="`/api/classes/${id}/lessons.ics${queryOf(asked)}`" download
              >lessons as a calendar</a
            >
          </template>
        </ReportFiles>
        <p class="mt-4 text-small text-ink-soft">{{ document.about }}</p>
        <h1 class="text-title font-bold">{{ document.title }}</h1>
        <template v-for="(section, i) in document.sections" :key="`${kind} ${i}`">
          <DocumentSection
            :section="section"
            :class-id="id"
            :lead="i === 0"
            :drawing-at="(ending) => `${at}/drawings/${i}.${ending}${queryOf(asked)}`"
            @edit="edit"
          />
          <IntoPlan
            v-if="kind === 'fairness' && section.heading === 'Next lesson'"
            :class-id="id"
            :says="section.says"
          />
        </template>
        <ManyReports v-if="kind === 'student'" :class-id="id" :asked="asked" />
        <LessonReplay
          v-if="kind === 'lesson' && asked.lesson"
          :key="asked.lesson"
          :lesson="asked.lesson"
          :minute="text('minute') === undefined ? undefined : Number(text('minute'))"
        />
        <!-- On paper what waits to be opened stands at the end. -->
        <template v-if="printed">
          <section v-for="f in folded" :key="f.name">
            <h2 class="mt-4 border-b border-ink font-bold">{{ f.name }}, in figures</h2>
            <FiguresTable :figures="f" :class-id="id" />
          </section>
        </template>
      </article>
    </template>
  </Page>
</template>
