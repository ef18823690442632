<script setup lang="ts">
import { useLive } from '../../live/lesson'

/** Whether all that was noted here is stored. */
const { away, waiting, unkept } = useLive()
</script>

<template>
  <span class="stored" role="status" :class="{ pencilled: waiting > 0 }">
    <template v-if="away === 'signedOut'">signed out, {{ waiting }} in pencil</template>
    <template v-else-if="waiting > 0">{{
      away === 'away' ? `no connection, ${waiting} in pencil` : `${waiting} in pencil`
    }}</template>
    <template v-else-if="away === 'away'">no connection</template>
    <template v-else>all stored</template>
    <template v-if="unkept">; this window alone keeps what waits</template>
  </span>
</template>

<style scoped>
.stored {
  font-weight: 700;
}
.pencilled {
  font-style: italic;
  font-weight: 400;
}
</style>
