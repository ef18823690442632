<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'
import KeyCap from '../../ui/KeyCap.vue'
import { changedKeys, changeKey, type Command, type LoggedAct } from '../../live/acts'
import SidePanel from './SidePanel.vue'

const props = defineProps<{ acts: readonly LoggedAct[]; commands: readonly Command[] }>()
const emit = defineEmits<{ close: [] }>()
const others: [string, string][] = [
  ['a letter', 'the student with that letter; again for the next who shares it'],
  ['Shift + letter', 'one student more, or one fewer'],
  ['1 to 5', 'with a turn on and nobody chosen: its points covered'],
  ['Esc', 'choose nobody, put away what is open'],
]
const nameOf = (one: LoggedAct | Command) => ('pen' in one ? labelOf(one as LoggedAct) : one.label)
const labelOf = (act: LoggedAct) =>
  act.pen === 'nods' ? `nod, ${act.label}` : act.pen === 'chat' ? `chat, ${act.label}` : act.label

const waiting = ref<string>()
const problem = ref('')
/** The next key pressed becomes the key of what was chosen; what has it now would have to be given another first. */
function listen(name: string) {
  waiting.value = name
  problem.value = ''
  window.addEventListener('keydown', pressed, { capture: true })
}
async function pressed(event: KeyboardEvent) {
  if (['Shift', 'Control', 'Alt', 'Meta'].includes(event.key)) return
  event.preventDefault()
  event.stopPropagation()
  window.removeEventListener('keydown', pressed, { capture: true })
  const name = waiting.value!
  waiting.value = undefined
  if (event.key === 'Escape') return
  const taken = [...props.acts, ...props.commands].find((a) => a.key === event.key && a.name !== name)
  if (taken) {
    problem.value = `That key is ${nameOf(taken)}. Give that another key first.`
    return
  }
  await changeKey(name, event.key).catch((failure: Error) => (problem.value = failure.message))
}
onBeforeUnmount(() => window.removeEventListener('keydown', pressed, { capture: true }))
const reset = async () => {
  for (const name of Object.keys(changedKeys))
    await changeKey(name, undefined).catch((f: Error) => (problem.value = f.message))
}
</script>

<template>
  <SidePanel title="All keys" @close="emit('close')">
    <div class="text-small">
      <p class="py-1 text-ink-soft">
        Press a key here to give what it does another.
        <button v-if="Object.keys(changedKeys).length" class="quiet" @click="reset">All as they were</button>
      </p>
      <p v-if="problem" role="alert" class="font-semibold">{{ problem }}</p>
      <dl>
        <div
          v-for="act in [...acts, ...commands]"
          :key="act.name"
          class="flex items-baseline justify-between border-b border-rule"
        >
          <dt>{{ nameOf(act) }}</dt>
          <dd>
            <button
              class="min-h-6 min-w-8 text-right"
              :aria-label="`Another key for ${act.label}`"
              @click="listen(act.name)"
            >
              <i v-if="waiting === act.name">press…</i><KeyCap v-else :k="act.key" />
            </button>
          </dd>
        </div>
        <div v-for="[key, what] in others" :key="key" class="flex justify-between gap-3 border-b border-rule py-px">
          <dt class="text-ink-soft">{{ what }}</dt>
          <dd class="shrink-0 font-semibold">{{ key }}</dd>
        </div>
      </dl>
    </div>
  </SidePanel>
</template>
