/** Prints figures beside their budgets. Answers whether all are met. */
export function print(rows) {
  const width = Math.max(...rows.map(row => row.what.length))
  for (const { what, figure, budget, met, ratio } of rows) {
    console.log(
      `${met ? '✓' : '✗'} ${what.padEnd(width)}  ${figure.padStart(12)}  budget ${budget.padEnd(10)} ${ratio}`,
    )
  }
  return rows.every(row => row.met)
}
