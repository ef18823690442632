<script setup lang="ts">
import { count } from '../../ui/format'
import Notice from '../../ui/Notice.vue'

/** Rows of a file that cannot be brought in, and the way on without them. */
const leaveOut = defineModel<boolean>({ required: true })
defineProps<{ lines: readonly { row: number; problems: readonly string[] }[]; canLeaveOut: boolean }>()
const most = 12
</script>

<template>
  <section aria-label="Rows with something wrong">
    <Notice tone="wrong"
      >{{ count(lines.length, 'row') }} cannot be brought in as
      {{ lines.length === 1 ? 'it stands' : 'they stand' }}.</Notice
    >
    <ul class="mt-2">
      <li v-for="line in lines.slice(0, most)" :key="line.row" class="border-b border-rule py-1">
        <b>Row {{ line.row }}</b> {{ line.problems.join(' It ') }}
      </li>
    </ul>
    <p v-if="lines.length > most" class="py-1 text-ink-soft">And {{ lines.length - most }} more.</p>
    <label v-if="canLeaveOut" class="mt-2 flex items-center gap-2"
      ><input v-model="leaveOut" type="checkbox" class="size-5" /> Leave
      {{ lines.length === 1 ? 'this row' : 'these rows' }} out</label
    >
  </section>
</template>
