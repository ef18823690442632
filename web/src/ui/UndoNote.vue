<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Done } from './done'
import Notice from './Notice.vue'

/** Says what was done, with the way back beside it. It stays until something else is done or it is put away. */
const done = defineModel<Done | undefined>()
const problem = ref<string>()
watch(done, () => (problem.value = undefined))

async function undo() {
  try {
    await done.value?.undo?.()
    done.value = undefined
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}
</script>

<template>
  <Notice v-if="done" :tone="problem ? 'wrong' : 'plain'">
    {{ problem ?? done.said }}
    <button v-if="done.undo" class="quiet ml-3 font-semibold" @click="undo">Undo</button>
    <button class="quiet ml-3 text-ink-soft" @click="done = undefined">Put away</button>
  </Notice>
</template>
