import { afterEach, expect, it, vi } from 'vitest'
import { askAgain } from './lazy-part.ts'

afterEach(() => vi.useRealTimers())

it.each([0, 1, 6])('what comes at the try after %d failures comes, and is asked for no more often', async (failures) => {
  vi.useFakeTimers()
  let asked = 0
  const answer = askAgain(async () => {
    if (asked++ < failures) throw new TypeError('Failed to fetch')
    return 'here'
  })
  await vi.advanceTimersByTimeAsync(60_000)
  await expect(answer).resolves.toBe('here')
  expect(asked).toBe(failures + 1)
})

it('waits longer each time, and at most five seconds', async () => {
  vi.useFakeTimers()
  const at: number[] = []
  void askAgain(async () => {
    at.push(Date.now())
    if (at.length < 8) throw new Error('away')
  })
  await vi.advanceTimersByTimeAsync(60_000)
  expect(at.slice(1).map((moment, i) => moment - (at[i] as number))).toEqual([400, 800, 1600, 3200, 5000, 5000, 5000])
})
