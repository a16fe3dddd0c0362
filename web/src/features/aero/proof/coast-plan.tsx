import {
  attempt,
  CalculationError,
  type CoastPlan,
  parseNumber,
  parseQuantity,
  type QuantityKind,
  USUAL_ROLLING,
  USUAL_ROTATING_SHARE,
} from '@bold-ballast/core'
import type { Remote } from 'comlink'
import { useState } from 'react'
import { useWorked } from '../../../ui/hooks/use-worked.ts'
import { useQuantities, usualText } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import type { AeroWorker } from '../aero.worker.ts'
import { beginAeroWorker } from '../begin-worker.ts'
import type { AeroTabProps } from '../tab-props.ts'

const FIELDS = [
  { name: 'from', label: 'From', kind: 'speed', usual: 50 },
  { name: 'to', label: 'down to', kind: 'speed', usual: 15 },
  { name: 'gust', label: 'gusts along the road', kind: 'speed', usual: 1 },
] as const satisfies readonly { name: string; label: string; kind: QuantityKind; usual: number }[]

/** Stands for a drag that nobody knows yet (common practice, no source). */
const USUAL_DRAG_AREA_M2 = 0.75

interface Asked {
  readonly fromMps: number
  readonly toMps: number
  readonly gustMps: number
  readonly pairs: number
}

/** Why such a test cannot be planned, by the field; null where it can. */
function whyUnplanned({ fromMps, toMps, gustMps, pairs }: Asked, speed: (mps: number) => string): string | null {
  if (fromMps < 5 || fromMps > 100) return `From: a coast-down begins at ${speed(5)} to ${speed(100)}.`
  if (toMps < 1 || toMps > fromMps / 1.5)
    return `Down to: air and rolling are told apart only over a span of 1.5 to 1. Let it roll down to ${speed(fromMps / 1.5)} or less.`
  if (gustMps < 0 || gustMps > 6) return `Gusts: over ${speed(6)} nobody tests. Wait for a calmer hour.`
  if (!Number.isInteger(pairs) || pairs < 1 || pairs > 50) return 'Pairs: a whole number from 1 to 50.'
  return null
}

/** What a coast-down would tell before it is driven: the road a run needs, how far off one pair is, and the smallest change that would be found. */
export function CoastPlanner({ made, room, totals }: Pick<AeroTabProps, 'made' | 'room' | 'totals'>) {
  const { units, text, decimalMark } = useQuantities()
  const [typed, setTyped] = useState<Record<string, string>>(() => ({
    ...Object.fromEntries(FIELDS.map(({ name, kind, usual }) => [name, usualText(units, kind, usual)])),
    pairs: '4',
  }))
  const read = attempt(() => ({
    ...Object.fromEntries(
      FIELDS.map(({ name, label, kind }) => [
        `${name}Mps`,
        parseQuantity(typed[name] ?? '', kind, { defaultUnit: units[kind], decimalMark, field: label }).value,
      ]),
    ),
    pairs: parseNumber(typed.pairs ?? '', decimalMark, 'pairs'),
  })) as CalculationError | Asked
  const refusal = read instanceof CalculationError ? read.message : whyUnplanned(read, (mps) => text('speed', mps, { decimals: 0 }))
  const input =
    refusal === null && !(read instanceof CalculationError) && made.mass
      ? {
          ...read,
          dragAreaM2: totals.drag.isWhole ? totals.areas.dragM2 : USUAL_DRAG_AREA_M2,
          rollingCoefficient: made.anchors.drag?.rollingCoefficient ?? USUAL_ROLLING,
          massKg: made.mass.value,
          massSdKg: made.mass.sd,
          rotatingShare: USUAL_ROTATING_SHARE,
          airDensityKgM3: room.airDensityKgM3,
          airDensitySd: 0.005 * room.airDensityKgM3,
        }
      : null
  const { answer } = useWorked(
    beginAeroWorker,
    input ? JSON.stringify(input) : '',
    async (remote: Remote<AeroWorker>): Promise<CoastPlan | { readonly refused: string }> => remote.plan(input as NonNullable<typeof input>),
  )
  if (!made.mass) return <p className="text-quiet">Weigh the car at this stage, or a stage before; then a test can be planned.</p>
  const percent = (share: number) => text('share', share, { decimals: 1 })
  return (
    <section aria-label="Planner">
      <h2 className="mb-1">Before it is driven</h2>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        {[...FIELDS, { name: 'pairs', label: 'pairs' }].map(({ name, label }) => (
          <label key={name} className="text-xs text-quiet">
            {label}
            <input
              value={typed[name] ?? ''}
              onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
              className="block w-28 text-sm text-ink"
              autoComplete="off"
            />
          </label>
        ))}
      </div>
      {refusal && <Alert className="mt-2">{refusal}</Alert>}
      {!refusal && answer && 'refused' in answer && <Alert className="mt-2">{answer.refused}</Alert>}
      {!refusal && answer && !('refused' in answer) && (
        <dl className="mt-3 flex flex-wrap gap-x-8 gap-y-2">
          {[
            ['Road for a run', text('distance', answer.roadM)],
            ['Time for a run', `${answer.timeS.toFixed(0)} s`],
            ['One pair is off by', `± ${percent(answer.onePairRelativeSd)}`],
            ['The mean of all by', `± ${percent(answer.wholeRelativeSd)}`],
            ['Of it no repeat removes', `± ${percent(answer.systematicRelativeSd)}`],
            [
              'Smallest change it would find',
              answer.smallestDifferenceRelative === null
                ? 'none: drive two pairs'
                : `${percent(answer.smallestDifferenceRelative)}, ${text('area', answer.smallestDifferenceRelative * (input?.dragAreaM2 ?? 0), { decimals: 3 })}`,
            ],
          ].map(([word, value]) => (
            <div key={word}>
              <dt className="text-xs text-quiet">{word}</dt>
              <dd className="text-[17px] font-semibold tabular-nums">{value}</dd>
            </div>
          ))}
        </dl>
      )}
      <p className="mt-2 text-xs text-quiet">
        {totals.drag.isWhole ? '' : 'The drag of this car is not known: 0.75 m² stands for it. '}Gusts last 6 s, speed is read to 0.05 m/s ten times a second;
        what rotates is 4 ± 1 % of the mass (common practice).
      </p>
    </section>
  )
}
