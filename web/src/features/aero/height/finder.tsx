import {
  attempt,
  CalculationError,
  contactMps,
  fromSi,
  type HeightsInput,
  packerForHeight,
  type StageAxle,
  springForHeight,
  touches,
  wheelRates,
} from '@bold-ballast/core'
import { useState } from 'react'
import { useQuantities } from '../../../ui/quantity.ts'

interface Asked {
  readonly input: HeightsInput
  readonly front: StageAxle
  readonly fastestMps: number
  readonly point: number
  readonly heightM: number
}

/** The front spring that would hold a height without its rubber, and what that costs in ride frequency. */
function BySpring({ input, front, fastestMps, point, heightM }: Asked) {
  const { text } = useQuantities()
  const bare = { ...input, front: { ...input.front, rubber: [] } }
  const found = attempt(() => springForHeight(bare, { which: 'front', point, heightM, speedMps: fastestMps }))
  if (found instanceof CalculationError) return <>{found.message}</>
  const after = wheelRates({ ...front.springs, springRateNPerM: found, sprungKg: front.sprungKg })
  return (
    <>
      By the front spring alone: <strong>{text('springRate', found, { decimals: 0 })}</strong>, {text('springRate', after.wheelRateNPerM, { decimals: 0 })} at
      the wheel
      {after.rideFrequencyHz !== null && front.rates.rideFrequencyHz !== null && (
        <>
          : ride frequency {front.rates.rideFrequencyHz.toFixed(2)} to {after.rideFrequencyHz.toFixed(2)} Hz, in slow corners too
        </>
      )}
      .
    </>
  )
}

/** The packer on the front rubber that would hold it, and from which speed on it is felt. */
function ByPacker({ input, fastestMps, point, heightM }: Asked) {
  const { text } = useQuantities()
  const found = attempt(() => packerForHeight(input, { which: 'front', point, heightM, speedMps: fastestMps }))
  if (found instanceof CalculationError) return <>{found.message}</>
  const contact = attempt(() => contactMps({ ...input, front: { ...input.front, packerM: found } }, 'front'))
  return (
    <>
      By a packer on its rubber: <strong>{text('length', found, { decimals: 1 })}</strong>
      {typeof contact === 'number' ? `, met from ${text('speed', contact, { decimals: 0 })} on; slower corners ride as before` : ''}.
    </>
  )
}

/** What would hold the lowest point at a wanted height at the fastest speed: a spring, or a packer. */
export function Finder({ input, front, fastestMps }: { input: HeightsInput; front: StageAxle; fastestMps: number }) {
  const { text, units } = useQuantities()
  const [typed, setTyped] = useState(() => fromSi('length', 0.06, units.length).toFixed(0))
  const all = touches(input, fastestMps)
  const point = all.reduce((best, { leastM }, i) => (leastM < (all[best]?.leastM ?? 0) ? i : best), 0)
  const heightM = Number(typed.replace(',', '.')) / fromSi('length', 1, units.length)
  const asked = { input, front, fastestMps, point, heightM }
  return (
    <div className="mt-3">
      <label className="flex flex-wrap items-center gap-2">
        <span>Hold {all[point]?.name} at</span>
        <input value={typed} onChange={(event) => setTyped(event.target.value)} className="w-20 text-right" inputMode="decimal" />
        <span>
          {units.length} at {text('speed', fastestMps, { decimals: 0 })}
        </span>
      </label>
      <div role="status" className="mt-1">
        {Number.isFinite(heightM) && typed.trim() !== '' ? (
          <>
            <p>
              <BySpring {...asked} />
            </p>
            <p>
              <ByPacker {...asked} />
            </p>
          </>
        ) : (
          'Type a height.'
        )}
      </div>
    </div>
  )
}
