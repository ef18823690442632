<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { hour } from '../../ui/format'
import SidePanel from './SidePanel.vue'

/** The way to the student page of this lesson, and the browsers in which it is open. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const { head, drawn, note } = useLive()
const queries = useQueryClient()
const key = ['way-in', props.id]
const { data } = useQuery({
  queryKey: key,
  queryFn: () => ask(api.GET('/api/lessons/{id}/way-in', { params: { path: { id: props.id } } })),
})
const open = computed(() => drawn.value?.rows.filter((r) => r.page).length ?? 0)
watch([open, () => drawn.value?.callers.length], () => void queries.invalidateQueries({ queryKey: key }))
const copied = ref(false)
const up = computed(() => drawn.value?.board.some((b) => b.item === 'wayIn'))
const nameOf = (page: Schemas['OpenPage']) =>
  drawn.value?.rows.find((r) => r.id === page.student)?.shortName ?? (page.name || 'a student')
async function copy() {
  await navigator.clipboard.writeText(data.value?.sentence ?? '')
  copied.value = true
}
async function end(page: Schemas['OpenPage']) {
  const params = { path: { id: props.id, session: page.session } }
  queries.setQueryData(key, await ask(api.DELETE('/api/lessons/{id}/pages/{session}', { params })))
}
</script>

<template>
  <SidePanel title="Student page" @close="emit('close')">
    <div v-if="data" class="text-small">
      <p class="mt-2 text-head leading-tight font-bold tracking-wide">{{ data.code }}</p>
      <p class="break-all text-ink-soft">{{ data.address }}</p>
      <p class="my-2 flex flex-wrap gap-x-4 gap-y-1">
        <button class="press" @click="copy">{{ copied ? 'Copied' : 'Copy for the chat' }}</button>
        <button class="quiet" @click="note({ type: up ? 'boardTaken' : 'boardPut', item: 'wayIn' })">
          {{ up ? 'off the board' : 'on the board' }}
        </button>
      </p>
      <img class="code" :src="`/api/lessons/${id}/way-in.svg`" alt="The address as a code for a camera" />
      <p v-if="head?.tries.tooManyKnocks" class="mt-2 font-semibold" role="alert">
        More people came with only a name than are taken in ten minutes. The others were told to come in with a pass.
      </p>
      <p v-if="head?.tries.wrong" class="mt-2 font-semibold" role="alert">
        {{ head.tries.wrong }} wrong passes were tried in the last ten minutes. Whoever tries on is slowed down, then
        refused.
      </p>
      <p class="mt-3 border-b-[1.5px] border-ink font-semibold">{{ open }} open now</p>
      <p v-for="page in data.pages" :key="page.session" class="flex items-baseline gap-2 border-b border-rule py-1">
        <b class="truncate">{{ nameOf(page) }}</b>
        <span class="flex-1 text-ink-soft">{{ page.device }}, {{ hour(page.since) }}</span>
        <button class="quiet" :aria-label="`End the page of ${nameOf(page)} on a ${page.device}`" @click="end(page)">
          end
        </button>
      </p>
    </div>
  </SidePanel>
</template>

<style scoped>
.code {
  width: 150px;
  background: #fff;
}
</style>
