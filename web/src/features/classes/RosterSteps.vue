<script setup lang="ts">
import { fieldLabels, type Part, type Step } from './rosterImport'

/** What a roster would do of one kind, each student to be ticked. */
const props = defineProps<{ part: Part; ticked: ReadonlySet<string>; nameOf: (step: Step) => string }>()
const emit = defineEmits<{ tick: [keys: string[], on: boolean] }>()
const most = 300

const all = (on: boolean) =>
  emit(
    'tick',
    props.part.steps.map((s) => s.key),
    on,
  )
const known = ({ entry }: Step) =>
  [
    entry?.preferred && `called ${entry.preferred}`,
    entry?.number,
    entry?.email,
    entry?.secondEmail,
    entry?.phone,
    entry?.tags,
  ]
    .filter(Boolean)
    .join(' · ')
</script>

<template>
  <section :aria-label="part.head">
    <h3 class="rule-head">
      <span>{{ part.head }}: {{ part.steps.length }}</span>
      <span class="font-normal">
        <button class="quiet text-small" @click="all(true)">all</button>
        <button class="quiet ml-4 text-small" @click="all(false)">none</button>
      </span>
    </h3>
    <p v-if="part.step === 'leaves'" class="pt-1 text-small text-ink-soft">
      They are in the class and not in the file. Whoever is ticked leaves the class and keeps their past.
    </p>
    <ul>
      <li v-for="step in part.steps.slice(0, most)" :key="step.key">
        <label class="rule-line cursor-pointer">
          <input
            type="checkbox"
            class="size-4 self-center"
            :checked="ticked.has(step.key)"
            @change="emit('tick', [step.key], ($event.target as HTMLInputElement).checked)"
          />
          <b class="w-[15rem] shrink-0 font-semibold">{{ nameOf(step) }}</b>
          <span v-if="step.step === 'joins' || step.step === 'returns'" class="min-w-0 text-ink-soft">
            {{ known(step) }}
          </span>
          <span v-else class="min-w-0">
            <span v-for="change in step.changes" :key="change.field" class="mr-4"
              ><span class="text-ink-soft">{{ fieldLabels[change.field] }}</span>
              <s class="ml-1 text-ink-soft">{{ change.was || 'nothing' }}</s>
              {{ change.becomes || 'nothing' }}</span
            >
          </span>
        </label>
      </li>
    </ul>
    <p v-if="part.steps.length > most" class="mt-1 text-ink-soft">And {{ part.steps.length - most }} more.</p>
  </section>
</template>
