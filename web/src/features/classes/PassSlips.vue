<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { count, shortDay } from '../../ui/format'
import ClassTabs from '../../ui/ClassTabs.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'

const props = defineProps<{ id: string }>()
const queries = useQueryClient()
const page = useQuery({
  queryKey: ['class', props.id],
  queryFn: () => ask(api.GET('/api/classes/{id}', { params: { path: { id: props.id } } })),
})
const slips = ref<Schemas['PassSlip'][]>([])
const problem = ref<string>()
const busy = ref(false)
const chosen = ref<string[]>([])
const without = computed(() => page.data.value?.students.filter((s) => !s.passMadeAt).map((s) => s.id) ?? [])

async function make(students: string[]) {
  problem.value = undefined
  busy.value = true
  try {
    slips.value = await ask(
      api.POST('/api/classes/{id}/passes', { params: { path: { id: props.id } }, body: { students } }),
    )
    chosen.value = []
    await queries.invalidateQueries()
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}
const print = () => window.print()
</script>

<template>
  <Page
    title="Passes"
    lead="A pass lets a student in from their own device, with no account and nothing to remember but the slip."
  >
    <template #above><ClassTabs :id="id" :name="page.data.value?.name" /></template>
    <Notice v-if="problem" tone="wrong" class="mt-4">{{ problem }}</Notice>
    <template v-if="slips.length">
      <Notice class="no-print mt-4"
        ><b>Print or write these down now.</b> Only a fingerprint of each is kept, so they cannot be shown again; a lost
        slip gets a new pass.</Notice
      >
      <p class="no-print mt-4 flex gap-5">
        <button class="press-first" @click="print">Print {{ count(slips.length, 'slip') }}</button>
        <button class="press" @click="slips = []">Done with them</button>
      </p>
      <ul class="slips mt-6" aria-label="Slips">
        <li v-for="slip in slips" :key="slip.student" class="slip">
          <p class="text-small text-ink-soft">{{ page.data.value?.name }}</p>
          <p>
            <b>{{ slip.called }}</b> {{ slip.family }}
          </p>
          <p class="mt-1 text-head font-bold tracking-wide">{{ slip.pass }}</p>
          <p class="text-small text-ink-soft">Yours alone. If it gets lost, say so.</p>
        </li>
      </ul>
    </template>
    <template v-else-if="page.data.value">
      <p class="mt-4 flex flex-wrap items-center gap-5">
        <button class="press-first" :disabled="busy || !without.length" @click="make(without)">
          {{
            without.length ? `Make ${count(without.length, 'pass', 'passes')} for those without` : 'Everybody has one'
          }}
        </button>
        <button class="press" :disabled="busy || !chosen.length" @click="make(chosen)">New ones for the ticked</button>
        <span v-if="chosen.length" class="text-ink-soft">What they had before opens nothing any more.</span>
      </p>
      <ul class="mt-5 max-w-[40rem]">
        <li v-for="student in page.data.value.students" :key="student.id">
          <label class="rule-line cursor-pointer">
            <input v-model="chosen" type="checkbox" class="size-4 self-center" :value="student.id" />
            <span class="flex-1"
              ><b class="font-semibold">{{ student.called }}</b> {{ student.family }}</span
            >
            <span class="text-small text-ink-soft">{{
              student.passMadeAt ? `since ${shortDay(student.passMadeAt)}` : 'none yet'
            }}</span>
          </label>
        </li>
      </ul>
    </template>
  </Page>
</template>

<style scoped>
.slips {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
}
.slip {
  border: 1px dashed var(--ink-soft);
  margin: -1px 0 0 -1px;
  padding: 14px 18px;
  break-inside: avoid;
}
</style>
