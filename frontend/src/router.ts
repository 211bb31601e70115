import { createRouter, createWebHistory } from 'vue-router'

import JobList from './jobs/JobList.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'jobs', component: JobList },
    {
      path: '/jobs/:id(\\d+)',
      component: () => import('./job/JobPage.vue'),
      props: (route) => ({ id: Number(route.params.id) }),
      children: [
        { path: '', redirect: { name: 'design' } },
        { path: 'survey', name: 'survey', component: () => import('./stages/survey/SurveyStage.vue') },
        { path: 'design', name: 'design', component: () => import('./stages/design/DesignStage.vue') },
        {
          path: 'dead',
          name: 'dead',
          component: () => import('./stages/tests/TestStage.vue'),
          props: { stage: 'dead' },
        },
        {
          path: 'live',
          name: 'live',
          component: () => import('./stages/tests/TestStage.vue'),
          props: { stage: 'live' },
        },
        { path: 'papers', name: 'papers', component: () => import('./stages/papers/PapersStage.vue') },
      ],
    },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
