<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask } from '../../api/client'
import { count, hour, weekDay } from '../../ui/format'
import ClassTabs from '../../ui/ClassTabs.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import { useClassSheet } from './classSheet'
import SpanChoice from '../../ui/SpanChoice.vue'
import ReportTabs from './ReportTabs.vue'

/** Everything that is known of a student over all classes and terms, found by words, kind and days. */
const props = defineProps<{ id: string }>()
const route = useRoute()
const router = useRouter()
const text = (name: string) => (route.query[name] as string | undefined) || undefined
const lookAt = (next: Record<string, string | undefined>) => router.replace({ query: { ...route.query, ...next } })

const sheet = useClassSheet(props.id)
const student = computed(() => text('student') ?? sheet.data.value?.students[0]?.id)
const words = ref(text('words') ?? '')
const typed = refDebounced(words, 200)
const asked = computed(() => ({
  words: typed.value || undefined,
  kind: text('kind'),
  from: text('from'),
  to: text('to'),
}))
const past = useQuery({
  queryKey: ['past', student, asked],
  queryFn: () =>
    ask(api.GET('/api/students/{id}/past', { params: { path: { id: student.value! }, query: asked.value } })),
  enabled: computed(() => !!student.value),
  placeholderData: keepPreviousData,
})
const found = computed(() => past.data.value)
const value = (event: Event) => (event.target as HTMLSelectElement).value || undefined
</script>

<template>
  <Page>
    <template #above><ClassTabs :id="id" :name="sheet.data.value?.className" /><ReportTabs :id="id" /></template>
    <Notice v-if="past.error.value" tone="wrong">{{ past.error.value.message }}</Notice>
    <p class="no-print flex flex-wrap items-baseline gap-x-5 gap-y-1 text-small">
      <label
        >student
        <select class="field !w-auto" :value="student" @change="lookAt({ student: value($event) })">
          <option v-for="s in sheet.data.value?.students" :key="s.id" :value="s.id">{{ s.called }} {{ s.rest }}</option>
        </select></label
      >
      <label>with the words <input v-model="words" class="field !w-40" type="search" maxlength="100" /></label>
      <label
        >of
        <select class="field !w-auto" :value="text('kind') ?? ''" @change="lookAt({ kind: value($event) })">
          <option value="">everything</option>
          <option v-for="k in found?.kinds" :key="k" :value="k">{{ k }}</option>
        </select></label
      >
      <SpanChoice
        :terms="sheet.data.value?.terms ?? []"
        :from="text('from')"
        :to="text('to')"
        @ask="(span) => lookAt({ from: span.from, to: span.to })"
      />
    </p>
    <p v-if="!found" class="mt-4 text-ink-soft" role="status">Reading all lessons…</p>
    <template v-else>
      <h1 class="mt-4 text-title font-bold">{{ found.student }}</h1>
      <p class="text-ink-soft" role="status">
        {{ count(found.all, 'thing') }} noted<template v-if="found.all > found.lines.length"
          >, the newest {{ found.lines.length }} shown</template
        >, over all classes and terms.
      </p>
      <p v-if="!found.lines.length" class="mt-3">Nothing like that. Choose other words, another kind or other days.</p>
      <ol class="mt-3">
        <li v-for="(line, i) in found.lines" :key="i" class="line" :class="{ struck: line.struck }">
          <span class="when">{{ weekDay(line.at) }} {{ hour(line.at) }}</span>
          <bdi class="what">{{ line.text }}</bdi>
          <RouterLink
            v-if="line.lesson"
            class="where"
            :to="{
              name: 'reports',
              params: { id: line.classId, kind: 'lesson' },
              query: { lesson: line.lesson, ...(line.minute === null ? {} : { minute: line.minute }) },
            }"
            >{{ line.class }}, lesson {{ line.title }}</RouterLink
          >
          <span v-else class="where">{{ line.class }}</span>
          <span class="who">{{ line.struck ? 'taken back' : line.by }}</span>
        </li>
      </ol>
    </template>
  </Page>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 118px minmax(0, 1fr) minmax(0, 280px) 110px;
  gap: 0 14px;
  border-bottom: 1px solid var(--rule);
  padding-block: 2px;
}
.when,
.where,
.who {
  font-size: var(--text-small);
  color: var(--ink-soft);
}
.where {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
a.where:hover {
  text-decoration: underline;
}
.struck .what {
  text-decoration: line-through;
  color: var(--ink-soft);
}
@media (max-width: 760px) {
  .line {
    grid-template-columns: 118px minmax(0, 1fr);
  }
}
</style>
