<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { hour } from '../../ui/format'
import ClockChoice from './ClockChoice.vue'
import { clockOf, kinds, rowsIn } from './files'

/** The files that were brought in: what each is, how its clock goes, what was known already; each is taken out again by one press, and put back by one. */
defineProps<{ files: Schemas['FileIn'][]; locked: boolean }>()
const emit = defineEmits<{
  strike: [entry: string, text: string]
  clock: [file: string, aheadSeconds: number | null]
}>()
</script>

<template>
  <ul>
    <li v-for="f in files" :key="f.id" class="file" :class="{ out: f.takenOutBy }">
      <span class="min-w-0"
        ><b>{{ kinds[f.kind] }}</b> <span class="text-small break-words text-ink-soft">{{ f.name }}</span></span
      >
      <span>
        {{ rowsIn(f.kind, f.rows)
        }}<template v-if="f.from && f.to"
          >, {{ hour(f.from) }}<template v-if="hour(f.to) !== hour(f.from)"> to {{ hour(f.to) }}</template></template
        >
      </span>
      <i v-if="f.takenOutBy" class="text-ink-soft">taken out: it counts for nothing</i>
      <span v-else>
        {{ f.kind === 'people' ? 'a roll call of that moment' : clockOf(f) }}
        <ClockChoice v-if="!locked && f.kind !== 'people'" :file="f" @choose="emit('clock', f.id, $event)" />
      </span>
      <span class="text-ink-soft">{{ f.known && !f.takenOutBy ? `${f.known} known already` : '' }}</span>
      <button
        v-if="!locked"
        class="quiet justify-self-end"
        :aria-label="f.takenOutBy ? `Put back ${f.name}` : `Take out ${f.name}`"
        @click="emit('strike', f.takenOutBy ?? f.id, f.takenOutBy ? `${f.name} put back` : `${f.name} taken out`)"
      >
        {{ f.takenOutBy ? 'put back' : 'take out' }}
      </button>
    </li>
  </ul>
</template>

<style scoped>
.file {
  display: grid;
  grid-template-columns: minmax(12rem, 1.2fr) minmax(9rem, 1fr) minmax(12rem, 1.4fr) minmax(7rem, 0.6fr) 5rem;
  align-items: baseline;
  gap: 2px 18px;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
}
.out > span:first-child {
  text-decoration: line-through;
  color: var(--ink-soft);
}
@media (max-width: 60rem) {
  .file {
    display: flex;
    flex-wrap: wrap;
  }
}
</style>
