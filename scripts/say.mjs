// What the commands tell whoever runs them: one plain line a step.

/** A failure that is told in one sentence, without a stack. */
export class PlainError extends Error {}

export const say = words => console.log(`· ${words}`)

/** Runs a command's main function; a plain failure is one sentence, anything else shows where it happened. */
export async function tell(main) {
  try {
    await main()
  } catch (error) {
    console.error(error instanceof PlainError ? `✗ ${error.message}` : error)
    process.exitCode = 1
  }
}
