<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { count, shortDay } from '../../ui/format'
import type { Rules } from '../ground-rules/rules'

/** What the scheme was before: who changed it, when and why, and how many settled lessons are scored by each version. */
defineProps<{ versions: readonly Schemas['VersionLine'][] }>()
const emit = defineEmits<{ take: [scheme: Rules['scheme'], reason: string] }>()
</script>

<template>
  <details v-if="versions.length">
    <summary class="quiet text-small">{{ count(versions.length, 'version') }}</summary>
    <ol class="text-small">
      <li v-for="v in versions" :key="v.number" class="border-b border-rule py-1">
        <b>{{ v.number }}</b>, {{ shortDay(v.madeAt) }}<template v-if="v.by">, {{ v.by }}</template
        >: {{ v.why }}
        <span class="block text-ink-soft"
          >{{ count(v.lessons, 'settled lesson') }}
          <button
            type="button"
            class="quiet ml-2"
            @click="emit('take', JSON.parse(JSON.stringify(v.scheme)), `back to version ${v.number}`)"
          >
            try it again
          </button></span
        >
      </li>
    </ol>
  </details>
</template>
