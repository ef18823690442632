<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, ask, type Schemas } from '../../api/client'
import type { Done } from '../../ui/done'
import { shortDay } from '../../ui/format'

/** Layouts of files of which the teacher said once how they are read: remembered, and forgotten by one press. */
const props = defineProps<{ classId: string }>()
const emit = defineEmits<{ done: [done: Done] }>()
const params = { path: { id: props.classId } }
const queryKey = ['known-layouts', props.classId]
const queries = useQueryClient()
const layouts = useQuery({ queryKey, queryFn: () => ask(api.GET('/api/classes/{id}/layouts', { params })) })

async function forget({ layout, fileName, said }: Schemas['KnownLayoutLine']) {
  const put = async (known: boolean) => {
    const left = await ask(api.PUT('/api/classes/{id}/layouts', { params, body: { layout, fileName, said, known } }))
    queries.setQueryData(queryKey, left)
  }
  await put(false)
  emit('done', { said: `A file like “${fileName}” is asked about again.`, undo: () => put(true) })
}
</script>

<template>
  <section v-if="layouts.data.value?.length" aria-labelledby="known-layouts">
    <h2 id="known-layouts" class="rule-head">Known layouts</h2>
    <ul>
      <li v-for="line in layouts.data.value" :key="line.layout" class="rule-line">
        <span class="min-w-0 flex-1 truncate">files like “{{ line.fileName }}”</span>
        <span class="text-small text-ink-soft">said {{ shortDay(line.notedAt) }}</span>
        <button class="quiet text-small" :aria-label="`Forget the layout of ${line.fileName}`" @click="forget(line)">
          forget
        </button>
      </li>
    </ul>
  </section>
</template>
