<script setup lang="ts">
import Page from '../../ui/Page.vue'
</script>

<template>
  <Page title="Nothing is here" lead="The address leads nowhere. Perhaps a letter is missing.">
    <RouterLink class="press mt-4 inline-block" to="/">Back to the desk</RouterLink>
  </Page>
</template>
