<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { count } from '../../ui/format'

/** Putting results up on the class board: what is shown with them is chosen each time, and what is up follows what is chosen. */
const props = defineProps<{ view: Schemas['AskingView']; canName: boolean; named: string[] }>()
const naming = defineModel<boolean>('naming', { required: true })
const { drawn, note } = useLive()

const withRight = ref(props.view.onBoard?.withRight ?? false)
const holdBack = ref(props.view.onBoard?.holdBackFew ?? false)
// Taken off is taken off at once, in pencil: what is chosen while that is on its way must not put the results up again.
const isUp = computed(() => !!props.view.onBoard && drawn.value!.board.some((b) => b.item === 'results'))
const putUp = () =>
  note({
    type: 'resultsPut',
    asking: props.view.asking,
    withRight: withRight.value,
    holdBackFew: holdBack.value,
    named: props.named,
  })
watch([withRight, holdBack, () => props.named], () => isUp.value && putUp())
</script>

<template>
  <p class="mt-3 flex flex-wrap items-center gap-x-5 gap-y-1 text-small">
    <button v-if="isUp" class="press" @click="note({ type: 'boardTaken', item: 'results' })">Take off the board</button>
    <button v-else class="press" :disabled="!!view.heldBack" @click="putUp">Put on the board</button>
    <label v-if="view.question.purpose === 'quiz'" class="flex items-center gap-1"
      ><input v-model="withRight" type="checkbox" class="size-4" /> with what was right</label
    >
    <label class="flex items-center gap-1"
      ><input v-model="holdBack" type="checkbox" class="size-4" /> counts under 3 held back</label
    >
    <button v-if="canName" class="quiet" :aria-expanded="naming" @click="naming = !naming">
      {{ named.length ? `with ${count(named.length, 'name')}` : 'with a name…' }}
    </button>
  </p>
</template>
