import type { DeviceEntry, DeviceEvent, DeviceReading } from '@bold-ballast/contract'
import { useEffect, useState } from 'react'

export interface DeviceStream {
  readonly state: DeviceEntry['state'] | 'serverAway' | 'opening'
  readonly reading: DeviceReading | null
  /** When the last reading came. */
  readonly at: string | null
}

const OPENING: DeviceStream = { state: 'opening', reading: null, at: null }

/** What a device says, live. The last reading is kept when the device or the server is lost, and both are looked for again. */
export function useStream(id: string | null): DeviceStream {
  const [stream, setStream] = useState<DeviceStream>(OPENING)
  useEffect(() => {
    if (id === null) return
    setStream(OPENING)
    const source = new EventSource(`/api/devices/${id}/stream`)
    source.onmessage = ({ data }) => {
      const event = JSON.parse(data as string) as DeviceEvent
      setStream((now) => (event.type === 'state' ? { ...now, state: event.state } : { state: 'connected', reading: event.reading, at: event.at }))
    }
    source.onerror = () => setStream((now) => ({ ...now, state: 'serverAway' }))
    return () => source.close()
  }, [id])
  return stream
}
