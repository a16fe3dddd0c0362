import { type ComponentType, lazy } from 'react'

const FIRST_PAUSE_MS = 400
const LONGEST_PAUSE_MS = 5000

/** Asks for something again, after longer and longer pauses, until it comes. */
export async function askAgain<Answer>(ask: () => Promise<Answer>): Promise<Answer> {
  for (let pause = FIRST_PAUSE_MS; ; pause = Math.min(LONGEST_PAUSE_MS, 2 * pause)) {
    try {
      return await ask()
    } catch {
      await new Promise((resolve) => setTimeout(resolve, pause))
    }
  }
}

/** A part of the page that is fetched when it is first needed; while the server is away it is asked for again, and the rest of the page stands. */
export const lazyPart = <Props>(load: () => Promise<ComponentType<Props>>) => lazy(async () => ({ default: await askAgain(load) }))
