import type { DeviceEntry, DeviceEvent, DeviceReading, DynoSample, DynoStatus } from '@bold-ballast/contract'
import { useEffect, useState } from 'react'

export interface DeviceStream {
  readonly state: DeviceEntry['state'] | 'serverAway' | 'opening'
  /** Of a scale set. */
  readonly reading: DeviceReading | null
  /** Of a dyno. */
  readonly status: DynoStatus | null
  /** Of a dyno's latest pull, in order. */
  readonly samples: readonly DynoSample[]
  /** When it said something last. */
  readonly at: string | null
}

const OPENING: DeviceStream = { state: 'opening', reading: null, status: null, samples: [], at: null }

/** Samples joined to those of the same pull; what was told before, after the stream was opened again, is not taken twice. */
export function joinSamples(before: readonly DynoSample[], more: readonly DynoSample[]): readonly DynoSample[] {
  const [first] = more
  if (!first) return before
  if (before[0]?.pull !== first.pull) return more
  const last = before.at(-1)?.timeS ?? -1
  const fresh = more.filter(({ timeS }) => timeS > last)
  return fresh.length === 0 ? before : [...before, ...fresh]
}

function after(now: DeviceStream, event: DeviceEvent): DeviceStream {
  switch (event.type) {
    case 'state':
      return { ...now, state: event.state }
    case 'reading':
      return { ...now, state: 'connected', reading: event.reading, at: event.at }
    case 'status':
      return { ...now, state: 'connected', status: event.status, at: event.at }
    case 'samples':
      return { ...now, state: 'connected', samples: joinSamples(now.samples, event.samples), at: event.at }
  }
}

/** What a device says, live. What it said last is kept when the device or the server is lost, and both are looked for again. */
export function useStream(id: string | null): DeviceStream {
  const [stream, setStream] = useState<DeviceStream>(OPENING)
  useEffect(() => {
    if (id === null) return
    setStream(OPENING)
    const source = new EventSource(`/api/devices/${id}/stream`)
    source.onmessage = ({ data }) => {
      const event = JSON.parse(data as string) as DeviceEvent
      setStream((now) => after(now, event))
    }
    source.onerror = () => setStream((now) => ({ ...now, state: 'serverAway' }))
    return () => source.close()
  }, [id])
  return stream
}
