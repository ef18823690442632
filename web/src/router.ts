import { createRouter, createWebHistory } from 'vue-router'
import { loadSession } from './api/session'
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
    { path: '/', name: 'desk', component: () => import('./features/desk/Desk.vue'), meta: { title: 'Desk' } },
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
      path: '/classes/:id/passes',
      name: 'passes',
      component: () => import('./features/classes/PassSlips.vue'),
      props: true,
    },
    {
      path: '/classes/:id/rules',
      name: 'rules',
      component: () => import('./features/ground-rules/ClassRules.vue'),
      props: true,
    },
    {
      path: '/classes/:id/rubric',
      name: 'rubric',
      component: () => import('./features/ground-rules/Rubric.vue'),
      props: true,
    },
    {
      path: '/calendar',
      name: 'calendar',
      component: () => import('./features/lessons/Calendar.vue'),
      meta: { title: 'Calendar' },
    },
    {
      path: '/calendar/file',
      name: 'calendar-file',
      component: () => import('./features/lessons/CalendarImport.vue'),
      meta: { title: 'Bring in a calendar' },
    },
    {
      path: '/terms',
      name: 'terms',
      component: () => import('./features/lessons/Terms.vue'),
      meta: { title: 'Terms' },
    },
    {
      path: '/lessons/:id/plan',
      name: 'plan',
      component: () => import('./features/plans/Plan.vue'),
      props: true,
      meta: { title: 'Plan' },
    },
    {
      path: '/lessons/:id/rules',
      name: 'lesson-rules',
      component: () => import('./features/ground-rules/LessonRules.vue'),
      props: true,
      meta: { title: 'Ground rules of a lesson' },
    },
    {
      path: '/shelf',
      name: 'shelf',
      component: () => import('./features/plans/Shelf.vue'),
      meta: { title: 'Shelf' },
    },
    {
      path: '/outbox',
      name: 'outbox',
      component: () => import('./features/word-ahead/Outbox.vue'),
      meta: { title: 'Outbox' },
    },
    {
      path: '/classes/:id/scheme',
      name: 'scheme',
      component: () => import('./features/scheme/Scheme.vue'),
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
      path: '/classes/:id/reports/past',
      name: 'past',
      component: () => import('./features/reports/LookBack.vue'),
      props: true,
      meta: { title: 'Look back' },
    },
    {
      path: '/classes/:id/reports/meeting',
      name: 'meeting',
      component: () => import('./features/reports/Meeting.vue'),
      props: true,
      meta: { title: 'For a meeting' },
    },
    {
      path: '/classes/:id/reports/:kind',
      name: 'reports',
      component: () => import('./features/reports/Reports.vue'),
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
      path: '/lessons/:id/board',
      name: 'board',
      component: () => import('./features/board/BoardWindow.vue'),
      props: true,
      meta: { bare: true, title: 'Class board' },
    },
    {
      path: '/help',
      name: 'help',
      component: () => import('./features/help/HelpPage.vue'),
      meta: { bare: true, open: true, title: 'Helping' },
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
  // What the page is made of comes while it is asked who is here; what goes wrong with it is said when it is needed.
  for (const { components } of to.matched)
    if (typeof components?.default === 'function') void (components.default as () => Promise<unknown>)().catch(() => {})
  const session = await loadSession()
  return session?.account === null ? { name: 'sign-in', query: { to: to.fullPath } } : true
})

router.afterEach((to) => {
  document.title = typeof to.meta.title === 'string' ? `${to.meta.title} · Polite Tally` : 'Polite Tally'
})

// A piece of the front end that did not come: browsers remember that it failed, so the page it belongs to is loaded whole, when the server answers.
router.onError((_, to) => {
  const load = () =>
    fetch(to.fullPath, { cache: 'no-store' }).then(
      (answer) => (answer.ok ? location.assign(to.fullPath) : void setTimeout(load, 2000)),
      () => void setTimeout(load, 2000),
    )
  setTimeout(load, 500)
})
