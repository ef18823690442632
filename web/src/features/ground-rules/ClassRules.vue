<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, ask } from '../../api/client'
import ClassTabs from '../../ui/ClassTabs.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import RulesForm from './RulesForm.vue'
import type { Rules } from './rules'

const props = defineProps<{ id: string }>()
const queries = useQueryClient()
const params = { path: { id: props.id } }
const view = useQuery({
  queryKey: ['rules', props.id],
  queryFn: () => ask(api.GET('/api/classes/{id}/rules', { params })),
})
const classes = useQuery({ queryKey: ['classes'], queryFn: () => ask(api.GET('/api/classes')) })
const form = ref<InstanceType<typeof RulesForm>>()
const copied = ref<string>()
const failed = ref<string>()

async function store(rules: Rules) {
  const stored = await ask(api.PUT('/api/classes/{id}/rules', { params, body: { rules, why: '' } }))
  copied.value = undefined
  queries.setQueryData(['rules', props.id], stored.view)
  await queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'rules' })
  return stored
}

async function copyFrom(event: Event) {
  const select = event.target as HTMLSelectElement
  if (!select.value) return
  copied.value = failed.value = undefined
  try {
    const other = await ask(api.GET('/api/classes/{id}/rules', { params: { path: { id: select.value } } }))
    form.value!.bringIn(other.rules)
    copied.value = `These are the rules of ${other.name}. Look through them, then store them.`
  } catch (failure) {
    failed.value = (failure as Error).message
  }
  select.value = ''
}
</script>

<template>
  <Page>
    <template #above><ClassTabs :id="id" :name="view.data.value?.name" /></template>
    <div class="flex max-w-[70rem] flex-wrap items-end gap-6">
      <p class="flex-1 text-lead text-ink-soft">
        What this class has agreed on. Each rule is shown at work on a lesson of 50 minutes, reckoned by the rules
        themselves. How scores are made of it stands in the
        <RouterLink class="quiet" :to="`/classes/${id}/scheme`">scheme</RouterLink>.
      </p>
      <label class="w-[17rem] text-small text-ink-soft"
        >Copy from another class<select
          class="field text-base text-ink"
          :disabled="!view.data.value"
          @change="copyFrom"
        >
          <option value="">choose a class</option>
          <option v-for="c in classes.data.value?.filter((c) => c.id !== id)" :key="c.id" :value="c.id">
            {{ c.name }}
          </option>
        </select></label
      >
    </div>
    <Notice v-if="view.data.value?.cannotBeRead" tone="wrong" class="mt-3">
      The rules that were stored for this class cannot be read, so the usual ones count meanwhile. Change what should be
      different and store them, or
      <button class="quiet" @click="store(view.data.value.rules as Rules)">keep the usual rules</button>.
    </Notice>
    <Notice v-if="copied" class="mt-3">{{ copied }}</Notice>
    <Notice v-if="failed" tone="wrong" class="mt-3">{{ failed }}</Notice>
    <Notice v-if="view.error.value" tone="wrong">{{ view.error.value.message }}</Notice>
    <RulesForm v-if="view.data.value" ref="form" :view="view.data.value" :store="store" origin="the default">
      <template #rubric-act
        ><RouterLink class="quiet text-small font-normal" :to="`/classes/${id}/rubric`">To print</RouterLink></template
      >
    </RulesForm>
  </Page>
</template>
