import { PAD_NAMES, PAD_WORDS } from '@bold-ballast/core'
import { useQuantities } from '../ui/quantity.ts'
import type { DeviceStream } from './use-stream.ts'

const LOW_BATTERY = 0.15

const STATE_WORDS = {
  opening: 'Opening …',
  connected: 'Reading live.',
  lost: 'The scales were lost. What they last said is kept; they are looked for.',
  serverAway: 'The server does not answer. What the scales last said is kept; it is looked for.',
} as const

/** Four pads as they read now: the number, whether it stands still, and what is wrong with a pad. */
export function LivePads({ stream }: { stream: DeviceStream }) {
  const { format, text } = useQuantities()
  const { reading, state } = stream
  const total = reading && PAD_NAMES.every((pad) => reading.pads[pad] !== null) ? PAD_NAMES.reduce((sum, pad) => sum + (reading.pads[pad]?.kg ?? 0), 0) : null
  return (
    <div>
      <p role="status" className={state === 'connected' || state === 'opening' ? 'text-quiet' : 'text-wait'}>
        {STATE_WORDS[state]}
      </p>
      <dl className="my-2 grid max-w-[520px] grid-cols-2 gap-px border border-line bg-line">
        {PAD_NAMES.map((pad) => {
          const value = reading?.pads[pad]
          return (
            <div key={pad} className="bg-sheet p-3">
              <dt className="text-quiet">{PAD_WORDS[pad]}</dt>
              <dd>
                <span className="text-[26px] font-bold" data-pad={pad}>
                  {value ? format('mass', value.kg, { decimals: 1 }).number : 'no reading'}
                </span>
                {value && <span className="ml-1 text-quiet">{format('mass', value.kg).unit}</span>}
                <span className="block text-xs text-quiet">
                  {value ? (value.isStable ? 'standing still' : 'settling') : reading ? 'this pad is out' : ''}
                  {value && value.battery < LOW_BATTERY && <strong className="text-wait"> battery low, {(value.battery * 100).toFixed(0)} %</strong>}
                </span>
              </dd>
            </div>
          )
        })}
      </dl>
      {reading && <p className="font-semibold">{total === null ? 'Total unknown while a pad is out.' : `Total ${text('mass', total, { decimals: 1 })}`}</p>}
    </div>
  )
}
