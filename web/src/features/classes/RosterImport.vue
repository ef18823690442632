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

type Step = Schemas['RosterCompared']
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
  { name: 'secondEmail', label: 'second e-mail address' },
  { name: 'phone', label: 'telephone' },
  { name: 'tags', label: 'tags' },
] as const
const labels: Record<string, string> = Object.fromEntries(fields.map((f) => [f.name, f.label]))
const kinds = [
  { step: 'joins', head: 'Join', ticked: true },
  { step: 'returns', head: 'Come back', ticked: true },
  { step: 'changes', head: 'Change', ticked: true },
  { step: 'leaves', head: 'Not in this file', ticked: false },
] as const

const file = ref<File>()
const pasted = ref('')
const mapping = ref<Record<string, number>>()
const headless = ref(false)
const bundleClass = ref<string>()
const look = ref<Schemas['RosterLook']>()
const leaveOut = ref(false)
const ticked = ref(new Set<string>())
const problem = ref<string>()
const busy = ref(false)
const preview = computed(() => look.value?.file)
const wrong = computed(() => preview.value?.lines.filter((l) => l.problems.length) ?? [])
const parts = computed(() =>
  kinds
    .map((kind) => ({ ...kind, steps: look.value?.steps.filter((s) => s.step === kind.step) ?? [] }))
    .filter((kind) => kind.steps.length),
)
const staying = computed(() => look.value?.steps.filter((s) => s.step === 'stays').length ?? 0)
const toDo = computed(() => look.value?.steps.filter((s) => ticked.value.has(s.key)).length ?? 0)
const onlyJoining = computed(() =>
  parts.value.every((p) => p.step === 'joins' || !p.steps.some((s) => ticked.value.has(s.key))),
)
const chooses = computed(() => (preview.value?.classes.length ?? 0) > 1)
const nameOf = (step: Step) => {
  if (step.entry) return `${step.entry.given} ${step.entry.family}`
  const student = page.data.value?.students.find((s) => s.id === step.student)
  return student ? `${student.called} ${student.family}` : ''
}

const decided = () => {
  const fields: Record<string, string> = {}
  if (mapping.value) fields.mapping = JSON.stringify(mapping.value)
  if (headless.value) fields.headless = 'true'
  if (bundleClass.value) fields.bundleClass = bundleClass.value
  return fields
}

