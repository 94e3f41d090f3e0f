import type { Component } from 'vue'

/** A room: what its tab and the title of the page say, and what is shown there. */
interface Room {
  readonly words: string
  readonly show: () => Promise<Component>
  /** who has not signed in may be there too */
  readonly open?: boolean
}

/** The rooms of the house, with their addresses. */
export const HOUSE_ROOMS = {
  'sign-in': { path: '/sign-in', words: 'Sign in', show: () => import('./sign-in/SignInRoom.vue') },
  shelf: { path: '/shelf', words: 'Shelf', show: () => import('./shelf/ShelfRoom.vue') },
  bin: { path: '/bin', words: 'Bin', show: () => import('./bin/BinRoom.vue') },
  telephone: {
    path: '/telephone',
    words: 'Photographs',
    open: true,
    show: () => import('./telephone/TelephoneRoom.vue'),
  },
  nowhere: { path: '/:rest(.*)*', words: 'Nowhere', show: () => import('./nowhere/NowhereRoom.vue') },
} as const satisfies Record<string, Room & { readonly path: string }>

/** The rooms of a shot, in the order of their tabs; a room's name is its part of the address, and of its commands' names. */
export const SHOT_ROOMS = {
  plan: { words: 'Plan', show: () => import('./plan/PlanRoom.vue') },
  desk: { words: 'Desk', show: () => import('./desk/DeskRoom.vue') },
  flip: { words: 'Flip', show: () => import('./flip/FlipRoom.vue') },
  measure: { words: 'Measure', show: () => import('./measure/MeasureRoom.vue') },
  review: { words: 'Review', show: () => import('./review/ReviewRoom.vue') },
  'send-off': { words: 'Send off', show: () => import('./send-off/SendOffRoom.vue') },
} as const satisfies Record<string, Room>

export type ShotRoomName = keyof typeof SHOT_ROOMS

/** What the rooms of a shot stand in: its header, and the tabs. */
export const showShot = () => import('./shot/ShotRoom.vue')
