<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { count } from '../../ui/format'

/** The names of the meeting whose owner is known, folded away; each can be asked again. */
const props = defineProps<{ names: Schemas['NameLine'][]; people: Schemas['Person'][]; locked: boolean }>()
const emit = defineEmits<{ again: [name: Schemas['NameLine']] }>()
const known = computed(() => props.names.filter((n) => n.decided))
const nameOf = (student: string | null) => props.people.find((p) => p.id === student)?.fullName
const how: Record<Schemas['MatchedBy'], string> = {
  identity: 'by number or e-mail',
  confirmedBefore: 'known from before',
  sameName: 'the same name',
  onlyOneSoNamed: 'the only one so named',
  similar: 'similar',
  somebodyOf: 'somebody of theirs',
  nothing: 'like nobody here',
}
</script>

<template>
  <details v-if="known.length" class="mt-2">
    <summary class="quiet inline-block">{{ count(known.length, 'known name') }}</summary>
    <ul class="known">
      <li v-for="name in known" :key="name.name + name.beside" class="border-b border-rule py-0.5">
        <b>{{ name.name }}</b> <i class="text-small text-ink-soft">{{ name.beside }}</i> is
        {{ name.student ? nameOf(name.student) : 'not a student' }}
        <i class="text-small text-ink-soft">{{ name.byTeacher ? 'you said so' : `sure, ${how[name.by]}` }}</i>
        <button
          v-if="!locked"
          class="quiet ml-2 text-small"
          :aria-label="`Take back ${name.name}`"
          @click="emit('again', name)"
        >
          take back
        </button>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.known {
  columns: 2 26rem;
  column-gap: 36px;
}
</style>
