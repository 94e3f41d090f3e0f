import { nextTick, watch, type Ref, type WatchSource } from 'vue'

/** What a list stands on comes into sight whenever something changes: the one that is said to be current, or what is told. */
export function useInSight(
  box: Readonly<Ref<HTMLElement | null>>,
  source: WatchSource<unknown>,
  which: () => string = () => '[aria-current]',
): void {
  watch(
    source,
    async () => {
      await nextTick()
      box.value?.querySelector(which())?.scrollIntoView({ block: 'nearest' })
    },
    { immediate: true },
  )
}
