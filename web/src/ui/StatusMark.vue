<script setup lang="ts">
/** Status by shape: filled here, half filled late or left, hollow missing, dashed excused. The word stands beside it. */
defineProps<{ status: string; pencil?: boolean }>()
</script>

<template>
  <svg class="mark" :class="{ pencil }" width="11" height="13" viewBox="0 0 11 13" aria-hidden="true">
    <rect
      x="1.25"
      y="1.25"
      width="8.5"
      height="10.5"
      :class="{
        full: status === 'here' || status === 'present',
        dashed: status === 'excused' || status === 'didNotCome',
      }"
    />
    <rect v-if="status === 'late'" class="part" x="1.25" y="6.5" width="8.5" height="5.25" />
    <rect v-if="status === 'left'" class="part" x="1.25" y="1.25" width="4" height="10.5" />
  </svg>
</template>

<style scoped>
.mark {
  display: inline-block;
  vertical-align: -1px;
  flex: none;
}
rect {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.full,
.part {
  fill: var(--ink);
}
.dashed {
  stroke-dasharray: 2 1.8;
}
.pencil rect {
  stroke: var(--pencil);
  stroke-width: 1;
}
.pencil .full,
.pencil .part {
  fill: var(--pencil);
}
</style>
