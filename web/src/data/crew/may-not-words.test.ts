import type { Problem } from '@bold-ballast/contract'
import { describe, expect, it } from 'vitest'
import { mayNotWords } from './may-not-words.ts'

const problem = (more: Partial<Problem>): Problem => ({ type: 'about:blank', title: '', status: 403, detail: 'no', code: 'may-not', ...more })
const now = new Date('2026-11-29T20:00:00')
const current = (since: string) => ({ buildName: 'Gannet', role: 'viewer', since, owner: 'Ilse' })

describe('a role that was lowered', () => {
  it('is said with since when and who can store it', () => {
    expect(mayNotWords(problem({ current: current('2026-11-29T14:02:00') }), now)).toBe(
      'You may only look at Gannet since 14:02. Your entry is kept here; Ilse can store it.',
    )
    expect(mayNotWords(problem({ current: current('2026-11-27T14:02:00') }), now)).toMatch(/since 27 Nov\. /)
  })
  it('of one who writes, says what the server said', () => {
    expect(mayNotWords(problem({ detail: 'For owners.', current: { ...current('2026-11-29T14:02:00'), role: 'crew' } }), now)).toBe(
      'For owners. Your entry is kept here.',
    )
  })
  it('and a build that is out of sight, are no other refusals', () => {
    expect(mayNotWords(problem({ status: 404, code: 'not-found' }))).toMatch(/to copy or to give up/)
    expect(mayNotWords(problem({ status: 422, code: 'bad-input' }))).toBeUndefined()
    expect(mayNotWords(null)).toBeUndefined()
  })
})
