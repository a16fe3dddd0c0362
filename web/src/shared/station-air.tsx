import type { DeviceEntry } from '@bold-ballast/contract'
import { useCallback, useEffect, useState } from 'react'
import { api } from '../data/api.ts'
import { useQuantities } from '../ui/quantity.ts'
import { airValues } from './fields/air-fields.ts'
import { type DeviceStream, useStream } from './use-stream.ts'

const AWAY = {
  opening: 'It is opened …',
  lost: 'It has said nothing for 2.5 s: it counts as lost, and is looked for.',
  serverAway: 'The server does not answer; it is looked for.',
} as const

/** What the station reads now, in words. */
function useAirWords({ air, state }: Pick<DeviceStream, 'air' | 'state'>): string {
  const { text } = useQuantities()
  if (state !== 'connected') return AWAY[state]
  if (!air) return 'It has read nothing yet.'
  const wind = air.windMps === null ? '' : `, wind ${text('speed', air.windMps, { decimals: 0 })}`
  return `${text('pressure', air.pressurePa)}, ${text('temperature', air.temperatureK, { decimals: 1 })}, ${text('share', air.relativeHumidity, { decimals: 0 })} humid${wind}`
}

/** A weather station as it reads now. */
export function StationLine({ device }: { device: DeviceEntry }) {
  const stream = useStream(device.id)
  const words = useAirWords(stream)
  return <p className={stream.state === 'connected' ? 'text-[18px] font-semibold tabular-nums' : 'border-l-4 border-wait pl-3'}>{words}</p>
}

type Set = (name: string, text: string) => void

/** Fills the air of a form from a connected weather station, by its button or by Alt and A; nothing where no station is connected. */
export function AirFromStation({ set }: { set: Set }) {
  const { data: devices = [] } = api.useDevicesQuery()
  const station = devices.find(({ kind }) => kind === 'weather')
  return station ? <OneStation key={station.id} device={station} set={set} /> : null
}

function OneStation({ device, set }: { device: DeviceEntry; set: Set }) {
  const { units } = useQuantities()
  const stream = useStream(device.id)
  const words = useAirWords(stream)
  const [taken, setTaken] = useState('')
  const { air, state } = stream
  const isReady = air !== null && state === 'connected'
  const take = useCallback(() => {
    if (!air) return
    for (const [name, text] of Object.entries(airValues(air, units))) set(name, text)
    set('pressureKind', 'station')
    setTaken(new Date().toTimeString().slice(0, 5))
  }, [air, set, units])
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || event.ctrlKey || event.metaKey || event.code !== 'KeyA' || !isReady) return
      event.preventDefault()
      take()
    }
    document.addEventListener('keydown', onKey)
    return () => document.removeEventListener('keydown', onKey)
  }, [isReady, take])
  return (
    <p className="flex flex-wrap items-center gap-x-3 sm:col-span-2">
      <button type="button" className="button" disabled={!isReady} aria-keyshortcuts="Alt+A" onClick={take}>
        Take the air of {device.name}
      </button>
      <span role="status" className="text-quiet tabular-nums">
        {words}
        {taken && `; taken at ${taken}`}
      </span>
    </p>
  )
}
