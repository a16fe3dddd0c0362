import type { DeviceEntry } from '@bold-ballast/contract'
import type { LineOfLog } from '@bold-ballast/core'
import { useState } from 'react'
import { api } from '../../../data/api.ts'
import { useStream } from '../../../shared/use-stream.ts'

type LineFor = (channels: readonly { readonly name: string; readonly unit: string }[], rows: readonly (readonly (number | null)[])[]) => LineOfLog

interface Taking {
  readonly line: LineFor
  readonly take: (line: string, from: string) => void
  /** Something was typed already: it is not written over. */
  readonly isWritten: boolean
}

/** Readings of a stop out of a connected logger; nothing where none is there. */
export function FromLogger(taking: Taking) {
  const { data: devices = [] } = api.useDevicesQuery()
  const logger = devices.find(({ kind }) => kind === 'logger')
  return logger ? <OneLogger key={logger.id} device={logger} {...taking} /> : null
}

function OneLogger({ device, line, take, isWritten }: Taking & { device: DeviceEntry }) {
  const { rows, state } = useStream(device.id)
  const [said, setSaid] = useState('')
  const fill = () => {
    const found = line(
      device.channels ?? [],
      rows.map(({ values }) => values),
    )
    if (found.line === '') return setSaid('It has no channel for what is asked here.')
    take(found.line, device.name)
    setSaid(found.missing.length === 0 ? '' : `It does not read ${found.missing.map((name) => name.toLowerCase()).join(', ')}: type that.`)
  }
  return (
    <p className="no-print flex flex-wrap items-center gap-x-3 text-quiet">
      <button type="button" className="word-link" disabled={rows.length === 0 || isWritten} onClick={fill}>
        Take the readings of {device.name}
      </button>
      {state === 'lost'
        ? 'It counts as lost; what it told before is kept.'
        : rows.length === 0
          ? 'It told of no lap yet.'
          : said || 'The highest it told since this page opened.'}
    </p>
  )
}
