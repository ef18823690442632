<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { hour } from '../../ui/format'
import { session } from '../../api/session'
import SidePanel from './SidePanel.vue'

/** Who and what may join in: helpers by link, the meeting by a token. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const { head } = useLive()
const queries = useQueryClient()
const key = ['keys', props.id]
const { data } = useQuery({
  queryKey: key,
  queryFn: () => ask(api.GET('/api/lessons/{id}/keys', { params: { path: { id: props.id } } })),
})
const name = ref('')
const sweep = ref(true)
const handLine = ref(false)
const made = ref<Schemas['KeyMade']>()
const problem = ref('')
const copied = ref(false)
const link = computed(() => (made.value?.path ? location.origin + made.value.path : made.value?.key))
const isDemo = computed(() => session.value?.account?.isDemo)

async function tried(act: () => Promise<unknown>) {
  problem.value = ''
  try {
    await act()
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}
const make = (feed: boolean) =>
  tried(async () => {
    const body = {
      name: feed ? 'Meeting' : name.value,
      feed,
      sweep: !feed && sweep.value,
      handLine: !feed && handLine.value,
    }
    made.value = await ask(api.POST('/api/lessons/{id}/keys', { params: { path: { id: props.id } }, body }))
    copied.value = false
    name.value = ''
    await queries.invalidateQueries({ queryKey: key })
  })
const takeBack = (line: Schemas['KeyLine']) =>
  tried(async () => {
    queries.setQueryData(key, await ask(api.DELETE('/api/keys/{key}', { params: { path: { key: line.id } } })))
    if (made.value?.line.id === line.id) made.value = undefined
  })
const play = (speed: number) =>
  tried(() => ask(api.POST('/api/lessons/{id}/play', { params: { path: { id: props.id } }, body: { speed } })))
const params = { path: { id: props.id } }
const letIn = () => tried(() => ask(api.POST('/api/lessons/{id}/play/students', { params })))
const sendOut = () => tried(() => ask(api.DELETE('/api/lessons/{id}/play/students', { params })))
const stop = () => tried(() => ask(api.DELETE('/api/lessons/{id}/play', { params: { path: { id: props.id } } })))
async function copy() {
  await navigator.clipboard.writeText(link.value ?? '')
  copied.value = true
}
const rights = (line: Schemas['KeyLine']) =>
  line.feed ? 'meeting' : [line.sweep && 'chat', line.handLine && 'hand line'].filter(Boolean).join(', ')
</script>

<template>
  <SidePanel title="Helpers, meeting" @close="emit('close')">
    <div class="text-small">
      <p v-if="head?.feed" class="py-1">
        Meeting last heard at {{ hour(head.feed.lastAt) }}.
        <template v-if="head.feed.refused"
          ><b>{{ head.feed.refused }} not taken.</b> {{ head.feed.why }}</template
        >
      </p>
      <div v-if="made" class="my-2 border-l-2 border-ink pl-2">
        <p>{{ made.path ? `The link for ${made.line.name}` : 'The token of the meeting' }}, shown this once:</p>
        <input
          class="field"
          readonly
          :value="link"
          :aria-label="made.path ? 'Link' : 'Token'"
          @focus="($event.target as HTMLInputElement).select()"
        />
        <button class="quiet" @click="copy">{{ copied ? 'copied' : 'copy' }}</button>
      </div>
      <p
        v-for="line in data?.filter((k) => !k.takenBack)"
        :key="line.id"
        class="flex items-baseline gap-2 border-b border-rule py-1"
      >
        <b class="truncate">{{ line.name }}</b><span class="flex-1 text-ink-soft">{{ rights(line) }}</span>
        <button class="quiet" :aria-label="`Take back the key of ${line.name}`" @click="takeBack(line)">
          take back
        </button>
      </p>
      <form class="mt-2" @submit.prevent="make(false)">
        <label class="block text-ink-soft"
          >A link for a helper named<input v-model="name" class="field text-ink" maxlength="60"
        /></label>
        <p class="flex gap-4 py-1">
          <label class="flex items-center gap-1"
            ><input v-model="sweep" type="checkbox" class="size-4" /> the chat</label
          >
          <label class="flex items-center gap-1"
            ><input v-model="handLine" type="checkbox" class="size-4" /> the hand line</label
          >
        </p>
        <button class="press" :disabled="!name.trim() || !(sweep || handLine)">Make the link</button>
        <i class="ml-2 text-ink-soft">ends with the lesson</i>
      </form>
      <p class="mt-3"><button class="press" @click="make(true)">Make a token for the meeting</button></p>
      <p v-if="isDemo" class="mt-3 flex flex-wrap items-baseline gap-x-3">
        Play the demo meeting
        <button class="quiet" @click="play(1)">as it was</button>
        <button class="quiet" @click="play(20)">20 times faster</button>
        <button class="quiet" @click="stop">stop</button>
      </p>
      <p v-if="isDemo" class="mt-1 flex flex-wrap items-baseline gap-x-3">
        Students on their pages
        <button class="quiet" @click="letIn">let them in</button>
        <button class="quiet" @click="sendOut">send them out</button>
      </p>
      <p v-if="problem" role="alert" class="mt-1 font-semibold">{{ problem }}</p>
    </div>
  </SidePanel>
</template>
