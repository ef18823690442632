<script setup lang="ts">
import { session } from '../../api/session'
import { useGauge } from './gauge'

const { level, problem, start, stop } = useGauge()
</script>

<template>
  <div class="mb-3 text-small">
    <p class="flex flex-wrap items-baseline gap-x-3">
      How loud it is here
      <template v-if="level === undefined">
        <button class="quiet" @click="start('microphone')">by the microphone</button>
        <button v-if="session?.account?.isDemo" class="quiet" @click="start('simulated')">simulated</button>
      </template>
      <button v-else class="quiet" @click="stop">off</button>
    </p>
    <p
      v-if="level !== undefined"
      class="scale"
      role="meter"
      :aria-valuenow="level"
      aria-valuemin="0"
      aria-valuemax="10"
      aria-label="Level in the room"
    >
      <span v-for="n in 10" :key="n" class="step" :class="{ on: n <= level }" />
      <i class="text-ink-soft">only the level; nothing is recorded</i>
    </p>
    <p v-if="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.scale {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 4px;
  min-height: 24px;
}
.step {
  width: 3px;
  height: 16px;
  background: var(--rule);
}
.on {
  background: var(--ink);
}
</style>
