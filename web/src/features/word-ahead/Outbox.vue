<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, ask } from '../../api/client'
import { hour, weekDay } from '../../ui/format'
import EmptyState from '../../ui/EmptyState.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'

const outbox = useQuery({ queryKey: ['outbox'], queryFn: () => ask(api.GET('/api/outbox')), refetchInterval: 10_000 })
const open = ref<string>()
</script>

<template>
  <Page
    title="Outbox"
    lead="Messages as they went out. Without a mail server in the settings they stop here, as files that any mail program opens."
  >
    <Notice v-if="outbox.error.value" tone="wrong">{{ outbox.error.value.message }}</Notice>
    <EmptyState v-if="outbox.data.value && !outbox.data.value.length" class="mt-6" title="Nothing has gone out">
      Word ahead is switched on among the ground rules of a class, or sent from the plan of a lesson.
    </EmptyState>
    <ul class="mt-5 max-w-[60rem]">
      <li v-for="message in outbox.data.value" :key="message.file">
        <button
          class="rule-line w-full text-start hover:underline"
          :aria-expanded="open === message.file"
          @click="open = open === message.file ? undefined : message.file"
        >
          <span class="w-[9.5rem] shrink-0"
            >{{ weekDay(Date.parse(message.at)) }}, {{ hour(Date.parse(message.at)) }}</span
          >
          <span class="w-[19rem] shrink-0 truncate text-ink-soft">{{ message.to }}</span>
          <b class="min-w-0 flex-1 truncate font-semibold">{{ message.subject }}</b>
        </button>
        <p v-if="open === message.file" class="message">{{ message.text }}</p>
      </li>
    </ul>
  </Page>
</template>

<style scoped>
.message {
  white-space: pre-line;
  border-left: 3px solid var(--ink);
  padding: 8px 0 12px 16px;
  margin: 4px 0 10px;
}
</style>
