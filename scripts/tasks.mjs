// How long the page's thread works at a stretch, from a trace of the browser.

/**
 * The longest task of the page's main thread while `act` runs: the work it took (time the thread was running, ms) and the
 * time that passed meanwhile, which on a machine shared with others is longer. Throws when the trace holds no task.
 */
export async function longestTask(page, act) {
  const browser = page.context().browser()
  await browser.startTracing(page, { categories: ['toplevel', 'devtools.timeline'] })
  let trace
  try {
    await act()
  } finally {
    trace = await browser.stopTracing()
  }
  const { traceEvents } = JSON.parse(trace.toString())
  const pages = new Set(
    traceEvents
      .filter(event => event.name === 'thread_name' && event.args.name === 'CrRendererMain')
      .map(event => `${event.pid} ${event.tid}`),
  )
  const tasks = traceEvents.filter(
    event => event.ph === 'X' && event.name.endsWith('RunTask') && pages.has(`${event.pid} ${event.tid}`),
  )
  if (tasks.length === 0) throw new Error('the trace holds no task of the page')
  const longest = tasks.reduce((most, task) => (task.tdur > most.tdur ? task : most))
  return { workMs: longest.tdur / 1000, passedMs: longest.dur / 1000 }
}
