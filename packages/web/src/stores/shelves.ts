import { defineStore } from 'pinia'
import { computed, onScopeDispose, watch } from 'vue'
import { bitmapShelf } from '../paint/bitmaps.ts'
import { remoteShelf } from '../pictures/remoteShelf.ts'
import { pictureWorker } from '../pictures/workers.ts'
import { useShot } from './shot.ts'

/**
 * The painted drawings of the shot that is open, kept over its rooms: those the desk paints itself, and those that rooms
 * with whole films have painted in a worker. Another shot begins with empty shelves.
 */
export const useShelves = defineStore('shelves', () => {
  const shot = useShot()
  const here = computed(() => (shot.id, bitmapShelf(shot.book)))
  const remote = computed(() => (shot.id, remoteShelf(pictureWorker, shot.strokeBytes)))
  watch(remote, (_now, before) => before.close(), { flush: 'sync' })
  onScopeDispose(() => remote.value.close())
  return { here, remote }
})
