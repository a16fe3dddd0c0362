import type { BatchWrite } from '@bold-ballast/contract'
import { attempt, CalculationError, type GapView, readCheckLine } from '@bold-ballast/core'
import { useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { localDay } from '../../../data/local-day.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { WHEEL_SIDE_WORDS } from '../../../shared/wheel-side-words.ts'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { OneLine } from '../../../ui/forms/one-line.tsx'
import { useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { useQuantities, usualText } from '../../../ui/quantity.ts'
import { Caution, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'

import type { SystemsTabProps } from '../tab-props.ts'
import { gapsTable } from '../tables.ts'

const SO = { touches: ['touches', 'text-danger'], tight: ['tight', 'text-wait'], holds: ['holds by this sum', 'text-pine'] } as const

/** A gap drawn to scale: cold, what is left hot, and what it wants. */
function GapBar({ gap, most }: { gap: GapView; most: number }) {
  const { coldM, hotM, needM } = gap
  const share = (metres: number) => `${(98 * Math.max(0, metres)) / most}%`
  if (coldM === null || hotM === null) return null
  return (
    <svg width="100%" height="18" aria-hidden="true" className="block min-w-32">
      <rect x="0" y="3" width={share(coldM)} height="12" fill="var(--page)" stroke="var(--edge)" />
      <rect x="0" y="3" width={share(hotM)} height="12" fill={hotM < needM ? 'var(--wait)' : 'var(--pine)'} />
      <line x1={share(needM)} x2={share(needM)} y1="0" y2="18" stroke="var(--ink)" strokeWidth="2" />
    </svg>
  )
}

/** Gaps, the smallest headroom first: cold as measured, hot as reckoned. */
export function GapsTab({ records, made, stageId }: SystemsTabProps) {
  const { text, units, decimalMark } = useQuantities()
  const buildId = records.build.id
  const key = `bold-ballast.draft.${buildId}.gap`
  const [line, setLine] = useState(() => readStored(key, ''))
  const [said, setSaid] = useState<string | null>(null)
  const [ids, setIds] = useState(() => [crypto.randomUUID(), crypto.randomUUID(), crypto.randomUUID()] as const)
  const [write, { isLoading }] = api.useBatchMutation()
  const input = useRef<HTMLInputElement | null>(null)
  const keep = (next: string) => {
    setLine(next)
    setSaid(null)
    writeStored(key, next === '' ? undefined : next)
  }
  const read =
    line.trim() === ''
      ? null
      : attempt(() =>
          readCheckLine(/^gap\b/i.test(line.trim()) ? line : `gap ${line}`, { today: localDay(), mark: decimalMark, units, geometry: records.build }),
        )
  const good = read instanceof CalculationError ? null : read
  const known = good ? records.checks.find(({ name }) => name.toLowerCase() === good.check.name.toLowerCase()) : undefined
  const words = good
    ? `${good.check.name}, to something ${good.check.gap?.nature}${good.readM === null ? '' : `, ${text('length', good.readM)} cold`}${good.check.gap?.besideWheel ? `, follows ${WHEEL_SIDE_WORDS[good.check.gap.besideWheel]}` : ''}${known ? '; measured again' : ''}`
    : ''
  const store = async () => {
    if (!good) return
    const [batchId, checkId, markId] = ids
    const id = known?.id ?? checkId
    const writes = [
      ...(known ? [] : [{ kind: 'create', resource: 'checks', body: { id, ...good.check } }]),
      ...(good.readM === null
        ? []
        : [
            {
              kind: 'create',
              resource: 'marks',
              body: { id: markId, checkId: id, stageId, at: new Date().toISOString(), result: 'ok', value: good.readM, typed: line.trim().slice(0, 80) },
            },
          ]),
    ] as unknown as BatchWrite[]
    if (writes.length === 0) return setSaid('That gap is there already. Type what it measures: its size with a unit.')
    const answer = await write({ buildId, batchId, writes })
    if (answer.error) return setSaid(`${readFailure(answer.error).message} The line is kept.`)
    setIds([crypto.randomUUID(), crypto.randomUUID(), crypto.randomUUID()])
    keep('')
    setSaid(`Stored: ${words}.`)
  }
  useTabKeys((pressed) => {
    if (pressed !== 'n') return false
    input.current?.focus()
    return true
  })
  const most = Math.max(0.01, ...made.gaps.flatMap(({ coldM, needM }) => [coldM ?? 0, needM]))
  return (
    <div className="grid max-w-5xl grid-cols-[minmax(0,1fr)] content-start gap-3">
      <OneLine
        label="A gap, in one line"
        placeholder={`gap downpipe to brake pipe ${usualText(units, 'length', 0.032)}`}
        text={line}
        type={keep}
        said={
          said ??
          (read instanceof CalculationError
            ? read.message
            : good
              ? `Reads as: ${words}. Enter stores.`
              : 'What to what, its size cold; moving, hot, fixed or service. Enter stores.')
        }
        store={store}
        isBusy={isLoading}
        input={input}
      />
      {made.gaps.length === 0 ? (
        <Empty
          title="No gap is watched yet"
          why="A pipe midway between brake line and manifold, an inch off a shaft, a tyre at full lock: afterwards the engine rocks and the pipe grows."
        />
      ) : (
        <>
          <div className="overflow-x-auto">
            <table className="w-full border-collapse">
              <thead>
                <tr>
                  <th className="text-left">Gap</th>
                  <th className="pl-3 text-left">Cold, hot, wanted</th>
                  <th className="pl-3 text-right">Cold</th>
                  <th className="pl-3 text-right">Hot</th>
                  <th className="pl-3 text-right">Wants</th>
                  <th className="pl-3 text-left">So</th>
                </tr>
              </thead>
              <tbody>
                {made.gaps.map((gap) => {
                  const { check, coldM, hotM, sdM, needM, isNeedUsual, verdict, at, byWheelsM, unknown } = gap
                  const [so, tone] = verdict ? SO[verdict] : ['measure it', 'text-wait']
                  return (
                    <tr key={check.id} className="border-t border-line align-baseline">
                      <td className="py-1.5">
                        <b>{check.name}</b>
                        <span className="block text-[13px] text-quiet">
                          {check.gap.nature}
                          {check.gap.access ? `, ${check.gap.access}` : ''}
                          {at ? `; measured ${dayText(at)}` : ''}
                          {byWheelsM === 0
                            ? ''
                            : `; ${text('length', Math.abs(byWheelsM), { decimals: 0 })} ${byWheelsM > 0 ? 'more' : 'less'} by the wheels of this stage`}
                        </span>
                        {unknown && <span className="block text-[13px] text-wait">{unknown}</span>}
                      </td>
                      <td className="w-48 py-1.5 pl-3">
                        <GapBar gap={gap} most={most} />
                      </td>
                      <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums">{coldM === null ? '–' : text('length', coldM, { decimals: 0 })}</td>
                      <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums">
                        {hotM === null ? '–' : <b>{text('length', hotM, { sd: sdM ?? undefined })}</b>}
                      </td>
                      <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums text-quiet">
                        {text('length', needM, { decimals: 0 })}
                        {isNeedUsual ? ' (usual)' : ''}
                      </td>
                      <td className={`py-1.5 pl-3 font-semibold ${tone}`}>{so}</td>
                    </tr>
                  )
                })}
              </tbody>
            </table>
          </div>
          <p className="text-[13px] text-quiet">
            <CsvButton name={`${records.build.name} gaps`} table={() => gapsTable(made.gaps)} /> Growth and rocking are typed with the check, under Checks. What
            a gap usually wants is common practice, no source. Due again when something near was worked on.
          </p>
        </>
      )}
      <Caution>
        How hot a neighbour gets is not reckoned: stick on a strip, drive, and enter the reading as a check. Fuel and brake lines beside hot parts want a
        shield, whatever this sum says.
      </Caution>
    </div>
  )
}
