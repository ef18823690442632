<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { hour, minutes } from '../../ui/format'

/** Rows of a file as they were read: who, when, until when or for how long, what. */
defineProps<{ rows: Schemas['FileRow'][]; more?: number }>()
</script>

<template>
  <table class="sheet-table mt-1 w-full">
    <tbody>
      <tr v-for="line in rows" :key="line.row">
        <td>{{ line.row }}</td>
        <td>{{ line.name }}</td>
        <td>{{ line.at ? hour(line.at) : '' }}</td>
        <td>{{ line.until ? hour(line.until) : line.seconds ? minutes(line.seconds * 1000) : '' }}</td>
        <td>{{ line.text }}</td>
      </tr>
      <tr v-if="more">
        <td colspan="5" class="text-ink-soft">and {{ more }} more</td>
      </tr>
    </tbody>
  </table>
</template>
