import { useEventListener } from '@vueuse/core'
import { computed, onScopeDispose } from 'vue'
import { useHabits } from '../stores/habits.ts'
import { isSomethingOpen } from './comeBack.ts'
import type { Command } from './command.ts'

const NAMES: Record<string, string> = { ' ': 'space', '+': '=' }

/** The name of a key press as commands spell it: "shift+t", "ctrl+z", "?". */
export function keyName(event: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey' | 'metaKey' | 'altKey'>): string {
  const key = NAMES[event.key] ?? event.key.toLowerCase()
  const isSign = key.length === 1 && key.toLowerCase() === key.toUpperCase() && !/\d/.test(key)
  const parts = [
    (event.ctrlKey || event.metaKey) && 'ctrl',
    event.altKey && 'alt',
    event.shiftKey && !isSign && 'shift',
    key,
  ]
  return parts.filter(Boolean).join('+')
}

const TYPED_IN = 'input:not([type="checkbox"], [type="radio"], [type="range"], [type="color"])'

/** Whether keys belong to what has the focus: something being typed, or an open dialog. */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.closest(`${TYPED_IN}, textarea, select, [contenteditable], [role="dialog"]`) !== null
  )
}

const PRESSED = 'button, input[type="checkbox"], [role="button"], [role="tab"], [role="switch"], [role="slider"]'

/** Space and Enter on a focused button press the button, Enter follows a link; Space on the desk, or on a link, plays. */
function pressesControl(event: KeyboardEvent): boolean {
  if ((event.key !== ' ' && event.key !== 'Enter') || !(event.target instanceof HTMLElement)) return false
  return event.target.closest(event.key === 'Enter' ? `a, ${PRESSED}` : PRESSED) !== null
}

/** Arrows, Home, End and the paging keys move a slider that has the focus, and nothing on the desk. */
function movesSlider(event: KeyboardEvent): boolean {
  return (
    /^(Arrow|Home|End|Page)/.test(event.key) &&
    event.target instanceof HTMLElement &&
    event.target.closest('[role="slider"], input[type="range"]') !== null
  )
}

/** Escape closes what is open over the desk, from wherever the keys go, before it means anything on the desk. */
function closesPopover(event: KeyboardEvent): boolean {
  if (event.key !== 'Escape' || !isSomethingOpen()) return false
  // What is open closes when something else is pressed.
  for (const type of ['mousedown', 'mouseup', 'click']) {
    document.body.dispatchEvent(new MouseEvent(type, { bubbles: true }))
  }
  return true
}

/** Runs commands from the keyboard. Held keys act once and are let go of when the key, or the window, is left. */
export function useKeys(commands: readonly Command[]): void {
  const habits = useHabits()
  const byKey = computed(
    () => new Map(commands.flatMap(command => habits.keysOf(command).map(key => [key, command] as const))),
  )
  const down = new Map<string, Command>()

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (isTyping(event.target) || pressesControl(event) || movesSlider(event) || closesPopover(event)) return
    const command = byKey.value.get(keyName(event))
    if (!command) return
    if (!command.shares) event.preventDefault()
    if (!command.can()) return
    if (command.release) {
      if (down.has(event.code)) return
      down.set(event.code, command)
    }
    command.run()
  })

  function letGo(code: string): void {
    down.get(code)?.release?.()
    down.delete(code)
  }

  useEventListener(window, 'keyup', (event: KeyboardEvent) => letGo(event.code))
  const letAllGo = () => [...down.keys()].forEach(letGo)
  useEventListener(window, 'blur', letAllGo)
  // A room that is left while a key is held: what the key had begun ends with the room.
  onScopeDispose(letAllGo)
}
