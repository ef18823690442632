<script setup lang="ts">
import { useBoard } from './board'
import BoardSheet from './BoardSheet.vue'

/** The window to share with the class. It has no buttons, no links and no way to anywhere else. */
const props = defineProps<{ id: string }>()
document.title = 'Class board'
const { board, problem, now } = useBoard(props.id)
</script>

<template>
  <main class="h-dvh overflow-hidden">
    <h1 class="sr-only">Class board</h1>
    <BoardSheet v-if="board" :board="board" :now="now" :lesson="id" />
    <p v-else class="p-8 text-ink-soft">{{ problem ? 'The board comes back in a moment.' : '' }}</p>
  </main>
</template>
