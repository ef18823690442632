<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import SpanChoice from '../../ui/SpanChoice.vue'
import { strands } from '../ground-rules/rules'
import { queryOf } from '../../ui/query'
import { isOfHours, type Asked, type SortBy } from './sheet'

/** What is looked at on the sheet of scores, and in which order; and the ways to take it elsewhere. */
const props = defineProps<{ sheet: Schemas['ScoreSheet']; asked: Asked; tags: readonly string[]; looked: number }>()
const emit = defineEmits<{ ask: [asked: Asked] }>()
const sortBy = defineModel<SortBy>('sortBy', { required: true })
const tag = defineModel<string>('tag', { required: true })
const band = defineModel<string>('band', { required: true })
const look = defineModel<boolean>('look', { required: true })

const hours = computed(() => isOfHours(props.sheet))
const books = [
  { as: 'gradebook.csv', label: 'CSV' },
  { as: 'gradebook.xlsx', label: 'workbook' },
  { as: 'gradebook.zip', label: 'open bundle' },
]
const value = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
</script>

<template>
  <p class="no-print mt-2 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-small">
    <label v-if="!hours"
      >show
      <select
        class="field !w-auto"
        :value="asked.strand ?? ''"
        @change="emit('ask', { ...asked, strand: (value($event) || undefined) as Asked['strand'] })"
      >
        <option value="">scores</option>
        <option v-for="s in strands" :key="s.name" :value="s.name">{{ s.label.toLowerCase() }} alone</option>
      </select></label
    >
    <SpanChoice
      :terms="sheet.terms"
      :from="asked.from"
      :to="asked.to"
      @ask="(span) => emit('ask', { ...asked, ...span })"
    />
    <label
      >in order of
      <select v-model="sortBy" class="field !w-auto">
        <option value="name">names</option>
        <option value="term">{{ hours ? 'hours' : 'the term' }}, lowest first</option>
        <option v-if="!hours" value="trend">change, loss first</option>
      </select></label
    >
    <label v-if="tags.length"
      >tag
      <select v-model="tag" class="field !w-auto">
        <option value="">any</option>
        <option v-for="t in tags" :key="t">{{ t }}</option>
      </select></label
    >
    <label v-if="sheet.bands.length"
      >band
      <select v-model="band" class="field !w-auto">
        <option value="">any</option>
        <option v-for="b in sheet.bands" :key="b.from">{{ b.name }}</option>
      </select></label
    >
    <label v-if="looked && !hours" class="flex items-center gap-2 self-end"
      ><input v-model="look" type="checkbox" class="size-6" /> only the {{ looked }} that need a look</label
    >
    <span class="flex gap-4">
      take as
      <a
        v-for="b in books"
        :key="b.as"
        class="quiet"
        :href="`/api/classes/${sheet.classId}/${b.as}${queryOf({ from: asked.from, to: asked.to })}`"
        download
        >{{ b.label }}</a
      >
    </span>
    <slot />
  </p>
</template>
