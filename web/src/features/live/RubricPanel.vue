<script setup lang="ts">
import { computed } from 'vue'
import KeyCap from '../../ui/KeyCap.vue'
import CriterionTabs from '../scores/CriterionTabs.vue'
import SidePanel from './SidePanel.vue'
import { useTeaching } from './teaching'

/** Students judged by the criteria of the class: choose them, then press a level or its digit. */
const emit = defineEmits<{ close: [] }>()
const { judging, chosen, drawn, nameOf, wrong } = useTeaching()
const { criteria, on, criterion, mark } = judging
const whoHas = computed(
  () =>
    new Map(
      criterion.value?.levels.map((level) => [
        level.id,
        (drawn.value?.rows ?? []).filter((r) => r.judged.includes(level.id)).map((r) => r.shortName),
      ]),
    ),
)
</script>

<template>
  <SidePanel title="Rubric" @close="emit('close')">
    <p v-if="!criterion" class="mt-2 text-small">
      This class has no criteria yet. They are part of its scheme; a mark without a weight counts for nothing.
    </p>
    <div v-else class="text-small">
      <p class="mt-2 text-ink-soft" role="status">
        {{ chosen.length ? `For ${chosen.map(nameOf).join(', ')}:` : 'Letters choose, a digit marks.' }}
      </p>
      <p v-if="wrong" class="font-semibold" role="alert">{{ wrong }}</p>
      <CriterionTabs v-if="criteria.length > 1" v-model="on" class="mt-1" :criteria="criteria">
        <span class="text-ink-soft"><KeyCap k="←" /> <KeyCap k="→" /></span>
      </CriterionTabs>
      <h3 v-else class="mt-1 font-semibold">{{ criterion.name }}</h3>
      <div v-for="(level, i) in criterion.levels" :key="level.id" class="border-b border-rule py-1">
        <button class="flex w-full items-baseline gap-2 text-start" :disabled="!chosen.length" @click="mark(level)">
          <KeyCap :k="String(i + 1)" /> <b class="flex-1">{{ level.name }}</b>
          <span>{{ whoHas.get(level.id)?.length || '' }}</span>
        </button>
        <p v-if="whoHas.get(level.id)?.length" class="text-ink-soft">{{ whoHas.get(level.id)!.join(', ') }}</p>
      </div>
    </div>
  </SidePanel>
</template>
