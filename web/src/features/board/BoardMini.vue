<script setup lang="ts">
import { useBoard } from './board'
import BoardSheet from './BoardSheet.vue'

/** The class board as it is, small: from the same place as the window that is shared. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ fits: [fits: boolean] }>()
const { board, now } = useBoard(props.id)
</script>

<template>
  <div class="frame" role="img" aria-label="The class board as the class sees it">
    <div v-if="board" class="whole" inert>
      <BoardSheet :board="board" :now="now" :lesson="id" @fits="emit('fits', $event)" />
    </div>
  </div>
</template>

<style scoped>
.frame {
  /* Width within the border, in px. */
  --wide: 211;
  box-sizing: content-box;
  width: calc(var(--wide) * 1px);
  aspect-ratio: 16 / 9;
  overflow: hidden;
  border: 1.5px solid var(--ink);
}
.whole {
  width: 1280px;
  height: 720px;
  transform: scale(calc(var(--wide) / 1280));
  transform-origin: 0 0;
}
/* Half a window. */
@media (max-width: 900px) {
  .frame {
    --wide: 175;
  }
}
</style>
