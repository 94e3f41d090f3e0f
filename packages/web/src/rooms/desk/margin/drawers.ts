import { counted } from '@unhurried/core/time'
import type { Component } from 'vue'
import { useCarried } from '../../../stores/carried.ts'
import { useClipPoints } from '../../../stores/clipPoints.ts'
import { useClips } from '../../../stores/clips.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useGuides } from '../../../stores/guides.ts'
import { useKit } from '../../../stores/kit.ts'
import { useLamp } from '../../../stores/lamp.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useReview } from '../../../stores/review.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSight } from '../../../stores/sight.ts'
import { useStands } from '../../../stores/stands.ts'
import type { Task } from '../../../stores/drawers.ts'
import BesideNote from './BesideNote.vue'
import ClipNote from './ClipNote.vue'
import FollowedNote from './FollowedNote.vue'
import FindingsNote from './FindingsNote.vue'
import GuidesNote from './GuidesNote.vue'
import LightTableNote from './LightTableNote.vue'
import { pxInWords } from '../../../words/lengths.ts'
import MarksNote from './MarksNote.vue'
import MovesNote from './MovesNote.vue'
import PaperNote from './PaperNote.vue'
import QueueNote from './QueueNote.vue'
import RemarksNote from './RemarksNote.vue'
import SayingsNote from './SayingsNote.vue'
import ThisDrawing from './ThisDrawing.vue'

/** A drawer of the margin. Its title says the most of what is in it, also when it is shut. */
export interface Drawer {
  /** what it is called to those who hear the desk */
  readonly label: string
  readonly words: string
  says(): string
  /** tasks for which it is open as it comes */
  readonly openFor: readonly Task[]
  /** whether it is needed right now, and open whatever was chosen */
  inUse?(): boolean
  readonly show: Component
}

/** The drawers in their order: what is drawn now, what shows through, what comes next, what is measured and found, what helps. */
export const DRAWERS = {
  drawing: {
    label: 'This drawing',
    words: 'this drawing',
    says() {
      const { drawing, frame } = useDesk()
      return drawing ? String(drawing.number) : `frame ${frame + 1}`
    },
    openFor: ['drawing', 'inbetweening', 'painting', 'judging'],
    show: ThisDrawing,
  },
  queue: {
    label: 'Queue',
    words: 'next to draw',
    says: () => `${useDesk().queue.length || 'none'} left`,
    openFor: ['drawing', 'inbetweening', 'painting'],
    show: QueueNote,
  },
  light: {
    label: 'Light table',
    words: 'light table',
    says() {
      const { on, before, after } = useLamp().lightTable
      return on ? `${before} + ${after}` : 'off'
    },
    openFor: ['drawing', 'inbetweening'],
    show: LightTableNote,
  },
  guides: {
    label: 'Guides',
    words: 'guides',
    says() {
      const { length } = useGuides().all
      return length ? String(length) : ''
    },
    openFor: [],
    show: GuidesNote,
  },
  moves: {
    label: 'Layer on the move',
    words: 'layer moves',
    says() {
      const { path } = useCarried()
      const { keys, speed } = path ?? { keys: [], speed: { x: 0, y: 0 } }
      if (speed.x || speed.y) return `${pxInWords(Math.hypot(speed.x, speed.y))} px a frame`
      return keys.length > 1 ? `${keys.length} places` : ''
    },
    openFor: [],
    show: MovesNote,
  },
  beside: {
    label: 'Beside the paper',
    words: 'beside the paper',
    says() {
      const { all, over } = useStands()
      return [all.length ? String(all.length) : '', over ? 'over' : ''].filter(Boolean).join(', ')
    },
    openFor: [],
    show: BesideNote,
  },
  clip: {
    label: 'Clip under the paper',
    words: 'clip',
    says() {
      const { all, one, away } = useClips()
      if (!one) return ''
      return away ? 'not seen' : all.length > 1 ? counted(all.length, 'clip') : one.name
    },
    openFor: [],
    show: ClipNote,
  },
  followed: {
    label: 'Followed points',
    words: 'followed points',
    says() {
      const { all, following } = useClipPoints()
      return following ? 'following' : all.length ? String(all.length) : ''
    },
    openFor: [],
    show: FollowedNote,
  },
  marks: {
    label: 'Marks',
    words: 'marks',
    says: () => (useKit().tool === 'mark' && useKit().markId ? 'click where it lies' : ''),
    openFor: ['inbetweening', 'judging'],
    inUse: () => useKit().tool === 'mark',
    show: MarksNote,
  },
  sayings: {
    label: 'What is said',
    words: 'what is said',
    says() {
      const { length } = Object.keys(useShot().document?.sayings ?? {})
      return length ? String(length) : ''
    },
    openFor: [],
    show: SayingsNote,
  },
  findings: {
    label: 'Findings',
    words: 'findings',
    says() {
      const { open, here } = useMeasure()
      return open.length === 0 ? 'none' : here.length > 0 ? `${open.length}, ${here.length} here` : String(open.length)
    },
    openFor: ['inbetweening', 'judging'],
    show: FindingsNote,
  },
  remarks: {
    label: 'Review',
    words: 'review',
    says() {
      const { open, here } = useReview()
      const seen = here.filter(({ remark }) => !remark.closed).length
      return open.length === 0 ? '' : seen > 0 ? `${open.length}, ${seen} here` : String(open.length)
    },
    openFor: ['judging'],
    show: RemarksNote,
  },
  paper: {
    label: 'Lines on the paper',
    words: 'on the paper',
    says() {
      const { aids } = useSight()
      const on = [
        aids.safe,
        aids.thirds,
        aids.rulers,
        aids.room,
        aids.grid,
        aids.cells,
        aids.horizon,
        aids.ground,
        aids.crop,
      ]
      const count = on.filter(Boolean).length + aids.arcs.length
      return count ? `${count} on` : ''
    },
    openFor: ['judging'],
    show: PaperNote,
  },
} as const satisfies Record<string, Drawer>

export type DrawerName = keyof typeof DRAWERS
export const DRAWER_NAMES = Object.keys(DRAWERS) as DrawerName[]
