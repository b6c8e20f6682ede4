import { createRouter, createWebHistory } from 'vue-router'
import { loadMessages } from './messages'
import { useBench } from './stores/bench'
import { useSession } from './stores/session'

declare module 'vue-router' {
  interface RouteMeta {
    open?: boolean
    station?: string
    /** The room of the page's messages, where it is no station's. */
    messages?: string
  }
}

export const router = createRouter({
  history: createWebHistory('/'),
  routes: [
    { path: '/', redirect: '/formula' },
    { path: '/sign-in', name: 'sign-in', component: () => import('./stations/SignIn.vue'), meta: { open: true } },
    { path: '/formula', name: 'shelf', component: () => import('./stations/formula/ShelfView.vue'), meta: { station: 'formula' } },
    { path: '/formula/begin', name: 'begin', component: () => import('./stations/formula/BeginView.vue'), meta: { station: 'formula' } },
    {
      path: '/formula/:id(\\d+)',
      name: 'bench',
      component: () => import('./stations/formula/BenchView.vue'),
      props: (route) => ({ id: Number(route.params.id) }),
      meta: { station: 'formula' },
    },
    {
      path: '/formula/:id(\\d+)/card',
      name: 'card',
      component: () => import('./stations/card/CardView.vue'),
      props: (route) => ({ id: Number(route.params.id) }),
      meta: { station: 'card' },
    },
    {
      path: '/formula/:id(\\d+)/prep',
      name: 'prep',
      component: () => import('./stations/prep/PrepView.vue'),
      props: (route) => ({ id: Number(route.params.id) }),
      meta: { station: 'prep' },
    },
    {
      path: '/formula/:id(\\d+)/shape',
      name: 'shape',
      component: () => import('./stations/shape/ShapeView.vue'),
      props: (route) => ({ id: Number(route.params.id) }),
      meta: { station: 'shape' },
    },
    {
      path: '/formula/:id(\\d+)/oven',
      name: 'oven',
      component: () => import('./stations/oven/OvenView.vue'),
      props: (route) => ({ id: Number(route.params.id) }),
      meta: { station: 'oven' },
    },
    {
      path: '/:station(prep|shape|oven|card)',
      name: 'station-shelf',
      component: () => import('./stations/StationShelf.vue'),
      props: true,
    },
    { path: '/pantry', name: 'pantry', component: () => import('./stations/pantry/PantryList.vue'), meta: { station: 'pantry' } },
    { path: '/pantry/compare', name: 'compare', component: () => import('./stations/pantry/CompareView.vue'), meta: { station: 'pantry' } },
    { path: '/pantry/stock', name: 'stock', component: () => import('./stations/pantry/StockView.vue'), meta: { station: 'pantry' } },
    {
      path: '/pantry/import/:id(\\d+)?',
      name: 'import',
      component: () => import('./stations/pantry/ImportView.vue'),
      props: (route) => ({ id: Number(route.params.id) || 0 }),
      meta: { station: 'pantry' },
    },
    {
      path: '/pantry/packs/:id(\\d+|new)',
      name: 'pack',
      component: () => import('./stations/pantry/PackView.vue'),
      props: (route) => ({ id: Number(route.params.id) || 0 }),
      meta: { station: 'pantry' },
    },
    {
      path: '/pantry/ingredients/:id',
      name: 'ingredient',
      component: () => import('./stations/pantry/IngredientView.vue'),
      props: true,
      meta: { station: 'pantry' },
    },
    { path: '/run', name: 'run', component: () => import('./stations/run/RunHome.vue'), meta: { station: 'run' } },
    {
      path: '/formula/:id(\\d+)/run',
      name: 'run-formula',
      component: () => import('./stations/run/RunHome.vue'),
      props: (route) => ({ id: Number(route.params.id) }),
      meta: { station: 'run' },
    },
    {
      path: '/run/:runId(\\d+)',
      name: 'run-now',
      component: () => import('./stations/run/RunView.vue'),
      props: (route) => ({ runId: Number(route.params.runId) }),
      meta: { station: 'run' },
    },
    {
      path: '/trials',
      name: 'trials',
      component: () => import('./stations/trials/TrialsView.vue'),
      props: (route) => ({ formulaId: Number(route.query.formula) || 0 }),
      meta: { station: 'trials' },
    },
    {
      path: '/trials/compare',
      name: 'runs-compared',
      component: () => import('./stations/trials/CompareRuns.vue'),
      meta: { station: 'trials' },
    },
    { path: '/trials/learned', name: 'learned', component: () => import('./stations/trials/LearnedView.vue'), meta: { station: 'trials' } },
    {
      path: '/trials/:runId(\\d+)',
      name: 'trial',
      component: () => import('./stations/trials/TrialView.vue'),
      props: (route) => ({ runId: Number(route.params.runId) }),
      meta: { station: 'trials' },
    },
    { path: '/plan', name: 'plans', component: () => import('./stations/plan/PlansHome.vue'), meta: { station: 'plan' } },
    {
      path: '/plan/:planId(\\d+)',
      name: 'plan',
      component: () => import('./stations/plan/PlanView.vue'),
      props: (route) => ({ planId: Number(route.params.planId) }),
      meta: { station: 'plan' },
    },
    {
      path: '/plan/:planId(\\d+)/shopping',
      name: 'shopping',
      component: () => import('./stations/plan/ShoppingView.vue'),
      props: (route) => ({ planId: Number(route.params.planId) }),
      meta: { station: 'plan' },
    },
    { path: '/account', name: 'account', component: () => import('./stations/account/AccountView.vue'), meta: { messages: 'account' } },
    { path: '/kitchen', name: 'kitchen', component: () => import('./stations/account/KitchenView.vue'), meta: { messages: 'account' } },
    {
      path: '/invitation/:code',
      name: 'invitation',
      component: () => import('./stations/account/InvitationView.vue'),
      props: true,
      meta: { open: true, messages: 'account' },
    },
    {
      path: '/outbox',
      name: 'outbox',
      component: () => import('./stations/account/OutboxView.vue'),
      meta: { open: true, messages: 'account' },
    },
    { path: '/:nowhere(.*)*', name: 'nowhere', component: () => import('./stations/NowhereView.vue') },
  ],
})

router.afterEach((to, from) => {
  const left = Number(from.params.id)
  const bench = useBench()
  if (from.path.startsWith('/formula/') && left === bench.formulaId && to.params.id !== from.params.id) void bench.discardBlank()
})

router.beforeEach(async (to) => {
  const session = useSession()
  if (session.me === null) {
    const known = await session.load().catch(() => false)
    if (!known && !to.meta.open) return { name: 'sign-in', query: { then: to.fullPath } }
  }
  if (to.name === 'sign-in' && session.me !== null) return { name: 'shelf' }
  return true
})

router.beforeResolve(async (to) => {
  const room = to.meta.messages ?? to.meta.station
  await loadMessages('frame', ...(room ? [room] : []))
})
