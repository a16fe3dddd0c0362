import type { Board } from '@bold-ballast/core'
import { useState } from 'react'
import { useOwnerActions } from '../../data/crew/use-owner-actions.ts'
import { useBuild } from '../../data/use-build.ts'
import { boardCsv } from '../../shared/board/board-csv.ts'
import { Trail } from '../../shared/board/trail.tsx'
import { exportBuild } from '../../shared/export-build.ts'
import { CsvButton } from '../../ui/files/csv-button.tsx'
import { Plates } from '../../ui/plates.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { Alert } from '../../ui/states.tsx'
import { BoardTable } from './board-table.tsx'
import { isSettled, MANY_ROWS, shownGroups } from './shown-rows.ts'
import { FirstOfNext, WhatNext } from './what-next.tsx'

/** With more rows than these What next would stand under the fold. */
const FITS_ABOVE_NEXT = 5

const NUMBERS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine'] as const
const count = (number: number, word: string) => `${NUMBERS[number] ?? number} ${word}${number === 1 ? '' : 's'}`

function boardTitle(board: Board): string {
  const goals = board.rows.map((row) => row.goal)
  const broken = goals.filter((goal) => goal.kind === 'limit' && goal.verdict?.word === 'broken').length
  const would = goals.filter((goal) => goal.kind === 'limit' && goal.verdict?.word === 'would break').length
  const targets = goals.filter((goal) => goal.kind === 'target')
  const open = targets.filter((goal) => goal.kind === 'target' && goal.verdict !== null && goal.verdict.word !== 'met').length
  const isWaiting = targets.some((goal) => goal.kind === 'target' && goal.verdict === null)
  const limits = broken > 0 ? `${count(broken, 'limit')} broken` : would > 0 ? `${count(would, 'limit')} would break` : ''
  const goalsText =
    targets.length === 0
      ? 'no target set yet'
      : open === 0
        ? isWaiting
          ? 'the rest is being worked out'
          : 'every target met'
        : `${count(open, 'target').toLowerCase()} not there yet`
  const text = [limits, goalsText].filter(Boolean).join(', ')
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** Targets and limits by stage, the trail and what to do next. */
export function BoardPage() {
  const { board, records, position, stages, buildId } = useBuild()
  const [showsAll, setShowsAll] = useState(false)
  const [onlyOpen, setOnlyOpen] = useState(false)
  const { units } = useQuantities()
  const ownerActions = useOwnerActions(buildId)
  if (!board) return null
  const name = records?.build.name ?? ''
  const isLong = stages.length > 6
  const groups = shownGroups(board, onlyOpen)
  const isTall = shownGroups(board, false).length > FITS_ABOVE_NEXT
  const next = { board, buildId, ownerActions }
  const settled = board.rows.filter(isSettled).length
  return (
    <>
      <title>{`${name}: Board · Bold Ballast`}</title>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4">
        <h1>{boardTitle(board)}</h1>
        {isLong && (
          <button type="button" className="word-link" onClick={() => setShowsAll(!showsAll)}>
            {showsAll ? 'fewer stages' : 'all stages'}
          </button>
        )}
        {board.rows.length >= MANY_ROWS && settled > 0 && (
          <button type="button" className="word-link" onClick={() => setOnlyOpen(!onlyOpen)}>
            {onlyOpen ? `all ${board.rows.length} goals` : `only the ${board.rows.length - settled} not met`}
          </button>
        )}
        <span className="ml-auto flex gap-x-4">
          <CsvButton name={`${name}-board`} table={() => boardCsv(board, units)} />
          <button type="button" className="word-link" onClick={() => exportBuild(buildId)}>
            Export the build
          </button>
        </span>
      </div>
      {board.problems.map((problem) => (
        <Alert key={problem} className="mb-3">
          {problem}
        </Alert>
      ))}
      {isTall && <FirstOfNext {...next} />}
      <BoardTable board={board} groups={groups} position={position} showsAll={showsAll || !isLong} />
      <p className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-xs text-quiet">
        <span>Proof:</span>
        {(['guess', 'calculated', 'measured', 'confirmed'] as const).map((proof) => (
          <span key={proof} className="flex items-center gap-1.5">
            <Plates proof={proof} /> {proof === 'calculated' ? 'catalogue or calculated' : proof}
          </span>
        ))}
        <span className="ml-auto flex flex-wrap items-center gap-x-4">
          <span className="flex items-center gap-1.5">
            <svg width="10" height="8" aria-hidden="true">
              <path d="M0 8 h10 l-5 -8 z" fill="var(--ink)" />
            </svg>
            goal, to be reached
          </span>
          <span className="flex items-center gap-1.5">
            <svg width="5" height="11" aria-hidden="true">
              <rect width="5" height="11" fill="var(--ink)" />
            </svg>
            limit, not to be passed
          </span>
          <span>hatched: planned</span>
        </span>
      </p>
      <div className="mt-4 grid gap-8 min-[1180px]:grid-cols-[1fr_1.15fr]">
        {records ? <Trail board={board} records={records} position={position} /> : <div className="min-h-[340px]" />}
        <WhatNext {...next} areFirstAbove={isTall} />
      </div>
    </>
  )
}
