import type { Region } from '@unhurried/core/raster'
import type { PaperPort } from '../hand.ts'

/** How strong a region is shown before it is painted, and how wide the ring round a leak is at least, in screen pixels. */
const STRENGTH = 0.4
const RING_PX = 13
const RUST = '#b0552a'

/** Shows a region in the colour it would be painted in; where it would leak, hatched and with a ring round the gap. */
export function paintRegion(paper: PaperPort, brush: CanvasRenderingContext2D, { outlines, leak }: Region): void {
  const { matrix: m, density: d, kit, sight } = paper
  brush.setTransform(m[0] * d, m[1] * d, m[2] * d, m[3] * d, m[4] * d, m[5] * d)
  const path = new Path2D()
  for (const outline of outlines) {
    outline.forEach(({ x, y }, i) => (i === 0 ? path.moveTo(x, y) : path.lineTo(x, y)))
    path.closePath()
  }
  brush.globalAlpha = leak ? STRENGTH / 2 : STRENGTH
  brush.fillStyle = sight.colours({ swatch: kit.swatch, label: null })
  brush.fill(path, 'evenodd')
  brush.globalAlpha = 1
  if (!leak) return
  brush.lineWidth = paper.px(2)
  brush.strokeStyle = RUST
  brush.beginPath()
  brush.arc(leak.at.x, leak.at.y, Math.max(leak.gapPx, paper.px(RING_PX)), 0, 2 * Math.PI)
  brush.stroke()
}
