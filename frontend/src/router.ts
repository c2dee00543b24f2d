import { phrase } from '@/phrases/shared'
import { createRouter, createWebHistory } from 'vue-router'

export const STOPS = [
  'rig',
  'day',
  'need',
  'banks',
  'charging',
  'trial',
  'compare',
  'changeover',
  'log',
] as const
export type Stop = (typeof STOPS)[number]
export const STOP_NAMES: Record<Stop, string> = {
  rig: phrase('shared.router.rig'),
  day: phrase('shared.router.day'),
  need: phrase('shared.router.need'),
  banks: phrase('shared.router.banks'),
  charging: phrase('shared.router.charging'),
  trial: phrase('shared.router.trial'),
  compare: phrase('shared.router.compare'),
  changeover: phrase('shared.router.changeover'),
  log: phrase('shared.router.log'),
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'harbor', component: () => import('./stops/harbor/HarborPage.vue') },
    {
      path: '/rigs/:id(\\d+)/:stop(rig|day|need|banks|charging|trial|compare|changeover|log)',
      name: 'rig',
      component: () => import('./stops/RigPage.vue'),
      props: (route) => ({ id: Number(route.params.id), stop: route.params.stop }),
    },
    { path: '/start', name: 'new-plan', component: () => import('./stops/start/NewPlan.vue') },
    {
      path: '/rigs/:id(\\d+)/start',
      name: 'start',
      component: () => import('./stops/start/StartPage.vue'),
      props: (route) => ({
        id: Number(route.params.id),
        question: String(route.query.question ?? ''),
      }),
    },
    {
      path: '/glossary',
      name: 'glossary',
      component: () => import('./stops/harbor/GlossaryPage.vue'),
    },
    { path: '/about', name: 'about', component: () => import('./stops/harbor/AboutPage.vue') },
    { path: '/:rest(.*)', redirect: '/' },
  ],
  scrollBehavior: (to, from) => (to.params.stop === from.params.stop ? {} : { top: 0 }),
})
