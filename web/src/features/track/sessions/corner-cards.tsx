import { type RoomTrackSession, readTread, WHEEL_KEYS } from '@bold-ballast/core'
import { useQuantities } from '../../../ui/quantity.ts'

const WORDS = { LF: 'Left front', RF: 'Right front', LR: 'Left rear', RR: 'Right rear' } as const
const CAMBER = { more: 'more camber', suits: 'camber suits', less: 'less camber' } as const
const PRESSURE = { high: 'pressure high', suits: 'pressure suits', low: 'pressure low' } as const

/** Four corners as they stand: cold to hot, and the tread across with what it hints at. */
export function CornerCards({ session }: { session: RoomTrackSession }) {
  const { text, format, units } = useQuantities()
  const { corners, treadBy } = session.record
  if (!corners) return null
  return (
    <section aria-label="Four corners" className="mt-4">
      <h3 className="mb-1 font-semibold">
        Four corners{' '}
        <span className="font-normal text-quiet">
          pressure in {units.pressure}, cold to hot; tread read by {treadBy === 'probe' ? 'a needle' : 'its surface'}
        </span>
      </h3>
      <div className="grid max-w-[620px] grid-cols-2 gap-x-8 gap-y-3">
        {WHEEL_KEYS.map((wheel) => {
          const own = corners[wheel]
          const told = own?.treadK ? readTread(own.treadK) : null
          // Outer edges stand outside: on the left the outer edge is left.
          const shown = own?.treadK ? (wheel.startsWith('L') ? [...own.treadK].reverse() : own.treadK) : null
          const [low, high] = shown ? [Math.min(...shown), Math.max(...shown)] : [0, 0]
          return (
            <div key={wheel} className="border-t border-line pt-1">
              <div className="text-xs text-quiet">{WORDS[wheel]}</div>
              {own?.coldPa != null || own?.hotPa != null ? (
                <div className="tabular-nums">
                  {own.coldPa === null ? '?' : format('pressure', own.coldPa).number} →{' '}
                  <strong>{own.hotPa === null ? '?' : format('pressure', own.hotPa).number}</strong>
                  {own.isBled ? ' bled' : ''}
                </div>
              ) : (
                <div className="text-quiet">not read</div>
              )}
              {shown && told && (
                <>
                  <div
                    className="mt-1 flex items-end gap-[3px]"
                    role="img"
                    aria-label={`tread from the left: ${shown.map((kelvin) => text('temperature', kelvin, { decimals: 0 })).join(', ')}`}
                  >
                    {shown.map((kelvin, i) => (
                      <span key={i === 0 ? 'left' : i === 1 ? 'middle' : 'right'} className="flex w-9 flex-col items-center">
                        <span className="text-xs tabular-nums">{format('temperature', kelvin, { decimals: 0 }).number}</span>
                        <span className="w-full bg-pine" style={{ height: 6 + (18 * (kelvin - low)) / Math.max(high - low, 4) }} />
                      </span>
                    ))}
                  </div>
                  <div className="mt-0.5 text-xs text-quiet">
                    {CAMBER[told.camber]}, {PRESSURE[told.pressure]}
                  </div>
                </>
              )}
            </div>
          )
        })}
      </div>
    </section>
  )
}
