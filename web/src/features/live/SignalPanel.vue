<script setup lang="ts">
import { computed, ref } from 'vue'
import { useLive } from '../../live/lesson'
import { hour } from '../../ui/format'
import SidePanel from './SidePanel.vue'

/** One statement to the whole class, answered by a gesture at the same moment. */
const emit = defineEmits<{ close: []; pass: [round: { statement: string; ledBy: string | null }] }>()
const { head, drawn, note } = useLive()
const held = new Set(head.value?.rounds.map((r) => r.statement))
const statements = computed(() => head.value?.plan.statements ?? [])
const statement = ref((statements.value.find((s) => !held.has(s.text)) ?? statements.value[0])?.text ?? '')
const ledBy = ref('')
const up = computed(() => drawn.value?.board.some((b) => b.item === 'statement'))
const here = computed(() => drawn.value?.rows.filter((r) => r.whereabouts === 'here' || r.whereabouts === 'late') ?? [])
const said = computed(() => statement.value.trim())
const fromPages = computed(() =>
  (head.value?.plan.signals ?? [])
    .map(({ meaning }) => ({ meaning, many: head.value!.signals.filter((s) => s.signal === meaning).length }))
    .filter((s) => s.many)
    .map((s) => `${s.many} ${s.meaning}`)
    .join(', '),
)
const countIn = () => note({ type: 'boardPut', item: 'statement', text: said.value })
</script>

<template>
  <SidePanel title="Signal round" @close="emit('close')">
    <form class="mt-2 text-small" @submit.prevent="said && emit('pass', { statement: said, ledBy: ledBy || null })">
      <button
        v-for="s in statements"
        :key="s.id"
        type="button"
        class="block w-full border-b border-rule py-1 text-start"
        :class="{ 'font-bold': s.text === statement }"
        @click="statement = s.text"
      >
        {{ s.text }}
      </button>
      <label class="mt-2 block text-ink-soft"
        >Statement<textarea v-model="statement" class="field text-ink" rows="2" maxlength="400" />
      </label>
      <label class="mt-1 block text-ink-soft"
        >Led by
        <select v-model="ledBy" class="field text-ink">
          <option value="">me</option>
          <option v-for="row in here" :key="row.id" :value="row.id">{{ row.shortName }}</option>
        </select>
      </label>
      <p class="mt-2">
        <button v-if="!up" type="button" class="press" :disabled="!said" @click="countIn">Count in on the board</button>
        <button v-else type="button" class="press" @click="note({ type: 'boardTaken', item: 'statement' })">
          Take it off the board
        </button>
      </p>
      <p class="mt-2 mb-3">
        <button class="press-first" :disabled="!said">As agreed, except…</button>
      </p>
    </form>
    <p v-if="head?.signals.length" class="mb-2 text-small" role="status">
      From student pages: <b>{{ fromPages }}</b>
    </p>
    <p
      v-for="signal in head?.plan.signals"
      :key="signal.meaning"
      class="border-b border-rule py-1 text-small text-ink-soft"
    >
      <b class="text-ink">{{ signal.meaning }}</b> {{ signal.gesture }}
    </p>
    <p v-for="round in head?.rounds" :key="round.at" class="py-1 text-small">
      {{ hour(round.at) }} {{ round.answered }} of {{ round.answered + round.silent }}: {{ round.statement }}
    </p>
  </SidePanel>
</template>
