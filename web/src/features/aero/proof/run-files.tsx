import type { RecordsAnswer } from '@bold-ballast/contract'
import type { LogRole } from '@bold-ballast/core'
import { useState } from 'react'
import { type Column, ColumnTable } from '../../../shared/column-table.tsx'
import { LOG_COLUMN_ROLES } from '../../../shared/log-roles.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { type ReadRun, readRunFile } from './read-runs.ts'

/** What a person said the columns of a logger are. */
export interface RunMapping {
  readonly loggerName: string
  readonly columns: readonly { readonly heading: string; readonly role: LogRole; readonly unit: string }[]
}

type Blind = Extract<ReadRun, { refused: string }>

interface Props {
  /** Loggers whose columns were said before. */
  readonly loggers: RecordsAnswer['loggerMappings']
  readonly mapping: RunMapping | null
  readonly map: (mapping: RunMapping) => void
  readonly take: (texts: Readonly<Record<string, string>>, pairs: number) => void
}

const ROLES = LOG_COLUMN_ROLES.filter(({ role }) => ['time', 'speed', 'wheelSpeed', 'other'].includes(role))

/** Files of runs in the order of their names: out, back, out, back; columns that nobody can guess are said once for their logger. */
export function RunFiles({ loggers, mapping, map, take }: Props) {
  const { units } = useQuantities()
  const [files, setFiles] = useState<readonly File[]>([])
  const [read, setRead] = useState<readonly ReadRun[]>([])
  /** The file whose columns are said; its table stays while units are picked. */
  const [asked, setAsked] = useState<Blind | null>(null)
  const known = loggers.flatMap(({ columns }) => columns)
  const open = async (chosen: readonly File[], told: RunMapping | null) => {
    const byName = [...chosen].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))
    const found = await Promise.all(byName.map((file) => readRunFile(file, units, [...(told?.columns ?? []), ...known])))
    setFiles(chosen)
    setRead(found)
    const blind = found.find((entry): entry is Blind => 'refused' in entry && entry.headings !== undefined)
    if (blind) setAsked(blind)
    const texts = found.flatMap((entry, i) => ('text' in entry ? [[`${i % 2 === 0 ? 'out' : 'back'}${Math.floor(i / 2)}`, entry.text] as const] : []))
    take(Object.fromEntries(texts), Math.ceil(found.length / 2))
  }
  const name = mapping?.loggerName ?? 'logger'
  const columns: Column<LogRole>[] = (asked?.headings ?? []).map(
    (heading) => mapping?.columns.find((each) => each.heading === heading) ?? { heading, role: 'other', unit: '' },
  )
  const change = (next: Column<LogRole>[]) => {
    const told = { loggerName: name, columns: next.filter(({ role }) => role !== 'other') }
    map(told)
    void open(files, told)
  }
  return (
    <div className="sm:col-span-2">
      <label htmlFor="run-files" className="mb-1 block font-semibold">
        Files of the logger
      </label>
      <input
        id="run-files"
        type="file"
        multiple
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        className="w-full"
        onChange={(event) => {
          setAsked(null)
          void open([...(event.target.files ?? [])], mapping)
        }}
      />
      <p className="mt-1 text-xs text-quiet">
        One run a file, by name: out, back, out, back. Columns of time and speed are found by their headings; what lies before and behind the coasting is cut
        off.
      </p>
      {read.length > 0 && (
        <ol role="status" className="mt-1">
          {read.map((entry, i) => (
            <li
              key={`${entry.name} ${read.slice(0, i).filter((other) => other.name === entry.name).length}`}
              className={'refused' in entry ? 'text-danger' : ''}
            >
              {entry.name}: {'refused' in entry ? entry.refused : `pair ${Math.floor(i / 2) + 1} ${i % 2 === 0 ? 'out' : 'back'}, ${entry.told}`}
            </li>
          ))}
        </ol>
      )}
      {asked && (
        <fieldset className="mt-2">
          <legend className="pr-2 font-semibold">Which column is what, for the files of this logger</legend>
          <label className="flex items-center gap-2">
            <span>Its name</span>
            <input value={name} onChange={(event) => map({ loggerName: event.target.value, columns: mapping?.columns ?? [] })} className="w-48" />
          </label>
          <ColumnTable columns={columns} firstRows={asked.firstRows ?? []} change={change} roles={ROLES} />
        </fieldset>
      )}
    </div>
  )
}
