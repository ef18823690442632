<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { minutes } from '../../ui/format'
import PresenceRibbon from '../../ui/PresenceRibbon.vue'

/** Who came to a drop-in lesson and stands on no roster, and for how long. */
defineProps<{ guests: Schemas['GuestLine'][] }>()
</script>

<template>
  <ul>
    <li v-for="g in guests" :key="g.name + g.beside" class="flex items-center gap-4 border-b border-rule py-1">
      <span class="w-[15rem] shrink-0 truncate"
        ><bdi>{{ g.name }}</bdi> <i class="text-small text-ink-soft">{{ g.beside }}</i></span
      >
      <PresenceRibbon
        class="w-[150px]"
        :stretches="g.ribbon"
        :label="`${g.name}, ${minutes(g.presentSeconds * 1000)}`"
      />
      <span class="text-small text-ink-soft"
        >{{ minutes(g.presentSeconds * 1000) }}<template v-if="!g.decided">, not decided yet</template></span
      >
    </li>
  </ul>
</template>
