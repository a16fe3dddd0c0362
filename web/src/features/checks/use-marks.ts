import type { RecordsAnswer } from '@bold-ballast/contract'
import type { MarkResult, Round } from '@bold-ballast/core'
import { useMemo } from 'react'
import { enqueue } from '../../data/outbox-sender.ts'
import { useAppSelector } from '../../data/store.ts'
import type { StoredCheck } from './tab-props.ts'

/** The records with the marks that the server has not got, or that were not read back yet: what was marked stands at once. */
export function useWithMarks(records: RecordsAnswer): RecordsAnswer {
  const { items, sent } = useAppSelector((state) => state.outbox)
  return useMemo(() => {
    const known = new Set(records.marks.map(({ id }) => id))
    const own = [...items, ...sent].filter(
      (item) => item.buildId === records.build.id && item.resource === 'marks' && item.kind === 'create' && item.refusal === null && !known.has(item.recordId),
    )
    if (own.length === 0) return records
    const marks = [...new Map(own.map((item) => [item.recordId, item.body])).values()] as unknown as RecordsAnswer['marks']
    return { ...records, marks: [...records.marks, ...marks] }
  }, [records, items, sent])
}

export interface MarkBody {
  readonly result: MarkResult
  readonly round?: Round | null
  readonly eventId?: string | null
  readonly trackSessionId?: string | null
  readonly value?: number | null
  readonly typed?: string | null
  readonly note?: string | null
  readonly damage?: { readonly isMakeDo: boolean; readonly hours: number | null; readonly cost: number | null } | null
}

/** Marks a check: kept in the browser until the server has it, once. */
export function markCheck(buildId: string, stageId: string, check: Pick<StoredCheck, 'id' | 'name'>, body: MarkBody): void {
  const id = crypto.randomUUID()
  const whole = {
    id,
    checkId: check.id,
    stageId,
    at: new Date().toISOString(),
    eventId: null,
    trackSessionId: null,
    round: null,
    value: null,
    sd: null,
    damage: null,
    typed: null,
    note: null,
    ...body,
  }
  enqueue({ buildId, kind: 'create', resource: 'marks', recordId: id, body: whole, words: `${check.name}: ${body.result}` })
}
