<script setup lang="ts">
import type { Schemas } from '../../api/client'
import FileDrop from '../../ui/FileDrop.vue'
import { count } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import FileAsked from './FileAsked.vue'
import FilesBroughtIn from './FilesBroughtIn.vue'
import PasteBox from './PasteBox.vue'
import { asksSomething, isKnown, likeWhat, rowsIn, useFiles } from './files'

/** Everything that other programs saved of a lesson: dropped together or one by one, told apart by what is in it. */
const props = defineProps<{
  id: string
  files: Schemas['FileIn'][]
  locked: boolean
  demo: boolean
  span: { from: number; to: number }
  people: Schemas['Person'][]
}>()
const emit = defineEmits<{
  done: [view: Schemas['SettlingView']]
  strike: [entry: string, text: string]
  clock: [file: string, aheadSeconds: number | null]
}>()
const { dropped, take, takeOut, decide, leave, waiting } = useFiles(
  props.id,
  props.span,
  () => props.people.map((p) => p.fullName),
  (view) => emit('done', view),
)
defineExpose({ waiting })
</script>

<template>
  <div>
    <FilesBroughtIn
      v-if="files.length"
      :files="files"
      :locked="locked"
      @strike="(entry, text) => emit('strike', entry, text)"
      @clock="(file, ahead) => emit('clock', file, ahead)"
    />
    <template v-if="!locked">
      <div v-for="(one, i) in dropped" :key="i" class="mt-3">
        <p v-if="one.busy" role="status">
          <b>{{ one.file.name }}</b>
          {{ one.look?.kind ? `is being brought in, ${rowsIn(one.look.kind, one.look.rows)}…` : 'is being read…' }}
          <template v-if="one.before"
            >{{ count(one.before, 'large file is', 'large files are') }} read before.</template
          >
          <template v-else-if="one.progress !== undefined">{{ Math.round(one.progress * 100) }} %</template>
          <button class="quiet ml-3" @click="one.stop.abort()">Stop</button>
        </p>
        <Notice v-else-if="one.problem" tone="wrong"
          ><b>{{ one.file.name }}</b
          >: {{ one.problem }} <button class="quiet" @click="leave(one)">Leave it</button></Notice
        >
        <Notice v-else-if="one.isIn && one.look?.like"
          ><b>{{ one.file.name }}</b> was read like {{ likeWhat(one.look.like) }}.
          <button class="quiet" @click="decide(one, { anew: true })">Read anew</button>
          <button class="quiet ml-3" @click="leave(one)">Put away</button></Notice
        >
        <Notice v-else-if="one.fits" tone="wrong"
          ><b>{{ one.file.name }}</b> seems to be about lesson {{ one.fits.number }} of {{ one.fits.class }},
          <RouterLink class="quiet" :to="`/lessons/${one.fits.lesson}/settle`">“{{ one.fits.title }}”</RouterLink>.
          <button class="press" @click="takeOut(one)">Bring in here</button>
          <button class="quiet ml-3" @click="leave(one)">Leave it</button></Notice
        >
        <Notice v-else-if="isKnown(one)"
          ><b>{{ one.file.name }}</b> is in already, and all of it is known.
          <button class="quiet" @click="leave(one)">Leave it</button></Notice
        >
        <FileAsked
          v-else-if="one.look && asksSomething(one)"
          :file="one.file"
          :look="one.look"
          :day="span.from"
          @decide="decide(one, $event)"
          @leave="leave(one)"
        />
      </div>
      <FileDrop
        class="mt-3 max-w-[46rem]"
        several
        accept=".csv,.txt,.tsv,.json,.xlsx,.ods,.odt,.docx,.html,.xml,.vtt,.srt,.ass,.eml,.zip,text/*,application/json,image/png,image/jpeg,image/webp"
        what="what your meeting program saved"
        hint="The attendance list, the saved chat, quiz answers, captions, a list of people; one or several at once, also a document, a mail or an archive with them in it. Each is known by what is in it."
        @file="take"
      />
      <PasteBox class="mt-2 max-w-[46rem]" @file="take" />
      <p v-if="demo && !files.length && !dropped.length" class="mt-2 text-small text-ink-soft">
        The demo school left them in the data folder, demo-files: attendance-lesson-13.csv, chat-lesson-13.txt,
        answers-lesson-13.csv, captions-lesson-13.vtt and people-lesson-13.png.
      </p>
    </template>
  </div>
</template>
