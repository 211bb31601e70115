import { createRouter, createWebHistory } from 'vue-router'

import { showStage } from './api/shows'
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
        {
          path: 'survey/:part?',
          name: 'survey',
          component: () => import('./stages/survey/SurveyStage.vue'),
          props: (route) => ({ part: String(route.params.part ?? '') }),
        },
        {
          path: 'design/:part(boards|others|materials|arrangements|bench|electrode|chain)?',
          name: 'design',
          component: () => import('./stages/design/DesignStage.vue'),
          props: (route) => ({ part: String(route.params.part ?? '') }),
        },
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
    { path: '/genuine', name: 'genuine', component: () => import('./genuine/GenuinePage.vue') },
    { path: '/practice', name: 'practice', component: () => import('./practice/PracticePage.vue') },
    {
      path: '/practice/:id(\\d+)',
      name: 'exercise',
      component: () => import('./practice/ExercisePage.vue'),
      props: (route) => ({ id: Number(route.params.id) }),
    },
    // The householder's page, reached by a link alone.
    { path: '/answer/:secret', component: () => import('./answer/AnswerPage.vue'), props: true },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})

// Before the page asks for anything there.
router.beforeResolve((to) => showStage(to.name))