async function lookAt(): Promise<void> {
  busy.value = true
  problem.value = undefined
  try {
    look.value = await sendFile<Schemas['RosterLook']>(
      `/api/classes/${props.id}/roster/preview`,
      file.value!,
      decided(),
    )
    const { classes, chosenClass } = look.value.file
    const namesake = classes.find((c) => c.title.trim().toLowerCase() === page.data.value?.name.toLowerCase())
    if (classes.length > 1 && !chosenClass && namesake) {
      bundleClass.value = namesake.id
      return await lookAt()
    }
    // Nobody leaves unless it is ticked: a file may be of half the class.
    const byItself = kinds.filter((k) => k.ticked).map((k) => k.step as string)
    ticked.value = new Set(look.value.steps.filter((s) => byItself.includes(s.step)).map((s) => s.key))
  } catch (failure) {
    look.value = undefined
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}

async function bringIn() {
  busy.value = true
  problem.value = undefined
  try {
    await sendFile(`/api/classes/${props.id}/roster`, file.value!, {
      ...decided(),
      leaveOut: String(leaveOut.value),
      ticked: JSON.stringify([...ticked.value]),
    })
    await queries.invalidateQueries()
    await router.push(`/classes/${props.id}`)
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}

function begin(taken: File, withoutHeadings = false) {
  file.value = taken
  mapping.value = undefined
  bundleClass.value = undefined
  headless.value = withoutHeadings
  leaveOut.value = false
  return lookAt()
}

async function takePasted() {
  if (!pasted.value.trim()) return
  const cells = new File([pasted.value], 'pasted cells', { type: 'text/plain' })
  await begin(cells)
  // Cells are often copied without their headings.
  if (problem.value || (preview.value && !preview.value.headingsKnown)) await begin(cells, true)
}

function remap(changed: Record<string, number>) {
  mapping.value = changed
  void lookAt()
}

function setHeadless(event: Event) {
  headless.value = !(event.target as HTMLInputElement).checked
  mapping.value = undefined
  void lookAt()
}

function tick(keys: string[], on: boolean) {
  const next = new Set(ticked.value)
  for (const key of keys) {
    if (on) next.add(key)
    else next.delete(key)
  }
  ticked.value = next
}
</script>

<template>
  <Page title="Bring in a roster" lead="One student a row. Nothing is stored until you say so.">
    <template #above><ClassTabs :id="id" :name="page.data.value?.name" /></template>
    <div class="ways">
      <FileDrop
        what="a roster"
        hint="A table (CSV or workbook) of any layout, or a rostering bundle (zip). Up to 20 MB."
        accept=".csv,.txt,.tsv,.xlsx,.zip,text/csv,text/plain"
        :busy="busy"
        @file="begin"
      />
      <form class="flex items-end gap-4" @submit.prevent="takePasted">
        <label class="flex-1"
          >Or paste cells from a spreadsheet<textarea
            v-model="pasted"
            class="field"
            rows="2"
            placeholder="Juno	Quillfeather"
          />
        </label>
        <button class="press" :disabled="busy || !pasted.trim()">Look at it</button>
      </form>
    </div>
    <Notice v-if="problem" tone="wrong" class="mt-5">{{ problem }}</Notice>

    <template v-if="preview && file">
      <h2 class="mt-8 text-head font-bold">{{ file.name }}</h2>
      <p class="text-ink-soft">
        {{ count(preview.lines.length, 'row') }}, {{ preview.readAs
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
          <ColumnChooser :columns="preview.columns" :fields="fields" @change="remap" />
          <label class="mt-2 flex items-center gap-2 text-small"
            ><input type="checkbox" class="size-5" :checked="!headless" @change="setHeadless" /> The first row holds
            headings</label
          >
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
          <label v-if="toDo > 0" class="mt-2 flex items-center gap-2"
            ><input v-model="leaveOut" type="checkbox" class="size-5" /> Leave
            {{ wrong.length === 1 ? 'this row' : 'these rows' }} out</label
          >
        </section>
        <Notice v-else>Nothing is wrong with it.</Notice>
      </div>

      <div v-if="!chooses || preview.chosenClass" class="mt-6 flex flex-wrap items-center gap-5">
        <button class="press-first" :disabled="busy || toDo === 0 || (wrong.length > 0 && !leaveOut)" @click="bringIn">
          {{ busy ? 'Reading…' : `Bring in ${count(toDo, onlyJoining ? 'student' : 'change')}` }}
        </button>
        <RouterLink class="press" :to="`/classes/${id}`">Leave it</RouterLink>
        <span v-if="staying" class="text-ink-soft">{{ count(staying, 'student') }} stay as they are.</span>
      </div>

      <section v-for="part in parts" :key="part.step" class="mt-7 max-w-[60rem]" :aria-label="part.head">
        <h3 class="rule-head">
          <span>{{ part.head }}: {{ part.steps.length }}</span>
          <span class="font-normal">
            <button
              class="quiet text-small"
              @click="
                tick(
                  part.steps.map((s) => s.key),
                  true,
                )
              "
            >
              all
            </button>
            <button
              class="quiet ml-4 text-small"
              @click="
                tick(
                  part.steps.map((s) => s.key),
                  false,
                )
              "
            >
              none
            </button>
          </span>
        </h3>
        <p v-if="part.step === 'leaves'" class="pt-1 text-small text-ink-soft">
          They are in the class and not in the file. Whoever is ticked leaves the class and keeps their past.
        </p>
        <ul>
          <li v-for="step in part.steps.slice(0, 300)" :key="step.key">
            <label class="rule-line cursor-pointer">
              <input
                type="checkbox"
                class="size-4 self-center"
                :checked="ticked.has(step.key)"
                @change="tick([step.key], ($event.target as HTMLInputElement).checked)"
              />
              <b class="w-[15rem] shrink-0 font-semibold">{{ nameOf(step) }}</b>
              <span v-if="step.step === 'joins' || step.step === 'returns'" class="min-w-0 text-ink-soft">
                {{
                  [
                    step.entry?.preferred && `called ${step.entry.preferred}`,
                    step.entry?.number,
                    step.entry?.email,
                    step.entry?.secondEmail,
                    step.entry?.phone,
                    step.entry?.tags,
                  ]
                    .filter(Boolean)
                    .join(' · ')
                }}
              </span>
              <span v-else class="min-w-0">
                <span v-for="change in step.changes" :key="change.field" class="mr-4"
                  ><span class="text-ink-soft">{{ labels[change.field] }}</span>
                  <s class="ml-1 text-ink-soft">{{ change.was || 'nothing' }}</s>
                  {{ change.becomes || 'nothing' }}</span
                >
              </span>
            </label>
          </li>
        </ul>
        <p v-if="part.steps.length > 300" class="mt-1 text-ink-soft">And {{ part.steps.length - 300 }} more.</p>
      </section>
    </template>
  </Page>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 28px;
  align-items: center;
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
