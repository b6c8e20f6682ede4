import { createRouter, createWebHistory } from 'vue-router'
import { useSession } from './stores/session'

declare module 'vue-router' {
  interface RouteMeta {
    open?: boolean
    station?: string
  }
}

export const router = createRouter({
  history: createWebHistory('/'),
  routes: [
    { path: '/', redirect: '/formula' },
    { path: '/sign-in', name: 'sign-in', component: () => import('./stations/SignIn.vue'), meta: { open: true } },
    { path: '/formula', name: 'shelf', component: () => import('./stations/formula/ShelfView.vue'), meta: { station: 'formula' } },
    {
      path: '/formula/:id(\\d+)',
      name: 'bench',
      component: () => import('./stations/formula/BenchView.vue'),
      props: (route) => ({ id: Number(route.params.id) }),
      meta: { station: 'formula' },
    },
    {
      path: '/:station(pantry|prep|shape|oven|run|trials|plan|card)',
      name: 'later',
      component: () => import('./stations/LaterStation.vue'),
      props: true,
    },
    { path: '/:nowhere(.*)*', name: 'nowhere', component: () => import('./stations/NowhereView.vue') },
  ],
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
