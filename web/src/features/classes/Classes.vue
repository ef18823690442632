<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask } from '../../api/client'
import { count } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'

const router = useRouter()
const queries = useQueryClient()
const classes = useQuery({ queryKey: ['classes'], queryFn: () => ask(api.GET('/api/classes')) })
const name = ref('')
const problem = ref<string>()

async function make() {
  try {
    const made = await ask(api.POST('/api/classes', { body: { name: name.value } }))
    await queries.invalidateQueries()
    await router.push(`/classes/${made.id}/roster`)
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}
</script>

<template>
  <Page title="Classes">
    <Notice v-if="classes.error.value" tone="wrong">{{ classes.error.value.message }}</Notice>
    <table v-if="classes.data.value?.length" class="sheet-table mt-5 max-w-[46rem]">
      <thead>
        <tr>
          <th>Class</th>
          <th>Students</th>
          <th>Lessons</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="c in classes.data.value" :key="c.id">
          <td>
            <RouterLink class="quiet font-semibold" :to="`/classes/${c.id}`">{{ c.name }}</RouterLink>
          </td>
          <td>{{ c.students }}</td>
          <td>{{ c.lessons }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="classes.data.value" class="mt-3 text-lead text-ink-soft">
      There is no class yet. Name one; its roster comes next.
    </p>
    <form class="mt-8 flex max-w-[30rem] items-end gap-5" @submit.prevent="make">
      <label class="flex-1"
        >A new class<input
          v-model="name"
          class="field"
          required
          maxlength="100"
          placeholder="Weather and Tides, year 8"
      /></label>
      <button class="press-first">Make it</button>
    </form>
    <Notice v-if="problem" tone="wrong" class="mt-3">{{ problem }}</Notice>
    <p v-if="classes.data.value?.length" class="sr-only">{{ count(classes.data.value.length, 'class', 'classes') }}</p>
  </Page>
</template>
