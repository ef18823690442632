<script setup lang="ts">
import { computed } from 'vue'
import LineList from '../../ui/LineList.vue'
import { newId, type Plan } from './plan'

/** Lines with an id each, written as a list of lines. */
defineProps<{ label: string; addLabel: string }>()
const points = defineModel<Plan['points']>({ required: true })

const lines = computed({
  get: () => points.value.map((p) => p.text),
  set: (texts: string[]) => {
    // A line keeps its id when it moves or when its neighbours come and go; one that was rewritten keeps it by its place.
    const left = [...points.value]
    const taken = texts.map((text) => {
      const at = left.findIndex((p) => p.text === text)
      return at < 0 ? undefined : left.splice(at, 1)[0]
    })
    const sameLength = texts.length === points.value.length
    points.value = texts.map((text, i) => ({ id: taken[i]?.id ?? (sameLength ? points.value[i]!.id : newId()), text }))
  },
})
</script>

<template>
  <LineList v-model="lines" :label="label" :add-label="addLabel" :most="60" />
</template>
