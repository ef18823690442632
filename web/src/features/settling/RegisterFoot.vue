<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../../api/client'
import { count, hour } from '../../ui/format'

/** The foot of the page: the register is confirmed, and goes to whom the school wants to have it. */
const props = defineProps<{
  lesson: string
  settled: boolean
  /** What is open still, in words. */
  open: string
  /** Files that lie there and are not brought in. */
  waiting: string
  stands: Schemas['RegisterStands'] | undefined
  busy: boolean
}>()
const emit = defineEmits<{ confirm: []; handIn: [way: Schemas['HandInWay'], why: string] }>()

const first = useTemplateRef<HTMLButtonElement>('first')
defineExpose({ focus: () => first.value?.focus() })
const asking = ref(false)
const why = ref('')
const ways: Record<Schemas['HandInWay'], string> = { desk: 'to the register desk', mail: 'by mail' }
const way = computed(() => props.stands?.ways[0])
const last = computed(() => props.stands?.handIns[0])
const onItsWay = computed(() => last.value && last.value.state !== 'taken' && last.value.state !== 'refused')
const wasTaken = computed(() => props.stands?.handIns.some((h) => h.state === 'taken'))
const changes = computed(() => props.stands?.changes ?? [])
const standsSo: Record<Schemas['HandInState'], string> = {
  waiting: 'waits',
  going: 'is on its way',
  taken: 'is handed in',
  refused: 'was not taken',
  inDoubt: 'is in doubt',
}

function press() {
  if (props.waiting && !asking.value) asking.value = true
  else {
    asking.value = false
    emit('confirm')
  }
}
</script>

<template>
  <div class="foot no-print">
    <template v-if="!settled">
      <template v-if="asking">
        <span
          ><b>{{ waiting }}</b> was dropped and is not brought in.</span
        >
        <button class="press-first" @click="asking = false">Look at it first</button>
        <button class="press" @click="press">Confirm without it</button>
      </template>
      <button v-else ref="first" class="press-first" @click="press">
        {{ way && !wasTaken ? 'Confirm and hand in' : 'Confirm the register' }}
      </button>
      <span class="text-ink-soft"
        ><template v-if="way && !wasTaken">{{ ways[way] }}{{ way === 'desk' ? ' of the school' : '' }}; </template
        >{{ open || 'nothing is open' }}</span
      >
    </template>
    <template v-else>
      <span v-if="last" role="status"
        ><b>The register {{ standsSo[last.state] }}</b
        >, {{ hour(last.at) }}. {{ last.said }}</span
      >
      <form
        v-if="wasTaken && changes.length && way && !onItsWay"
        class="flex flex-wrap items-baseline gap-3"
        @submit.prevent="emit('handIn', way, why)"
      >
        <span
          >{{ count(changes.length, 'change') }} since: <b>{{ changes.slice(0, 3).join('; ') }}</b><template
            v-if="changes.length > 3"
          >
            and {{ changes.length - 3 }} more</template
          >.</span
        >
        <input
          v-model="why"
          class="field !w-[15rem]"
          aria-label="Why it is amended"
          placeholder="why"
          maxlength="300"
        />
        <button class="press-first" :disabled="busy || !why.trim()">Hand in the amendment</button>
      </form>
      <button
        v-else-if="way && !wasTaken && !onItsWay"
        class="press-first"
        :disabled="busy"
        @click="emit('handIn', way, '')"
      >
        {{ last ? 'Hand it in again' : `Hand it in ${ways[way]}` }}
      </button>
      <span v-else-if="!way && !last" class="text-ink-soft"
        >No register desk is set up here, and no address for mail in the ground rules: save it as a file.</span
      >
    </template>
    <a class="quiet ml-auto" :href="`/api/lessons/${lesson}/register.csv`" download>as a file</a>
    <slot />
  </div>
</template>

<style scoped>
.foot {
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
  max-width: 1140px;
  margin-top: 20px;
  border-top: 2px solid var(--ink);
  background: var(--paper);
  padding: 10px 0;
}
</style>
