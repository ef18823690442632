<script setup lang="ts">
import { ref } from 'vue'
import { actsOf } from '../../live/acts'
import ActStrip from '../live/ActStrip.vue'
import EmptyState from '../../ui/EmptyState.vue'
import FileDrop from '../../ui/FileDrop.vue'
import KeyCap from '../../ui/KeyCap.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import PresenceRibbon from '../../ui/PresenceRibbon.vue'
import StatusMark from '../../ui/StatusMark.vue'
import TallyStrokes from '../../ui/TallyStrokes.vue'
import ThemeChoice from '../../ui/ThemeChoice.vue'

const colours = ['paper', 'paper-deep', 'rule', 'ink', 'ink-soft', 'pencil', 'live', 'margin']
const pens = ['attendance', 'speaking', 'questions', 'chat', 'group', 'nods']
const sizes = ['title', 'head', 'lead', 'base', 'small']
const many = (n: number, state: 'ink' | 'pencil' | 'struck' = 'ink', credit = 1) =>
  Array.from({ length: n }, (_, i) => ({ key: `${state}${credit}${i * 7}`, state, credit }))
const text = ref('')
</script>

<template>
  <Page title="Specimen" lead="Everything a view is made of, in every state.">
    <p class="mt-2"><ThemeChoice /></p>
    <section class="part">
      <h2>Paper and ink</h2>
      <p class="flex flex-wrap gap-4">
        <span v-for="c in colours" :key="c" class="text-small"
          ><span class="swatch" :style="{ background: `var(--${c})` }" />{{ c }}</span
        >
        <span v-for="c in pens" :key="c" class="text-small"
          ><span class="swatch" :style="{ background: `var(--pen-${c})` }" />pen, {{ c }}</span
        >
      </p>
    </section>
    <section class="part">
      <h2>Type</h2>
      <p v-for="s in sizes" :key="s" :class="`text-${s}`">
        <b>Rowan Lindqvist</b> waited 2:41, Çağla Yıldız 0:09 <i>lapsed</i> ({{ s }})
      </p>
      <p class="text-lead">Here for <span class="marked">every lesson but one</span>, which was excused.</p>
    </section>
    <section class="part">
      <h2>Strokes</h2>
      <p class="flex flex-wrap items-center gap-8">
        <span
          >none to twelve<br /><TallyStrokes
            v-for="n in [1, 2, 4, 5, 7, 12]"
            :key="n"
            class="mr-5"
            :strokes="many(n)"
            pen="speaking"
            :label="`${n}`"
        /></span>
        <span
          >with halves<br /><TallyStrokes
            :strokes="[...many(6), ...many(2, 'ink', 0.5)]"
            pen="speaking"
            label="6 and 2 halves"
        /></span>
        <span
          >in pencil<br /><TallyStrokes
            :strokes="[...many(2), ...many(2, 'pencil')]"
            pen="chat"
            label="2, and 2 in pencil"
        /></span>
        <span
          >struck out<br /><TallyStrokes
            :strokes="[...many(3), ...many(1, 'struck')]"
            pen="nods"
            label="3, and 1 struck out"
        /></span>
        <span
          >every pen<br /><TallyStrokes
            v-for="p in ['speaking', 'questions', 'chat', 'group', 'nods']"
            :key="p"
            class="mr-4"
            :strokes="many(5)"
            :pen="p"
            :label="p"
        /></span>
      </p>
    </section>
    <section class="part max-w-[40rem]">
      <h2>Presence ribbons</h2>
      <p class="text-small">whole lesson, spoke twice</p>
      <PresenceRibbon :stretches="[[0, 1]]" :spoke="[0.2, 0.62]" label="whole lesson" />
      <p class="text-small">late, a dropout, left early</p>
      <PresenceRibbon
        :stretches="[
          [0.14, 0.4],
          [0.46, 0.85],
        ]"
        :spoke="[0.5]"
        label="late, a dropout, left early"
      />
      <p class="text-small">going on</p>
      <PresenceRibbon :stretches="[[0, 0.55]]" :until="0.55" label="going on" />
      <p class="text-small">not there</p>
      <PresenceRibbon :stretches="[]" label="not there" />
    </section>
    <section class="part">
      <h2>Marks</h2>
      <p class="flex flex-wrap gap-6">
        <span v-for="s in ['here', 'late', 'left', 'missing', 'excused']" :key="s"
          ><StatusMark :status="s" /> {{ s }}</span
        >
        <span><StatusMark status="here" pencil /> <i>here, in pencil</i></span>
      </p>
    </section>
    <section class="part">
      <h2>Controls</h2>
      <p class="flex flex-wrap items-center gap-6">
        <button class="press-first">First choice</button><button class="press-first" disabled>Not now</button
        ><button class="press">Second</button><button class="press" disabled>Not now</button>
        <button class="quiet">Quiet</button><span>Undo <KeyCap k="⌫" /></span>
        <label class="w-48">A field<input v-model="text" class="field" placeholder="What it is about" /></label>
        <label class="w-48">
          A choice
          <select class="field">
            <option>family name</option>
            <option>given name</option>
          </select>
        </label>
      </p>
      <p class="mt-4 overflow-x-auto"><ActStrip :acts="actsOf(['helped someone', 'kept going', 'on time'])" /></p>
      <FileDrop class="mt-4 max-w-[46rem]" what="a roster" hint="A CSV file from any program." />
    </section>
    <section class="part max-w-[46rem]">
      <h2>Notices and empty states</h2>
      <Notice>Nothing is wrong with it.</Notice>
      <Notice tone="wrong" class="mt-2"
        >Row 7 has the time “soon”, which cannot be read. Write it as 2026-11-23 09:31:00.</Notice
      >
      <EmptyState class="mt-5" title="The roster is empty">
        Bring in a list of students as a CSV file.
        <template #act><button class="press-first">Bring in a roster</button></template>
      </EmptyState>
    </section>
  </Page>
</template>

<style scoped>
.part {
  margin-top: 26px;
}
.part h2 {
  margin-bottom: 8px;
  border-bottom: 1.5px solid var(--ink);
  padding-bottom: 2px;
  font-weight: 650;
}
.swatch {
  display: block;
  width: 92px;
  height: 40px;
  border: 1px solid var(--rule);
}
</style>
