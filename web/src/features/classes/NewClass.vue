<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask } from '../../api/client'
import Notice from '../../ui/Notice.vue'
import { vFocus } from '../../ui/vFocus'

/** A class to be named; its roster comes next. Where there is none yet, one writes at once. */
defineProps<{ first?: boolean }>()
const router = useRouter()
const queries = useQueryClient()
const name = ref('')
const problem = ref('')

async function make() {
  problem.value = ''
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
  <div>
    <form class="flex max-w-[30rem] items-end gap-5" @submit.prevent="make">
      <label class="flex-1"
        >A new class<input
          v-model="name"
          v-focus="first"
          class="field"
          required
          maxlength="100"
          placeholder="Weather and Tides, year 8"
      /></label>
      <button class="press-first">Make it</button>
    </form>
    <Notice v-if="problem" tone="wrong" class="mt-3">{{ problem }}</Notice>
  </div>
</template>
