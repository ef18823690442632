<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, ask } from '../../api/client'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import RulesForm from './RulesForm.vue'
import type { Rules } from './rules'

const props = defineProps<{ id: string }>()
const queries = useQueryClient()
const params = { path: { id: props.id } }
const view = useQuery({
  queryKey: ['lesson-rules', props.id],
  queryFn: () => ask(api.GET('/api/lessons/{id}/rules', { params })),
})

async function store(rules: Rules) {
  const stored = await ask(api.PUT('/api/lessons/{id}/rules', { params, body: { rules, why: '' } }))
  queries.setQueryData(['lesson-rules', props.id], stored.view)
  await queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'lesson-rules' })
  return stored
}
</script>

<template>
  <Page
    :title="view.data.value?.name"
    lead="The ground rules of this one lesson. What is not changed here follows the class."
  >
    <template #above><RouterLink class="quiet" :to="`/lessons/${id}/plan`">Back to the plan</RouterLink></template>
    <Notice v-if="view.error.value" tone="wrong">{{ view.error.value.message }}</Notice>
    <RulesForm v-if="view.data.value" :view="view.data.value" :store="store" origin="the class" with-scheme />
  </Page>
</template>
