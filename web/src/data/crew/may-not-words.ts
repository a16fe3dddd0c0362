import type { MayNot, Problem } from '@bold-ballast/contract'

const isMayNot = (current: unknown): current is MayNot => typeof current === 'object' && current !== null && 'role' in current && 'since' in current

const clock = (instant: string) => new Date(instant).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
const day = (instant: string) => new Date(instant).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })

/** Why an entry was refused for want of a role, since when, and who can store it; undefined: it was refused for something else. */
export function mayNotWords(problem: Problem | null | undefined, now = new Date()): string | undefined {
  if (problem?.code === 'not-found' && problem.status === 404) return 'It is not there for you any more. Your entry is kept here, to copy or to give up.'
  if (problem?.code !== 'may-not' || !isMayNot(problem.current)) return undefined
  const { buildName, role, since, owner } = problem.current
  const isToday = new Date(since).toDateString() === now.toDateString()
  const may = role === 'viewer' ? `You may only look at ${buildName ?? 'this'} since ${isToday ? clock(since) : day(since)}.` : problem.detail
  return `${may} Your entry is kept here${owner && role === 'viewer' ? `; ${owner} can store it` : ''}.`
}
