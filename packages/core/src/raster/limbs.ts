import type { Mask } from './silhouette.ts'

/**
 * Which share of a silhouette's outline each of its limbs makes, 0–1, by their names: pixels of the outline (inside, with one beside them that is not) that a limb's own
 * silhouette covers. A limb that lies wholly inside makes none. All masks are of one size.
 */
export function limbShares({ width, height, inside }: Mask, limbs: ReadonlyMap<string, Mask>): Record<string, number> {
  const names = [...limbs.keys()]
  const counts = names.map(() => 0)
  let outline = 0
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      if (inside[i] === 0) continue
      const isEdge =
        x === 0 ||
        y === 0 ||
        x === width - 1 ||
        y === height - 1 ||
        inside[i - 1] === 0 ||
        inside[i + 1] === 0 ||
        inside[i - width] === 0 ||
        inside[i + width] === 0
      if (!isEdge) continue
      outline++
      names.forEach((name, k) => {
        if (limbs.get(name)?.inside[i] === 1) counts[k] = (counts[k] as number) + 1
      })
    }
  }
  return Object.fromEntries(names.map((name, k) => [name, outline === 0 ? 0 : (counts[k] as number) / outline]))
}
