<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { count } from '../../ui/format'
import Notice from '../../ui/Notice.vue'

/** From when on a change holds. Nothing in the past moves unless it is said here. */
const why = defineModel<string>({ required: true })
const props = defineProps<{
  changed: boolean
  wrong: string | undefined
  due: number
  lessons: readonly Schemas['SchemeLesson'][]
  chosen: readonly string[]
  version: number
}>()
const emit = defineEmits<{ store: [lessons: string[]]; leave: [] }>()
/** Without a change, settled lessons can still be brought to the version in force. */
const older = computed(() => props.lessons.filter((l) => props.changed || l.version !== props.version))
const wanted = computed(() => older.value.map((l) => l.id).filter((id) => props.chosen.includes(id)))
const ready = computed(() => !props.wrong && why.value.trim().length > 0)
</script>

<template>
  <div class="foot no-print">
    <slot />
    <Notice v-if="wrong" tone="wrong">{{ wrong }}</Notice>
    <p v-if="due" role="status" class="text-small">
      Scores of {{ count(due, 'lesson') }} are being reckoned anew; {{ lessons.length - due }} of
      {{ lessons.length }} are done.
    </p>
    <p v-if="changed || older.length" class="flex flex-wrap items-center gap-x-5 gap-y-2">
      <label class="flex items-baseline gap-2 text-small text-ink-soft"
        >Reason<input
          v-model="why"
          class="field !w-[14rem] text-base text-ink"
          maxlength="300"
          :placeholder="changed ? 'why the scheme is changed' : 'why they are scored anew'"
      /></label>
      <button v-if="changed" class="press-first" :disabled="!ready" @click="emit('store', [])">
        From the next lesson on
      </button>
      <button v-if="older.length" class="press" :disabled="!ready || !wanted.length" @click="emit('store', wanted)">
        {{ changed ? 'Also for' : 'Score' }} {{ count(wanted.length, 'settled lesson') }}{{ changed ? '' : ' anew' }}
      </button>
      <span class="text-small text-ink-soft">{{
        changed ? 'settled lessons keep theirs unless you choose them' : 'scored by an older version'
      }}</span>
      <button v-if="changed" class="quiet ml-auto" @click="emit('leave')">Leave it</button>
    </p>
  </div>
</template>

<style scoped>
.foot {
  position: sticky;
  bottom: 0;
  z-index: 1;
  margin-top: 24px;
  padding: 10px 0;
  background: var(--paper);
  border-top: 1.5px solid var(--ink);
}
.foot:not(:has(p, .quiet)) {
  display: none;
}
</style>
