import { createRouter, createWebHistory } from 'vue-router'
import PiecesPlace from './places/PiecesPlace.vue'

/** Names that stages had before, and which the addresses that people kept still have. */
const FORMER = { intake: 'import', size: 'scale', core: 'hollow', stand: 'orient' }

const stage = (name: string, load: () => Promise<object>) => ({
  path: name,
  name,
  component: load as () => Promise<typeof import('*.vue')>,
  meta: {},
})

/** Workshop-wide places are one level up from the stages of a piece. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/pieces' },
    { path: '/pieces', component: PiecesPlace },
    { path: '/sculpts', component: () => import('./places/SculptsPlace.vue') },
    { path: '/layers/:hash?', component: () => import('./places/LayersPlace.vue') },
    { path: '/calendar', component: () => import('./places/CalendarPlace.vue') },
    { path: '/stock', component: () => import('./places/StockPlace.vue') },
    { path: '/stock/materials', component: () => import('./places/MaterialsPlace.vue') },
    { path: '/stock/paints', component: () => import('./places/PaintsPlace.vue') },
    { path: '/stock/mixes', component: () => import('./places/MixesPlace.vue') },
    { path: '/workshop', component: () => import('./places/WorkshopPlace.vue') },
    { path: '/guide/practice', component: () => import('./places/PracticePlace.vue') },
    { path: '/guide/:page?', component: () => import('./places/GuidePlace.vue') },
    { path: '/pieces/:id/bench', component: () => import('./places/BenchMode.vue'), meta: { bare: true } },
    {
      path: '/pieces/:id',
      component: () => import('./places/PiecePlace.vue'),
      redirect: (to) => `/pieces/${String(to.params.id)}/import`,
      children: [
        stage('brief', () => import('./stages/BriefStage.vue')),
        stage('import', () => import('./stages/ImportStage.vue')),
        stage('combine', () => import('./stages/CombineStage.vue')),
        stage('pose', () => import('./stages/PoseStage.vue')),
        stage('scale', () => import('./stages/ScaleStage.vue')),
        stage('hollow', () => import('./stages/HollowStage.vue')),
        stage('orient', () => import('./stages/OrientStage.vue')),
        stage('plates', () => import('./stages/PlatesStage.vue')),
        stage('print', () => import('./stages/PrintStage.vue')),
        stage('clean', () => import('./stages/CleanStage.vue')),
        stage('prime', () => import('./stages/PrimeStage.vue')),
        stage('scheme', () => import('./stages/SchemeStage.vue')),
        stage('plan', () => import('./stages/PlanStage.vue')),
        ...Object.entries(FORMER).map(([path, name]) => ({ path, redirect: { name } })),
      ],
    },
    { path: '/:rest(.*)', redirect: '/pieces' },
  ],
})
