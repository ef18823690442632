<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, sendFile, type Schemas } from '../../api/client'
import { count } from '../../ui/format'
import ClassTabs from '../../ui/ClassTabs.vue'
import ColumnChooser from '../../ui/ColumnChooser.vue'
import FileDrop from '../../ui/FileDrop.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const queries = useQueryClient()
const page = useQuery({
  queryKey: ['class', props.id],
  queryFn: () => ask(api.GET('/api/classes/{id}', { params: { path: { id: props.id } } })),
})

const fields = [
  { name: 'number', label: 'student number' },
  { name: 'family', label: 'family name' },
  { name: 'given', label: 'given name' },
  { name: 'preferred', label: 'preferred name' },
  { name: 'name', label: 'whole name' },
  { name: 'email', label: 'e-mail address' },
  { name: 'tags', label: 'tags' },
] as const
const separators: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }

const file = ref<File>()
const mapping = ref<Record<string, number>>()
const preview = ref<Schemas['RosterPreview']>()
const leaveOut = ref(false)
const problem = ref<string>()
const busy = ref(false)
const wrong = computed(() => preview.value?.lines.filter((l) => l.problems.length) ?? [])
const good = computed(() => (preview.value?.lines.length ?? 0) - wrong.value.length)

async function look() {
  busy.value = true
  problem.value = undefined
  try {
    const decided: Record<string, string> = mapping.value ? { mapping: JSON.stringify(mapping.value) } : {}
    preview.value = await sendFile<Schemas['RosterPreview']>(
      `/api/classes/${props.id}/roster/preview`,
      file.value!,
      decided,
    )
  } catch (failure) {
    preview.value = undefined
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}

async function bringIn() {
  busy.value = true
  problem.value = undefined
  try {
    const decided: Record<string, string> = { leaveOut: String(leaveOut.value) }
    if (mapping.value) decided.mapping = JSON.stringify(mapping.value)
    await sendFile(`/api/classes/${props.id}/roster`, file.value!, decided)
    await queries.invalidateQueries()
    await router.push(`/classes/${props.id}`)
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}

function take(dropped: File) {
  file.value = dropped
  mapping.value = undefined
  leaveOut.value = false
  void look()
}

function remap(changed: Record<string, number>) {
  mapping.value = changed
  void look()
}
</script>

<template>
  <Page title="Bring in a roster" lead="One student a row. Nothing is stored until you say so.">
    <template #above><ClassTabs :id="id" :name="page.data.value?.name" /></template>
    <FileDrop
      class="mt-5 max-w-[46rem]"
      what="a roster"
      hint="A CSV file from any program: any separator, any order of columns, up to 20 MB."
      :busy="busy"
      @file="take"
    />
    <Notice v-if="problem" tone="wrong" class="mt-5">{{ problem }}</Notice>

    <template v-if="preview && file">
      <h2 class="mt-8 text-head font-bold">{{ file.name }}</h2>
      <p class="text-ink-soft">
        {{ count(preview.lines.length, 'row') }}, {{ preview.encoding }}, cut at
        {{ separators[preview.separator] ?? preview.separator
        }}{{ preview.headingsRow > 1 ? `, headings in row ${preview.headingsRow}` : '' }}.
      </p>
      <div class="halves">
        <section aria-label="Columns">
          <ColumnChooser :columns="preview.columns" :fields="fields" @change="remap" />
        </section>
        <section v-if="wrong.length" aria-label="Rows with something wrong">
          <Notice tone="wrong"
            >{{ count(wrong.length, 'row') }} cannot be brought in as
            {{ wrong.length === 1 ? 'it stands' : 'they stand' }}.</Notice
          >
          <ul class="mt-2">
            <li v-for="line in wrong.slice(0, 12)" :key="line.row" class="border-b border-rule py-1">
              <b>Row {{ line.row }}</b> {{ line.problems.join(' It ') }}
            </li>
          </ul>
          <p v-if="wrong.length > 12" class="py-1 text-ink-soft">And {{ wrong.length - 12 }} more.</p>
          <label v-if="good > 0" class="mt-2 flex items-center gap-2"
            ><input v-model="leaveOut" type="checkbox" class="size-5" /> Leave
            {{ wrong.length === 1 ? 'this row' : 'these rows' }} out</label
          >
        </section>
        <Notice v-else>Nothing is wrong with it.</Notice>
      </div>

      <div class="mt-6 flex items-center gap-5">
        <button class="press-first" :disabled="busy || good === 0 || (wrong.length > 0 && !leaveOut)" @click="bringIn">
          Bring in {{ count(good, 'student') }}
        </button>
        <RouterLink class="press" :to="`/classes/${id}`">Leave it</RouterLink>
      </div>

      <table class="sheet-table mt-6 max-w-[60rem]">
        <thead>
          <tr>
            <th>Row</th>
            <th>Number</th>
            <th>Family name</th>
            <th>Given name</th>
            <th>Called</th>
            <th>E-mail address</th>
            <th>Tags</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in preview.lines.slice(0, 200)" :key="line.row" :class="{ wrong: line.problems.length }">
            <td class="text-ink-soft">{{ line.row }}</td>
            <td>{{ line.number }}</td>
            <td class="font-semibold">{{ line.family }}</td>
            <td class="font-semibold">{{ line.given }}</td>
            <td>{{ line.preferred }}</td>
            <td class="text-ink-soft">{{ line.email }}</td>
            <td class="text-ink-soft">{{ line.tags }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="preview.lines.length > 200" class="mt-2 text-ink-soft">
        And {{ preview.lines.length - 200 }} more rows.
      </p>
    </template>
  </Page>
</template>

<style scoped>
.halves {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 36px;
  margin-top: 12px;
  max-width: 1120px;
}
.wrong td {
  text-decoration: line-through;
  text-decoration-color: var(--pencil);
}
@media (max-width: 860px) {
  .halves {
    grid-template-columns: 1fr;
  }
}
</style>
