<script setup lang="ts">
import { nextTick, ref } from 'vue'
import { moved, useReorder } from './reorder'

/** A list of short lines: write, add with Enter, take out, move by dragging or with Alt and the arrows. */
const props = defineProps<{
  label: string
  most: number
  addLabel: string
  numbered?: boolean
  keys?: readonly string[]
}>()
const lines = defineModel<string[]>({ required: true })
const list = ref<HTMLElement>()

const move = (from: number, to: number) => (lines.value = moved(lines.value, from, to))
useReorder(list, move)

const write = (index: number, text: string) => (lines.value = lines.value.map((l, i) => (i === index ? text : l)))
const takeOut = (index: number) => (lines.value = lines.value.filter((_, i) => i !== index))

async function add(after = lines.value.length - 1) {
  if (lines.value.length >= props.most) return
  lines.value = [...lines.value.slice(0, after + 1), '', ...lines.value.slice(after + 1)]
  await focus(after + 1)
}

async function focus(index: number) {
  await nextTick()
  list.value?.querySelectorAll('input')[index]?.focus()
}

async function step(index: number, by: number) {
  const to = index + by
  if (to < 0 || to >= lines.value.length) return
  move(index, to)
  await focus(to)
}
</script>

<template>
  <div>
    <ol ref="list" :aria-label="label">
      <li v-for="(line, index) in lines" :key="index" class="flex items-center gap-2">
        <span class="handle" aria-hidden="true">⋮⋮</span>
        <span v-if="keys" class="w-5 text-center font-bold">{{ keys[index] }}</span>
        <input
          class="field"
          :value="line"
          maxlength="120"
          :aria-label="`${label}, line ${index + 1}`"
          @input="write(index, ($event.target as HTMLInputElement).value)"
          @keydown.enter.prevent="add(index)"
          @keydown.alt.up.prevent="step(index, -1)"
          @keydown.alt.down.prevent="step(index, 1)"
        />
        <button
          type="button"
          class="quiet text-small"
          :aria-label="`Take out: ${line || 'empty line'}`"
          @click="takeOut(index)"
        >
          out
        </button>
      </li>
    </ol>
    <button v-if="lines.length < most" type="button" class="quiet mt-1" @click="add()">{{ addLabel }}</button>
  </div>
</template>
