<script setup lang="ts">
import { ref } from 'vue'
import { useLive } from '../../live/lesson'
import { useChatMessages } from './chatMessages'
import ChatSheet from './ChatSheet.vue'

/** The chat as the teacher sweeps it: asked for only while it is looked at. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const { head, note } = useLive()
const messages = useChatMessages(props.id)
const sheet = ref<InstanceType<typeof ChatSheet>>()
defineExpose({ onKey: (event: KeyboardEvent) => sheet.value?.onKey(event) ?? false })
</script>

<template>
  <ChatSheet
    ref="sheet"
    :messages="messages"
    :can-note="head?.stage === 'live' || head?.stage === 'ended'"
    @note="note"
    @close="emit('close')"
  />
</template>
