<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, largestFileSaid } from '../../api/client'
import { count } from '../../ui/format'
import ClassTabs from '../../ui/ClassTabs.vue'
import ColumnChooser from '../../ui/ColumnChooser.vue'
import FileDrop from '../../ui/FileDrop.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import { usePasting } from '../../ui/pasting'
import { rosterFields, useRosterImport, type Step } from './rosterImport'
import RosterSteps from './RosterSteps.vue'
import WrongRows from './WrongRows.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const queries = useQueryClient()
const page = useQuery({
  queryKey: ['class', props.id],
  queryFn: () => ask(api.GET('/api/classes/{id}', { params: { path: { id: props.id } } })),
})

const {
  file,
  headless,
  bundleClass,
  leaveOut,
  ticked,
  problem,
  busy,
  preview,
  wrong,
  parts,
  staying,
  toDo,
  onlyJoining,
  chooses,
  lookAt,
  bringIn,
  begin,
  beginPasted,
  remap,
  setHeadless,
  tick,
} = useRosterImport(
  props.id,
  () => page.data.value?.name,
  async () => {
    await queries.invalidateQueries()
    await router.push(`/classes/${props.id}`)
  },
)
const pasted = ref('')
usePasting(begin, (text) => {
  if (!text.trim()) return
  pasted.value = text
  void beginPasted(text)
})
const nameOf = (step: Step) => {
  if (step.entry) return `${step.entry.given} ${step.entry.family}`
  const student = page.data.value?.students.find((s) => s.id === step.student)
  return student ? `${student.called} ${student.family}` : ''
}
</script>

<template>
  <Page title="Bring in a roster" lead="One student a row. Nothing is stored until you say so.">
    <template #above><ClassTabs :id="id" :name="page.data.value?.name" /></template>
    <div class="ways">
      <FileDrop
        what="a roster"
        :hint="`A table (CSV or workbook) of any layout, or a rostering bundle (zip). Up to ${largestFileSaid}.`"
        accept=".csv,.txt,.tsv,.xlsx,.ods,.odt,.docx,.zip,text/csv,text/plain"
        :busy="busy"
        @file="begin"
      />
      <form @submit.prevent="beginPasted(pasted)">
        <label
          >Or paste cells from a spreadsheet, anywhere on this page<textarea
            v-model="pasted"
            class="field boxed mt-1"
            :rows="preview ? 3 : 10"
            placeholder="Juno	Quillfeather"
          />
        </label>
        <button class="press mt-1" :disabled="busy || !pasted.trim()">Look at these</button>
      </form>
    </div>
    <Notice v-if="problem" tone="wrong" class="mt-5">{{ problem }}</Notice>

    <template v-if="preview && file">
      <h2 class="mt-8 text-head font-bold">{{ file.name }}</h2>
      <p class="text-ink-soft">
        {{ count(preview.rows.length, 'row') }}, {{ preview.readAs
        }}{{ preview.headingsRow > 1 ? `, headings in row ${preview.headingsRow}` : '' }}.
      </p>
      <label v-if="chooses" class="mt-3 block max-w-[30rem]"
        >Which class of the bundle<select v-model="bundleClass" class="field" @change="lookAt">
          <option :value="undefined">choose one</option>
          <option v-for="c in preview.classes" :key="c.id" :value="c.id">
            {{ c.title }}, {{ count(c.students, 'student') }}
          </option>
        </select></label
      >
      <div v-if="!chooses || preview.chosenClass" class="halves">
        <section v-if="preview.columns.length" aria-label="Columns">
          <ColumnChooser :columns="preview.columns" :fields="rosterFields" @change="remap" />
          <label class="mt-2 flex items-center gap-2 text-small"
            ><input type="checkbox" class="size-5" :checked="!headless" @change="setHeadless" /> The first row holds
            headings</label
          >
        </section>
        <WrongRows v-if="wrong.length" v-model="leaveOut" :lines="wrong" :can-leave-out="toDo > 0" />
        <Notice v-else>Nothing is wrong with it.</Notice>
      </div>

      <div v-if="!chooses || preview.chosenClass" class="mt-6 flex flex-wrap items-center gap-5">
        <button class="press-first" :disabled="busy || toDo === 0 || (wrong.length > 0 && !leaveOut)" @click="bringIn">
          {{ busy ? 'Reading…' : `Bring in ${count(toDo, onlyJoining ? 'student' : 'change')}` }}
        </button>
        <RouterLink class="press" :to="`/classes/${id}`">Leave it</RouterLink>
        <span v-if="staying" class="text-ink-soft">{{ count(staying, 'student') }} stay as they are.</span>
      </div>

      <RosterSteps
        v-for="part in parts"
        :key="part.step"
        class="mt-7 max-w-[60rem]"
        :part="part"
        :ticked="ticked"
        :name-of="nameOf"
        @tick="tick"
      />
    </template>
  </Page>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 28px;
  align-items: start;
  margin-top: 20px;
  max-width: 1120px;
}
.halves {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 36px;
  margin-top: 12px;
  max-width: 1120px;
}
@media (max-width: 860px) {
  .ways,
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
