<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { count, hour, shortDay } from '../../ui/format'
import type { Asked } from './kinds'

/** The reports of the whole class at once: in one archive, or each by mail; and what went to whom. */
const props = defineProps<{ classId: string; asked: Asked }>()
const client = useQueryClient()
const round = ref<Schemas['RoundView']>()
const problem = ref('')
const goesOn = computed(() => !!round.value && !round.value.said)
const guardian = computed(() => props.asked.reader === 'guardian')

async function begin(by: Schemas['RoundBy']) {
  problem.value = ''
  const body = {
    id: crypto.randomUUID(),
    students: [],
    by,
    reader: props.asked.reader ?? null,
    from: props.asked.from ?? null,
    to: props.asked.to ?? null,
    letter: false,
  }
  try {
    round.value = await ask(api.POST('/api/classes/{id}/rounds', { params: { path: { id: props.classId } }, body }))
    await follow()
  } catch (e) {
    problem.value = (e as Error).message
  }
}
async function follow() {
  while (round.value && !round.value.said) {
    await new Promise((r) => setTimeout(r, 300))
    const path = { id: props.classId, round: round.value.id }
    round.value = await ask(api.GET('/api/classes/{id}/rounds/{round}', { params: { path } }))
  }
  void client.invalidateQueries({ queryKey: ['sent', props.classId] })
}
const sent = useQuery({
  queryKey: ['sent', props.classId],
  queryFn: () => ask(api.GET('/api/classes/{id}/sent', { params: { path: { id: props.classId } } })),
})
</script>

<template>
  <section class="no-print mt-6 border-t border-rule pt-3 text-small" aria-label="The whole class at once">
    <p class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <b>The whole class at once</b>
      <button class="quiet" :disabled="goesOn" @click="begin('zip')">all PDF in one archive</button>
      <button class="quiet" :disabled="goesOn" @click="begin('mail')">
        {{ guardian ? 'send to each home by mail' : 'send to each student by mail' }}
      </button>
      <progress v-if="goesOn" :value="round!.done" :max="round!.of" aria-label="how far it has come" />
      <span v-if="round" role="status">
        {{ round.said || `${round.done} of ${round.of}…` }}
        <a v-if="round.hasFile" class="quiet" :href="`/api/classes/${classId}/rounds/${round.id}/reports.zip`" download
          >take the archive</a
        >
      </span>
      <span v-if="problem" role="alert">{{ problem }}</span>
    </p>
    <details v-if="round?.problems.length" class="mt-1">
      <summary>What did not go, and why: {{ round.problems.length }}</summary>
      <p v-for="p in round.problems" :key="p">{{ p }}</p>
    </details>
    <details v-if="sent.data.value?.length" class="mt-1">
      <summary>What went to whom: {{ count(sent.data.value.length, 'report') }}</summary>
      <p v-for="(s, i) in sent.data.value" :key="i" class="flex flex-wrap gap-x-4 border-b border-rule py-0.5">
        <span class="w-28">{{ shortDay(s.at) }}, {{ hour(s.at) }}</span>
        <bdi class="font-bold">{{ s.name }}</bdi>
        <bdi>{{ s.to }}</bdi>
        <span class="text-ink-soft">{{ s.problem || 'went' }}</span>
      </p>
    </details>
  </section>
</template>
