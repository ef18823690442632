<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import ClassTabs from '../../ui/ClassTabs.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import { useClassSheet } from './classSheet'
import SpanChoice from '../../ui/SpanChoice.vue'
import DocumentSection from './DocumentSection.vue'
import MeetingPart from './MeetingPart.vue'
import ReportTabs from './ReportTabs.vue'

/** Any reports put together in an order, with the teacher's words between, as one document; students numbered if wished. */
const props = defineProps<{ id: string }>()
const sheet = useClassSheet(props.id)
// What was put together stays in this browser until it is put together anew.
const draft = useStorage<Schemas['MeetingSent']>(`meeting ${props.id}`, {
  title: 'For the meeting',
  parts: [{ kind: 'class', student: null, lesson: null, note: '' }],
  from: null,
  to: null,
  hidden: false,
  letter: false,
})
const document = ref<Schemas['Document']>()
const problem = ref('')
const writing = ref(false)
const ready = computed(
  () =>
    draft.value.parts.length > 0 &&
    draft.value.parts.every((p) => (p.kind !== 'student' || p.student) && (p.kind !== 'lesson' || p.lesson)),
)

function move(place: number, steps: number) {
  const parts = [...draft.value.parts]
  const [part] = parts.splice(place, 1)
  parts.splice(place + steps, 0, part!)
  draft.value = { ...draft.value, parts }
}
const put = (place: number, part: Schemas['MeetingPart']) =>
  (draft.value = { ...draft.value, parts: draft.value.parts.map((p, i) => (i === place ? part : p)) })
const remove = (place: number) =>
  (draft.value = { ...draft.value, parts: draft.value.parts.filter((_, i) => i !== place) })
const add = () =>
  (draft.value = { ...draft.value, parts: [...draft.value.parts, { kind: '', student: null, lesson: null, note: '' }] })

async function attempt(what: () => Promise<void>) {
  problem.value = ''
  writing.value = true
  await what().catch((e: Error) => (problem.value = e.message))
  writing.value = false
}
const params = { path: { id: props.id } }
const look = () =>
  attempt(async () => {
    document.value = await ask(api.POST('/api/classes/{id}/meeting', { params, body: draft.value }))
  })
const take = () =>
  attempt(async () => {
    const file = await ask(
      api.POST('/api/classes/{id}/meeting/file.pdf', { params, body: draft.value, parseAs: 'blob' }),
    )
    const link = window.document.createElement('a')
    link.href = URL.createObjectURL(file as unknown as Blob)
    link.download = `${draft.value.title}.pdf`
    link.click()
    URL.revokeObjectURL(link.href)
  })
</script>

<template>
  <Page>
    <template #above><ClassTabs :id="id" :name="sheet.data.value?.className" /><ReportTabs :id="id" /></template>
    <div v-if="sheet.data.value" class="no-print max-w-[52rem]">
      <h1 class="text-title font-bold">For a meeting</h1>
      <p class="text-ink-soft">Choose what is to be told, in an order, and say what stands between.</p>
      <label class="mt-3 block">Title <input v-model="draft.title" class="field" maxlength="120" /></label>
      <ol class="mt-3 border-t-[1.5px] border-ink">
        <MeetingPart
          v-for="(part, i) in draft.parts"
          :key="i"
          :model-value="part"
          :sheet="sheet.data.value"
          :place="i"
          :last="i === draft.parts.length - 1"
          @update:model-value="(next) => put(i, next)"
          @move="(steps) => move(i, steps)"
          @remove="remove(i)"
        />
      </ol>
      <p class="mt-2"><button class="quiet" @click="add">add a part</button></p>
      <p class="mt-3 flex flex-wrap items-baseline gap-x-5 gap-y-2 text-small">
        <SpanChoice
          :terms="sheet.data.value.terms"
          :from="draft.from ?? undefined"
          :to="draft.to ?? undefined"
          @ask="(span) => (draft = { ...draft, from: span.from ?? null, to: span.to ?? null })"
        />
        <label class="flex items-center gap-2 self-center"
          ><input v-model="draft.hidden" type="checkbox" class="size-6" /> numbers instead of names</label
        >
        <a v-if="draft.hidden" class="quiet" :href="`/api/classes/${id}/meeting/key.csv`" download>the key, apart</a>
      </p>
      <p class="mt-3 flex items-baseline gap-4">
        <button class="press-first" :disabled="!ready || writing" @click="look">Put it together</button>
        <button class="press" :disabled="!ready || writing" @click="take">Take as PDF</button>
        <span role="status" class="text-small text-ink-soft">{{
          writing ? 'Writing it…' : ready ? '' : 'Choose the student or the lesson of each part.'
        }}</span>
      </p>
    </div>
    <Notice v-if="problem" tone="wrong">{{ problem }}</Notice>
    <article v-if="document" class="mt-6 border-t border-rule pt-3 print:border-0">
      <p class="text-small text-ink-soft">{{ document.about }}</p>
      <h2 class="text-title font-bold">{{ document.title }}</h2>
      <DocumentSection v-for="(section, i) in document.sections" :key="i" :section="section" :class-id="id" />
    </article>
  </Page>
</template>
