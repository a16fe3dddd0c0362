import type { LogEntry, RecordsAnswer } from '@bold-ballast/contract'
import { KINDS, recordName, recordWord } from '@bold-ballast/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { api } from '../../data/api.ts'
import { useAppDispatch } from '../../data/store.ts'
import { takeBack } from '../../data/take-back.ts'
import { useBuild } from '../../data/use-build.ts'
import { fieldWord, valueText } from '../../shared/fields/field-words.ts'
import { CsvButton } from '../../ui/files/csv-button.tsx'
import { Empty, LoadError, Loading } from '../../ui/states.tsx'
import { timeText } from '../../ui/words.ts'

const ACTION_WORDS: Record<LogEntry['action'], string> = {
  create: 'added',
  update: 'changed',
  remove: 'deleted',
  restore: 'put back',
  reorder: 'moved',
  import: 'imported',
  batch: 'wrote',
}

type NameOf = (id: string) => string | undefined

/** What the records of a build are called, by their ids. */
function namesOf(records: RecordsAnswer): NameOf {
  const names = new Map<string, string>()
  for (const { list } of KINDS) for (const record of records[list]) names.set(record.id, recordName(list, record))
  return (id) => names.get(id)
}

/** Who changed what, when, from what to what; any entry that nobody has built on can be taken back. */
export function LogPage() {
  const { buildId, records } = useBuild()
  const [starts, setStarts] = useState<readonly (number | null)[]>([null])
  const from = starts.at(-1) ?? null
  const { data, error, refetch } = api.useLogQuery({ buildId, ...(from === null ? {} : { before: from }) })
  if (error && !data) return <LoadError error={error} retry={refetch} />
  if (!data || !records) return <Loading what="the log" />
  const nameOf = namesOf(records)
  const [latest] = data.entries
  const title = latest && from === null ? `${latest.by} ${ACTION_WORDS[latest.action]} ${latest.name}, ${timeText(latest.at)}` : 'Earlier in the log'
  return (
    <>
      <title>{`${records.build.name}: Log · Bold Ballast`}</title>
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-4 gap-y-2">
        <h1>{title}</h1>
        <CsvButton name={`${records.build.name}-log`} table={() => logTable(data.entries, nameOf)} />
      </div>
      {data.entries.length === 0 ? (
        <Empty title="Nothing is written yet" why="Every change to this build will stand here, with who made it and what was there before." />
      ) : (
        <ol>
          {data.entries.map((entry) => (
            <Entry key={entry.id} entry={entry} buildId={buildId} nameOf={nameOf} />
          ))}
        </ol>
      )}
      <div className="no-print mt-4 flex gap-3">
        {starts.length > 1 && (
          <button type="button" className="button" onClick={() => setStarts(starts.slice(0, -1))}>
            Later
          </button>
        )}
        {data.nextBefore !== null && (
          <button type="button" className="button" onClick={() => setStarts([...starts, data.nextBefore])}>
            Earlier
          </button>
        )}
      </div>
    </>
  )
}

function Entry({ entry, buildId, nameOf }: { entry: LogEntry; buildId: string; nameOf: NameOf }) {
  const dispatch = useAppDispatch()
  const { action, resource, name, recordCount, fields, undoes, undoneBy, keptBecause } = entry
  const what = recordCount > 1 ? `${recordCount} records` : recordWord(resource)
  return (
    <li className="grid gap-x-5 gap-y-1 border-t border-line py-2.5 sm:grid-cols-[150px_120px_1fr_auto]">
      <time dateTime={entry.at} className="text-quiet">
        {timeText(entry.at)}
        {entry.typedAt !== null && <span className="block text-xs">typed {timeText(entry.typedAt)}, waited in a browser</span>}
      </time>
      <span className="truncate">{entry.by}</span>
      <div className={undoneBy !== null ? 'text-faint line-through' : ''}>
        <p>
          {undoes !== null && 'took back: '}
          {ACTION_WORDS[action]} {what} <strong>{name}</strong>
        </p>
        {fields.map(({ field, before, after }) => (
          <p key={field} className="text-xs text-quiet">
            {fieldWord(field)}: {valueText(before, nameOf)} → {valueText(after, nameOf)}
          </p>
        ))}
      </div>
      <div className="no-print max-w-[300px] sm:text-right">
        {undoneBy !== null ? (
          <span className="text-xs text-quiet">taken back</span>
        ) : keptBecause === null ? (
          <button
            type="button"
            className="word-link"
            onClick={() => void takeBack(dispatch, { buildId, entryId: entry.id })}
            aria-label={`Undo: ${ACTION_WORDS[action]} ${name}`}
          >
            Undo
          </button>
        ) : (
          <span className="text-xs text-quiet">{keptBecause}</span>
        )}
        <Link
          className="word-link ml-3 text-xs"
          to={`/builds/${buildId}/crew?entry=${entry.id}`}
          aria-label={`as it stood here: ${ACTION_WORDS[action]} ${name}`}
        >
          as it stood here
        </Link>
      </div>
    </li>
  )
}

const logTable = (entries: readonly LogEntry[], nameOf: NameOf) => ({
  head: ['When', 'Typed', 'Who', 'Action', 'Record', 'Name', 'Fields', 'Entry'],
  rows: entries.map((entry) => [
    entry.at,
    entry.typedAt,
    entry.by,
    ACTION_WORDS[entry.action],
    recordWord(entry.resource),
    entry.name,
    entry.fields.map(({ field, before, after }) => `${fieldWord(field)}: ${valueText(before, nameOf)} → ${valueText(after, nameOf)}`).join('; '),
    entry.id,
  ]),
})
