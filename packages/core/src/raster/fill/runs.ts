/** Runs of pixels of a row: where each begins and, one past it, ends, by turns. In order, apart from one another. */
export type Runs = readonly number[]

/** The runs of set pixels (255) of one row of a picture of one byte a pixel. */
export function runsOfRow(picture: Uint8Array, width: number, y: number): Runs {
  const row = picture.subarray(y * width, (y + 1) * width)
  const runs: number[] = []
  for (let from = row.indexOf(255); from >= 0;) {
    const end = row.indexOf(0, from)
    runs.push(from, end < 0 ? width : end)
    from = end < 0 ? -1 : row.indexOf(255, end)
  }
  return runs
}

/** What is in either of two rows of runs, the second made longer by `by` pixels at both ends. */
export function joined(a: Runs, b: Runs, by: number): Runs {
  if (b.length === 0) return a
  const out: number[] = []
  let [i, k] = [0, 0]
  while (i < a.length || k < b.length) {
    const takesA = k >= b.length || (i < a.length && (a[i] as number) <= (b[k] as number) - by)
    const from = takesA ? (a[i] as number) : (b[k] as number) - by
    const to = takesA ? (a[i + 1] as number) : (b[k + 1] as number) + by
    if (takesA) i += 2
    else k += 2
    const end = out.length - 1
    if (end > 0 && from <= (out[end] as number)) out[end] = Math.max(out[end] as number, to)
    else out.push(from, to)
  }
  return out
}

/** What of [from, to) is in no run. */
export function left(runs: Runs, from: number, to: number): Runs {
  const out: number[] = []
  let at = from
  for (let i = 0; i < runs.length && at < to; i += 2) {
    const [a, b] = [runs[i] as number, runs[i + 1] as number]
    if (a > at) out.push(at, Math.min(a, to))
    at = Math.max(at, b)
  }
  if (at < to) out.push(at, to)
  return out
}

/** For every row all that lies within `radius` pixels of the runs of any row (by the distance of pixel centres). */
export function widened(rows: readonly Runs[], radius: number): Runs[] {
  const reach = Math.floor(radius)
  const by = Array.from({ length: reach + 1 }, (_, dy) => Math.floor(Math.sqrt(radius * radius - dy * dy)))
  return rows.map((own, y) => {
    let all = joined([], own, by[0] as number)
    for (let dy = 1; dy <= reach; dy++) {
      all = joined(all, rows[y - dy] ?? [], by[dy] as number)
      all = joined(all, rows[y + dy] ?? [], by[dy] as number)
    }
    return all
  })
}
