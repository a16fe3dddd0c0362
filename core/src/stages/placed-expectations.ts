import type { BuildRecords } from '../records/records.ts'

type Records = Pick<BuildRecords, 'changes' | 'expectations'>

/**
 * Records in which what one line is expected to give stands at the stage of that line, wherever the line went since it was typed; of a line that was dropped
 * nothing is expected. The same records where no line gives anything.
 * @example placedExpectations(EXAMPLE) === EXAMPLE // true
 */
export function placedExpectations<Lists extends Records>(records: Lists): Lists {
  const { changes, expectations } = records
  if (expectations.every(({ changeId }) => !changeId)) return records
  const lines = new Map(changes.map((change) => [change.id, change]))
  const placed = expectations.flatMap((entry) => {
    if (!entry.changeId) return [entry]
    const line = lines.get(entry.changeId)
    return line && line.state !== 'dropped' ? [{ ...entry, stageId: line.stageId }] : []
  })
  return { ...records, expectations: placed }
}
