import { createRouter, createWebHistory } from 'vue-router'
import { loadSession } from './features/accounts/session'
import SignIn from './features/accounts/SignIn.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/sign-in', name: 'sign-in', component: SignIn, meta: { open: true, title: 'Sign in' } },
    {
      path: '/specimen',
      component: () => import('./features/specimen/Specimen.vue'),
      meta: { open: true, title: 'Specimen' },
    },
    { path: '/', name: 'desk', component: () => import('./features/lessons/Desk.vue'), meta: { title: 'Desk' } },
    {
      path: '/classes',
      name: 'classes',
      component: () => import('./features/classes/Classes.vue'),
      meta: { title: 'Classes' },
    },
    { path: '/classes/:id', name: 'class', component: () => import('./features/classes/ClassPage.vue'), props: true },
    {
      path: '/classes/:id/roster',
      name: 'roster',
      component: () => import('./features/classes/RosterImport.vue'),
      props: true,
    },
    {
      path: '/classes/:id/scores',
      name: 'scores',
      component: () => import('./features/scores/Scores.vue'),
      props: true,
    },
    {
      path: '/classes/:id/report',
      name: 'report',
      component: () => import('./features/reports/ClassReport.vue'),
      props: true,
    },
    {
      path: '/lessons/:id/live',
      name: 'live',
      component: () => import('./features/live/Live.vue'),
      props: true,
      meta: { bare: true },
    },
    {
      path: '/lessons/:id/settle',
      name: 'settle',
      component: () => import('./features/settling/Settle.vue'),
      props: true,
    },
    { path: '/:rest(.*)', component: () => import('./features/lessons/NotHere.vue'), meta: { title: 'Not here' } },
  ],
})

router.beforeEach(async (to) => {
  if (to.meta.open) return true
  const session = await loadSession()
  return session?.account === null ? { name: 'sign-in', query: { to: to.fullPath } } : true
})

router.afterEach((to) => {
  document.title = typeof to.meta.title === 'string' ? `${to.meta.title} · Polite Tally` : 'Polite Tally'
})
