import type { Point } from '@unhurried/core/geometry'

const ARROWS: Readonly<Record<string, Point>> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
}

/** Which way an arrow key points, y downwards; null for any other key. */
export const arrowOf = ({ key }: KeyboardEvent): Point | null => ARROWS[key] ?? null
