<script setup lang="ts">
/** A text that the server rendered from Markdown without tags: the one place where HTML is put into a page. */
defineProps<{ html: string }>()
</script>

<template>
  <!-- eslint-disable vue/no-v-html -->
  <div class="prose" v-html="html" />
</template>
