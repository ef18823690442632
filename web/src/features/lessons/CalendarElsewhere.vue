<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, ask } from '../../api/client'
import type { Done } from '../../ui/done'
import Notice from '../../ui/Notice.vue'

/** The calendar as a file, and by a private link for other programs. */
defineProps<{ hasLink?: boolean; timeZone?: string }>()
const emit = defineEmits<{ done: [what: Done] }>()
const queries = useQueryClient()
const link = ref<string>()
const copied = ref(false)

async function makeLink() {
  const made = await ask(api.POST('/api/calendar/link'))
  link.value = location.origin + made.path
  await queries.invalidateQueries()
}

async function revokeLink() {
  await ask(api.DELETE('/api/calendar/link'))
  link.value = undefined
  emit('done', { said: 'The private link opens nothing any more.' })
}

async function copy() {
  await navigator.clipboard.writeText(link.value!)
  copied.value = true
}
</script>

<template>
  <section aria-labelledby="away">
    <h2 id="away" class="rule-head">In other calendars</h2>
    <p class="mt-2">
      <a class="quiet" href="/api/calendar.ics" download>Take it as a file</a>, or let another program follow it by a
      private link.
      <button v-if="!hasLink" class="press ml-3" @click="makeLink">Make a private link</button>
      <template v-else>
        <button class="quiet ml-3" @click="makeLink">Make a new link</button>
        <button class="quiet ml-4" @click="revokeLink">Revoke the link</button>
      </template>
    </p>
    <Notice v-if="link" class="mt-3">
      Whoever has this address can read your calendar; it is shown this once.
      <span class="mt-1 flex flex-wrap items-center gap-4"
        ><input
          class="field max-w-[36rem]"
          readonly
          :value="link"
          aria-label="Private link"
          @focus="($event.target as HTMLInputElement).select()"
        />
        <button class="press" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</button></span
      >
    </Notice>
    <p v-if="timeZone" class="mt-2 text-small text-ink-soft">All times are those of {{ timeZone }}.</p>
  </section>
</template>
