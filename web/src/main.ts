import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './App.vue'
import { Problem } from './api/client'
import { router } from './router'
import './style.css'
import { watchForHan } from './ui/han'
import { watchPresses } from './ui/samePress'

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => count < 2 && !(error instanceof Problem && error.status > 0),
      staleTime: 5_000,
      // An answer is looked at, never changed; to watch every part of it would take longer than to draw it.
      shallow: true,
    },
  },
})

watchPresses(window)
watchForHan(document.body)
createApp(App).use(router).use(VueQueryPlugin, { queryClient: queries }).mount('#app')
