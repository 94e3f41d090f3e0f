import { useCarried } from './carried.ts'
import { useDesk } from './desk.ts'
import { useGuides } from './guides.ts'
import { useKit } from './kit.ts'
import { useLamp } from './lamp.ts'
import { useSight } from './sight.ts'

/** Everything about the desk that does not belong to the document starts afresh on another shot, at a frame (from 0). */
export function startAfresh(frame: number): void {
  useDesk().reset(frame)
  useKit().reset()
  useSight().reset()
  useLamp().reset()
  useGuides().reset()
  useCarried().reset()
}
