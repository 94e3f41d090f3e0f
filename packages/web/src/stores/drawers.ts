import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { z } from 'zod'
import { kept } from '../local/kept.ts'

/** What one sits at the desk for: each has its own drawers open. */
export const TASKS = ['drawing', 'inbetweening', 'painting', 'judging'] as const
export type Task = (typeof TASKS)[number]

const Kept = z.object({
  task: z.enum(TASKS).catch('drawing'),
  /** by task and drawer, what was opened or shut by hand; other drawers are as they came */
  open: z.record(z.string(), z.boolean()).readonly().catch({}),
})

/** Which drawers of the margin are open, for the task in hand. */
export const useDrawers = defineStore('drawers', () => {
  const own = kept('drawers')
  const read = Kept.parse(own.read() ?? {})
  const task = ref<Task>(read.task)
  const open = shallowRef<Readonly<Record<string, boolean>>>(read.open)
  watch([task, open], () => own.write({ task: task.value, open: open.value }))

  const isOpen = (drawer: string, asItCame: boolean): boolean => open.value[`${task.value}/${drawer}`] ?? asItCame
  return {
    task,
    isOpen,
    set: (drawer: string, to: boolean) => (open.value = { ...open.value, [`${task.value}/${drawer}`]: to }),
  }
})
