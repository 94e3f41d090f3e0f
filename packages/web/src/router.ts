import type { Pinia } from 'pinia'
import { createRouter, createWebHistory, type Router } from 'vue-router'
import { HOUSE_ROOMS, SHOT_ROOMS, showShot } from './rooms/rooms.ts'
import { useSession } from './stores/session.ts'

/** The rooms of the application, by address. The frame one stands on is part of the address in every room of a shot. */
export function createRooms(pinia: Pinia): Router {
  const router = createRouter({
    history: createWebHistory(),
    routes: [
      { path: '/', redirect: { name: 'shelf' } },
      ...Object.entries(HOUSE_ROOMS).map(([name, { path, words, show, ...more }]) => ({
        path,
        name,
        component: show,
        meta: { title: words, open: 'open' in more },
      })),
      {
        path: '/shot/:shot',
        component: showShot,
        props: true,
        redirect: to => ({ name: 'desk', params: to.params }),
        children: Object.entries(SHOT_ROOMS).map(([name, { words, show }]) => ({
          path: name,
          name,
          component: show,
          meta: { title: words },
        })),
      },
    ],
  })
  router.beforeEach(async to => {
    if (to.meta.open) return true
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
