<script setup lang="ts">
defineProps<{ title: string }>()
</script>

<template>
  <div class="border-t border-rule py-8">
    <p class="text-lead font-semibold">{{ title }}</p>
    <p class="max-w-[34rem] text-ink-soft"><slot /></p>
    <div class="mt-4"><slot name="act" /></div>
  </div>
</template>
