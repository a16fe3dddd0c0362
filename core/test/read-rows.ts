import { LogReader } from '../src/tracklog/log-reader.ts'
import type { LogReport } from '../src/tracklog/log-report.ts'

interface Read extends LogReport {
  readonly samples: readonly number[][]
}

/** Rows read as a file is, with all samples of each channel. */
export function readRows(rows: readonly (readonly string[])[], options: Partial<ConstructorParameters<typeof LogReader>[0]> = {}): Read {
  const samples: number[][] = []
  const onBlock = (channel: number, block: Float32Array) => {
    samples[channel] = [...(samples[channel] ?? []), ...block]
  }
  const reader = new LogReader({ delimiter: ',', onBlock, ...options })
  for (const row of rows) reader.addRow(row)
  return { ...reader.finish(), samples }
}
