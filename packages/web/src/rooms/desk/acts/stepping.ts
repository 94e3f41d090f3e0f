import { find, type Operation } from '@unhurried/core/document'
import { useShot } from '../../../stores/shot.ts'
import { useAsking } from '../../../stores/asking.ts'

/** The takes that operations change, or make current. */
function takesTouched(ops: readonly Operation[]): string[] {
  const touched = ops.flatMap(op => {
    if (op.kind === 'shot.set') return op.patch.current ?? []
    return 'take' in op && typeof op.take === 'string' ? op.take : []
  })
  return [...new Set(touched)]
}

/** Steps are undone and done again. */
export function useStepping() {
  const shot = useShot()
  const asking = useAsking()

  /** Undoes the newest step (or does it again); says so first when that is on another take than the one in sight. */
  function backOrAgain(which: 'undo' | 'redo'): void {
    const { document, take } = shot
    const stack = shot.history[which]
    const top = stack[stack.length - 1]
    if (!top || !document || !take) return
    const doIt = () => {
      const done = which === 'undo' ? shot.undo() : shot.redo()
      if (done) asking.tell(`${which === 'undo' ? 'undone' : 'done again'}: ${top.label}`)
    }
    const elsewhere = takesTouched(top.ops).filter(id => id !== take.id)
    if (elsewhere.length === 0) return doIt()
    const names = elsewhere.map(id => find(document.takes, id)?.name ?? 'a take that is gone')
    const verb = which === 'undo' ? 'Undoing' : 'Doing again'
    asking.ask({
      label: `${which}: ${top.label}`,
      why: `${verb} “${top.label}” is on another take: ${names.join(', ')}.`,
      choices: [
        { words: which === 'undo' ? 'undo it there' : 'do it again there', take: () => (asking.drop(), doIt()) },
      ],
    })
  }

  return { undo: () => backOrAgain('undo'), redo: () => backOrAgain('redo') }
}
