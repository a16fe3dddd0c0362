import type { StoredRecords } from '@bold-ballast/contract'
import { CalculationError } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { SettingSelect } from '../../../shared/fields/setting-select.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { readPeak } from './read-peak.ts'

type StoredSession = StoredRecords['sessions'][number]

/** A peak that was read aloud or off a screen: power, with its speed or not. It has no curve and no band. */
export function PeakEntry({ records, session, pullCount }: { records: StoredRecords; session: StoredSession; pullCount: number }) {
  const { units, decimalMark } = useQuantities()
  const [create, { isLoading }] = api.useCreateRecordMutation()
  const [text, setText] = useState('')
  const [settingId, setSettingId] = useState<string | null>(null)
  const [failure, setFailure] = useState<string | null>(null)
  const setting = session.settings.find(({ id }) => id === settingId) ?? session.settings.at(-1)
  const store = async () => {
    const read = readPeak(text, units, decimalMark)
    if (read instanceof CalculationError) return setFailure(read.message)
    const body = { sessionId: session.id, settingId: setting?.id ?? null, position: pullCount, label: String(pullCount + 1), ...read, curve: null }
    const answer = await create({ buildId: records.build.id, resource: 'pulls', body: { id: crypto.randomUUID(), ...body } })
    if (answer.error) return setFailure(readFailure(answer.error).message)
    setFailure(null)
    setText('')
  }
  const inputId = `peak-${session.id}`
  return (
    <form
      className="no-print mt-1 flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        void store()
      }}
    >
      <label htmlFor={inputId} className="text-quiet">
        Peak alone
      </label>
      <input id={inputId} value={text} onChange={(event) => setText(event.target.value)} placeholder="650 hp at 6500 rpm" className="w-[150px]" />
      <SettingSelect settings={session.settings} value={setting?.id ?? ''} onPick={setSettingId} name={`Setting of the peak at ${session.dynoName}`} />
      <button type="submit" className="button" disabled={isLoading || text.trim() === ''} aria-label={`Store the peak at ${session.dynoName}`}>
        Store
      </button>
      {failure && (
        <span role="alert" className="w-full text-danger">
          {failure}
        </span>
      )}
    </form>
  )
}
