import { useParams, useSearchParams } from 'react-router'
import { api } from './api.ts'

/** The open build: its records, its Board, and the picked stage (in the address by its id). */
export function useBuild() {
  const buildId = useParams().buildId as string
  const board = api.useBoardQuery(buildId)
  // The Board's answer is short and stands first; the records are many times as long.
  const records = api.useRecordsQuery(buildId, { skip: !board.data && !board.error })
  const [search, setSearch] = useSearchParams()
  const stages = board.data?.stages ?? []
  const asked = stages.findIndex((stage) => stage.id === search.get('stage'))
  const latest = stages.findLastIndex((stage) => stage.state !== 'planned')
  const position = asked >= 0 ? asked : Math.max(latest, 0)
  const pick = (at: number) => {
    const stage = stages[at]
    if (!stage) return
    const next = new URLSearchParams(search)
    next.set('stage', stage.id)
    setSearch(next, { replace: true })
  }
  return {
    buildId,
    records: records.data,
    board: board.data,
    error: records.error ?? board.error,
    retry: () => {
      void records.refetch()
      void board.refetch()
    },
    stages,
    position,
    stage: stages[position],
    pick,
    search,
    setSearch,
  }
}
