import type { BoardStage } from '@bold-ballast/core'
import { useEffect, useRef } from 'react'
import { stageStateText } from '../ui/words.ts'

/** Stages as stations on one line: solid where proven, hatched where planned, the picked one on yellow. */
export function StageRail({ stages, position, pick }: { stages: readonly BoardStage[]; position: number; pick: (at: number) => void }) {
  const picked = useRef<HTMLButtonElement>(null)
  // Where quick key presses lead, before the address has followed.
  const wanted = useRef(position)
  useEffect(() => {
    wanted.current = position
  }, [position])
  useEffect(() => {
    const move = (event: Event) => {
      wanted.current = Math.min(stages.length - 1, Math.max(0, wanted.current + (event as CustomEvent<number>).detail))
      pick(wanted.current)
    }
    document.addEventListener('move-stage', move)
    return () => document.removeEventListener('move-stage', move)
  }, [pick, stages.length])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the picked station is scrolled into view whenever the pick moves.
  useEffect(() => {
    picked.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [position])
  const isCrowded = stages.length > 7
  const current = stages[position]
  return (
    <nav aria-label="Stages" className="no-print border-b border-line bg-sheet">
      <div className="flex items-center gap-2 px-3 py-2 min-[640px]:hidden">
        <button type="button" className="button" disabled={position === 0} onClick={() => pick(position - 1)} aria-label="Stage before">
          ‹
        </button>
        <div className="flex-1 bg-picked px-2 py-1 text-center">
          <strong>
            {position} {current?.name}
          </strong>
          <div className="text-xs text-quiet">{current && stageStateText(current)}</div>
        </div>
        <button type="button" className="button" disabled={position === stages.length - 1} onClick={() => pick(position + 1)} aria-label="Stage after">
          ›
        </button>
      </div>
      <ol className="hidden min-h-[76px] overflow-x-auto pl-4 min-[640px]:flex min-[900px]:pl-[168px]">
        {stages.map((stage, at) => {
          const isPicked = at === position
          const isNear = !isCrowded || Math.abs(at - position) <= 1
          const isSolid = stage.state === 'proven' || stage.state === 'built'
          return (
            <li
              key={stage.id}
              className={`shrink-0 ${isNear ? 'min-w-[132px] flex-1' : 'min-w-[72px] flex-[0.5]'} max-w-[240px] ${isPicked ? 'bg-picked' : ''}`}
            >
              <button
                type="button"
                ref={isPicked ? picked : undefined}
                aria-current={isPicked ? 'step' : undefined}
                className="block h-full w-full px-2 pt-3 pb-2 text-left"
                onClick={() => pick(at)}
                onKeyDown={(event) => {
                  const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
                  if (step === 0) return
                  event.preventDefault()
                  pick(at + step)
                  const list = event.currentTarget.closest('ol')
                  list?.querySelectorAll<HTMLButtonElement>('button')[at + step]?.focus()
                }}
              >
                <span className="flex items-center">
                  <span
                    className={`grid h-[19px] min-w-[19px] place-items-center rounded-[3px] px-1 text-[11px] font-bold ${isPicked ? 'bg-[#f5c518] text-[#15211f]' : stage.state === 'planned' ? 'border-2 border-planned text-planned-text' : 'bg-pine text-sheet'}`}
                  >
                    {at}
                  </span>
                  {at < stages.length - 1 && (
                    <svg height="6" width="100%" aria-hidden="true" preserveAspectRatio="none" className="ml-0.5 block">
                      <line
                        x1="0"
                        x2="100%"
                        y1="3"
                        y2="3"
                        strokeWidth="4"
                        stroke={isSolid ? 'var(--pine)' : 'var(--planned)'}
                        strokeDasharray={isSolid ? undefined : stage.state === 'underway' ? '14 5' : '5 4'}
                      />
                    </svg>
                  )}
                </span>
                <span className="mt-1 block truncate text-[13px] font-bold">{isNear ? stage.name : ' '}</span>
                <span className={`block truncate text-xs ${stage.isLate ? 'text-wait' : 'text-quiet'}`}>
                  {isNear ? stageStateText(stage) : stage.state}
                  {stage.isDateOutOfOrder && ', date out of order'}
                </span>
              </button>
            </li>
          )
        })}
      </ol>
    </nav>
  )
}
