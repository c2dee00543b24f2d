import { STOPS } from '@/api/lists'
import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'harbor', component: () => import('./stops/harbor/HarborPage.vue') },
    {
      path: `/rigs/:id(\\d+)/:stop(${STOPS.join('|')})`,
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
