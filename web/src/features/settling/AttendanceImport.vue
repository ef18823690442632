<script setup lang="ts">
import { computed, ref } from 'vue'
import { sendFile, type Schemas } from '../../api/client'
import { count, hour, minutes } from '../../ui/format'
import ColumnChooser from '../../ui/ColumnChooser.vue'
import FileDrop from '../../ui/FileDrop.vue'
import Notice from '../../ui/Notice.vue'
import FilesBroughtIn from './FilesBroughtIn.vue'

const props = defineProps<{ id: string; broughtIn: Schemas['FileIn'][]; demo?: string }>()
const emit = defineEmits<{ done: [view: Schemas['SettlingView']] }>()

const fields = [
  { name: 'name', label: 'name in the meeting' },
  { name: 'joined', label: 'joining time' },
  { name: 'left', label: 'leaving time' },
  { name: 'length', label: 'minutes there' },
  { name: 'event', label: 'event (joined or left)' },
  { name: 'time', label: 'time of the event' },
  { name: 'date', label: 'day of its times' },
  { name: 'email', label: 'e-mail address' },
  { name: 'number', label: 'student number' },
  { name: 'person', label: 'id of the person' },
  { name: 'device', label: 'device' },
] as const
// Browsers do not list every name of a zone; the school's own is always there.
const zones = computed(() =>
  [...new Set([...(look.value ? [look.value.timeZone] : []), ...Intl.supportedValuesOf('timeZone')])].sort(),
)

const file = ref<File>()
const mapping = ref<Record<string, number>>()
const zone = ref<string>()
const look = ref<Schemas['AttendanceLook']>()
const leaveOut = ref(false)
const problem = ref<string>()
const busy = ref(false)
const wrong = computed(() => look.value?.list.rows.filter((l) => l.problems.length) ?? [])
const sureOf = (certainty: Schemas['Certainty']) => look.value?.names.filter((n) => n.certainty === certainty) ?? []
const nameOf = (student: string | null) => look.value?.people.find((p) => p.id === student)?.fullName ?? 'not a student'

/** What its columns are taken for now, as a decision. */
const taken = computed(() =>
  Object.fromEntries((look.value?.list.columns ?? []).flatMap((c) => (c.field ? [[c.field, c.index]] : []))),
)
const headingsOf = (used: boolean) =>
  look.value?.list.columns.filter((c) => !!c.field === used).map((c) => c.heading) ?? []
const used = computed(() => headingsOf(true))
const unused = computed(() => headingsOf(false))

const decided = () => {
  const form: Record<string, string> = { leaveOut: String(leaveOut.value) }
  if (mapping.value) form.mapping = JSON.stringify(mapping.value)
  if (zone.value) form.zone = zone.value
  return form
}

