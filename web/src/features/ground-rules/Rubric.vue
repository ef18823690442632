<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { api, ask } from '../../api/client'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import Rendered from '../../ui/Rendered.vue'

/** The rubric and the agreed signals, large, to print or to hold up. */
const props = defineProps<{ id: string }>()
const view = useQuery({
  queryKey: ['rules', props.id],
  queryFn: () => ask(api.GET('/api/classes/{id}/rules', { params: { path: { id: props.id } } })),
})
const print = () => window.print()
</script>

<template>
  <Page :title="view.data.value?.name">
    <template #above>
      <p class="no-print mb-3 flex gap-5">
        <RouterLink class="quiet" :to="`/classes/${id}/rules`">Back to the ground rules</RouterLink>
        <button class="quiet" @click="print">Print</button>
      </p>
    </template>
    <Notice v-if="view.error.value" tone="wrong">{{ view.error.value.message }}</Notice>
    <template v-if="view.data.value">
      <Rendered
        v-if="view.data.value.rubricHtml"
        class="mt-5 max-w-[46rem] text-head"
        :html="view.data.value.rubricHtml"
      />
      <p v-else class="mt-4 text-ink-soft">There is no rubric yet. It is written among the ground rules.</p>
      <template v-if="view.data.value.rules.signals?.length">
        <h2 class="rule-head mt-8 max-w-[46rem] text-lead">Agreed signals</h2>
        <dl class="max-w-[46rem] text-lead">
          <div v-for="signal in view.data.value.rules.signals" :key="signal.meaning" class="rule-line">
            <dt class="w-40 font-bold">{{ signal.meaning }}</dt>
            <dd>{{ signal.gesture }}</dd>
          </div>
        </dl>
      </template>
    </template>
  </Page>
</template>
