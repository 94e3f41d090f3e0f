import { FLASHING_CHANGES } from '../../raster/index.ts'
import { percent, type Check, type Finding } from './check.ts'

/** Changes of light take more of a block than this to count. */
const ENOUGH = 25

/**
 * Whether the frames as they are delivered flash more often than is safe: general and red flashes, more than three in a second (WCAG 2.2, success criterion 2.3.1, and its definition
 * of the general flash and red flash thresholds). An aid and no certified test.
 */
export const flashes: Check = {
  words: 'flashes',
  asks: 'Does anything flash more than three times in a second?',
  needs: ['frames'],
  limits: () => [ENOUGH],
  series({ delivered }) {
    if (!delivered) return []
    const values = delivered.shares.map((share, frame) => ({ frame, drawing: null, value: 100 * share }))
    const name = 'the part of a field of ten degrees that becomes lighter or darker'
    return [{ layer: null, mark: null, name, unit: '%', values, planned: [] }]
  },
  inspect: ({ delivered, document: { format } }) =>
    (delivered?.flashing ?? []).map(({ kind, from, to, changes, within, share }): Finding => {
      const isMany = changes >= FLASHING_CHANGES
      const times = `${changes} changes between ${kind === 'red' ? 'red and not red' : 'light and dark'} within a second`
      const most = `three flashes are ${FLASHING_CHANGES - 2}`
      const helps =
        'Fewer, smaller, closer in lightness or slower is safer. This is an aid and no certified test; broadcasters have rules of their own.'
      return {
        severity: isMany ? 'wrong' : 'look',
        layer: null,
        from,
        to,
        drawings: [],
        marks: [],
        figures: { changes, share },
        at: {
          x: ((within.left + within.right) / 2) * format.width,
          y: ((within.top + within.bottom) / 2) * format.height,
        },
        within: {
          left: within.left * format.width,
          top: within.top * format.height,
          right: within.right * format.width,
          bottom: within.bottom * format.height,
        },
        isInPicture: true,
        words: `${isMany ? 'flashes' : 'nearly flashes'}: ${times} (${most}), over ${percent(share)} of a field of ten degrees. ${helps}`,
      }
    }),
}
