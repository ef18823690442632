<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import Notice from '../../ui/Notice.vue'
import type { Rules } from '../ground-rules/rules'
import { asFile, fromFile } from './file'

/** Where a scheme can be taken from: prepared ones, other classes, a file. It is looked at before anything is stored. */
const props = defineProps<{ id: string; view: Schemas['SchemeView']; scheme: Rules['scheme'] }>()
const emit = defineEmits<{ take: [scheme: Rules['scheme'], reason: string] }>()
const classes = useQuery({ queryKey: ['classes'], queryFn: () => ask(api.GET('/api/classes')) })
const problem = ref<string>()
const copy = (scheme: Schemas['Scheme']) => JSON.parse(JSON.stringify(scheme)) as Rules['scheme']

async function choose(event: Event) {
  const select = event.target as HTMLSelectElement
  const [kind, key] = select.value.split(':') as [string, string]
  select.value = ''
  problem.value = undefined
  const prepared = props.view.prepared.find((p) => p.name === key)
  if (kind === 'prepared' && prepared) emit('take', copy(prepared.scheme), `the prepared scheme “${prepared.name}”`)
  if (kind === 'class') {
    const other = await ask(api.GET('/api/classes/{id}/scheme', { params: { path: { id: key } } }))
    emit('take', copy(other.scheme), `as in ${other.name}`)
  }
}

async function open(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  try {
    emit('take', fromFile(await file.text(), props.scheme), `from the file ${file.name}`)
    problem.value = undefined
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}
</script>

<template>
  <p class="flex flex-wrap items-baseline gap-x-4 py-1 text-small">
    <select class="field !w-40" aria-label="Start from another scheme" @change="choose">
      <option value="">Start from…</option>
      <optgroup label="Prepared">
        <option v-for="p in view.prepared" :key="p.name" :value="`prepared:${p.name}`" :title="p.about">
          {{ p.name }}
        </option>
      </optgroup>
      <optgroup label="Another class">
        <option v-for="c in classes.data.value?.filter((c) => c.id !== id)" :key="c.id" :value="`class:${c.id}`">
          {{ c.name }}
        </option>
      </optgroup>
    </select>
    <label class="quiet cursor-pointer"
      >from a file<input class="sr-only" type="file" accept=".json,application/json" @change="open"
    /></label>
    <button type="button" class="quiet" @click="asFile(scheme, view.name)">as a file</button>
  </p>
  <Notice v-if="problem" tone="wrong">{{ problem }}</Notice>
</template>
