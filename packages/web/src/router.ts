import type { Pinia } from 'pinia'
import { createRouter, createWebHistory, type Router } from 'vue-router'
import { useSession } from './stores/session.ts'

/** The rooms of the application, by address. The frame one stands on is part of the address in every room of a shot. */
export function createRooms(pinia: Pinia): Router {
  const router = createRouter({
    history: createWebHistory(),
    routes: [
      { path: '/', redirect: { name: 'shelf' } },
      {
        path: '/sign-in',
        name: 'sign-in',
        component: () => import('./rooms/SignInRoom.vue'),
        meta: { title: 'Sign in' },
      },
      { path: '/shelf', name: 'shelf', component: () => import('./rooms/ShelfRoom.vue'), meta: { title: 'Shelf' } },
      {
        path: '/shot/:shot',
        component: () => import('./rooms/ShotRoom.vue'),
        props: true,
        redirect: to => ({ name: 'desk', params: to.params }),
        children: [
          { path: 'plan', name: 'plan', component: () => import('./rooms/PlanRoom.vue'), meta: { title: 'Plan' } },
          { path: 'desk', name: 'desk', component: () => import('./rooms/DeskRoom.vue'), meta: { title: 'Desk' } },
          { path: 'flip', name: 'flip', component: () => import('./rooms/FlipRoom.vue'), meta: { title: 'Flip' } },
          {
            path: 'send-off',
            name: 'send-off',
            component: () => import('./rooms/SendOffRoom.vue'),
            meta: { title: 'Send off' },
          },
        ],
      },
      {
        path: '/:rest(.*)*',
        name: 'nowhere',
        component: () => import('./rooms/NowhereRoom.vue'),
        meta: { title: 'Nowhere' },
      },
    ],
  })
  router.beforeEach(async to => {
    const session = useSession(pinia)
    if (!session.known) await session.refresh().catch(() => undefined)
    if (to.name === 'sign-in') return session.account ? { name: 'shelf' } : true
    return session.account || session.unreachable ? true : { name: 'sign-in', query: { back: to.fullPath } }
  })
  router.afterEach(to => {
    document.title = `${String(to.meta.title ?? 'Room')} · Unhurried Sketch`
  })
  return router
}