async function attempt(action: () => Promise<void>) {
  busy.value = true
  problem.value = undefined
  try {
    await action()
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}

const preview = () =>
  attempt(async () => {
    look.value = undefined
    look.value = await sendFile<Schemas['AttendanceLook']>(
      `/api/lessons/${props.id}/attendance/preview`,
      file.value!,
      decided(),
    )
  })
const bringIn = () =>
  attempt(async () => {
    emit('done', await sendFile<Schemas['SettlingView']>(`/api/lessons/${props.id}/attendance`, file.value!, decided()))
    file.value = look.value = undefined
  })

/** The name of a file that was dropped and not brought in. */
const waiting = computed(() => file.value?.name)
defineExpose({ waiting, bringIn })

function take(dropped: File) {
  file.value = dropped
  mapping.value = zone.value = undefined
  leaveOut.value = false
  void preview()
}

function remap(changed: Record<string, number>) {
  mapping.value = changed
  void preview()
}

function rezone(event: Event) {
  zone.value = (event.target as HTMLSelectElement).value
  void preview()
}
</script>

<template>
  <div>
    <FilesBroughtIn v-if="broughtIn.length" :lesson="id" :files="broughtIn" @done="emit('done', $event)" />
    <FileDrop
      class="mt-3 max-w-[46rem]"
      what="the attendance list of the meeting"
      hint="A CSV file with names and joining and leaving times, or minutes, or one event a row."
      :busy="busy"
      @file="take"
    />
    <p v-if="demo && !broughtIn.length && !look" class="mt-2 text-small text-ink-soft">
      The demo school left its list in the data folder: demo-files/{{ demo }}.
    </p>
    <Notice v-if="problem" tone="wrong" class="mt-3">{{ problem }}</Notice>

    <div v-if="look && file" class="mt-4 border-l-[3px] border-ink pl-5">
      <h3 class="text-lead font-bold">{{ file.name }}, {{ count(look.list.rows.length, 'row') }}</h3>
      <Notice v-if="look.broughtInBefore"
        >This very file was brought in before. Bringing it in again changes nothing.</Notice
      >
      <Notice v-for="p in look.list.problems" :key="p" tone="wrong">{{ p }}</Notice>
      <Notice v-if="look.list.unclear.length" tone="wrong">
        {{ look.list.unclear.join(' ') }} Say below what its columns are, or
        <button class="press" @click="remap(taken)">read it so</button>
      </Notice>
      <Notice v-for="remark in look.list.remarks" :key="remark">{{ remark }}</Notice>
      <p v-if="!look.list.namesZone" class="mt-2">
        <label>
          <span class="marked">The file does not say its time zone.</span> Its times are read as
          <select class="field inline-block w-auto" :value="look.timeZone" @change="rezone">
            <option v-for="z in zones" :key="z">{{ z }}</option>
          </select>
        </label>
      </p>
      <div class="mt-3 max-w-[46rem]">
        <p class="mb-1 text-small text-ink-soft">
          Used: {{ used.join(', ') || 'no column' }}.
          <template v-if="unused.length">Not used: {{ unused.join(', ') }}.</template>
        </p>
        <ColumnChooser :columns="look.list.columns" :fields="fields" @change="remap" />
      </div>

      <template v-if="!look.list.problems.length">
        <div v-if="wrong.length" class="mt-4">
          <Notice tone="wrong">{{ count(wrong.length, 'row') }} cannot be read.</Notice>
          <ul>
            <li v-for="line in wrong.slice(0, 8)" :key="line.row" class="py-0.5">
              <b>Row {{ line.row }}</b> {{ line.problems.join(' It ') }}
            </li>
          </ul>
          <label class="mt-1 flex items-center gap-2"
            ><input v-model="leaveOut" type="checkbox" class="size-5" /> Leave
            {{ wrong.length === 1 ? 'this row' : 'these rows' }} out</label
          >
        </div>
        <p class="mt-4">
          {{ count(look.names.length, 'name') }}: <b>{{ sureOf('sure').length }} sure</b>,
          {{ sureOf('likely').length }} likely, {{ sureOf('unknown').length }} unknown. You decide about these next.
        </p>
        <ul class="names">
          <li v-for="n in look.names" :key="n.name + n.beside">
            <b>{{ n.name }}</b>
            <i class="text-ink-soft">{{
              n.certainty === 'unknown' ? 'unknown' : `${n.certainty}: ${nameOf(n.student)}`
            }}</i>
          </li>
        </ul>
        <details class="mt-2">
          <summary class="quiet inline-block">Rows as they were read</summary>
          <table class="sheet-table mt-1 max-w-[46rem]">
            <thead>
              <tr>
                <th>Row</th>
                <th>Name</th>
                <th>Joined</th>
                <th>Left</th>
                <th>There for</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="line in look.list.rows" :key="line.row">
                <td>{{ line.row }}</td>
                <td>{{ line.name }}</td>
                <td>{{ line.joined ? hour(line.joined) : '' }}</td>
                <td>{{ line.left ? hour(line.left) : '' }}</td>
                <td>{{ line.length ? minutes(line.length * 1000) : '' }}</td>
              </tr>
            </tbody>
          </table>
        </details>
        <p class="mt-4 flex gap-5">
          <button
            class="press-first"
            :disabled="busy || look.list.unclear.length > 0 || (wrong.length > 0 && !leaveOut)"
            @click="bringIn"
          >
            Bring it in
          </button>
          <button class="press" @click="((look = undefined), (file = undefined))">Leave it</button>
        </p>
      </template>
    </div>
  </div>
</template>

<style scoped>
.names {
  columns: 3 14rem;
  column-gap: 28px;
  font-size: var(--text-small);
  max-width: 60rem;
}
</style>
