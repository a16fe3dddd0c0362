import type { RecordsAnswer } from '@bold-ballast/contract'
import { boxState } from '@bold-ballast/core'
import { memo, useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { type FieldSpec, RecordForm } from '../../../ui/forms/record-form.tsx'
import { useQuantities, usualText } from '../../../ui/quantity.ts'
import type { OpenBox } from './entry-body.ts'
import type { StoredChange } from './ledger-rows.ts'

const FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name of the box', hint: 'As it is written on it.' },
  { name: 'empty', label: 'The scale reads with the empty box', hint: '0 where it was zeroed with the box on it.' },
  { name: 'instrument', label: 'Which scale' },
  { name: 'reading', label: 'Spread of one reading', hint: (units) => `Leave empty for the usual: ${usualText(units, 'mass', 0.1)} or 0.5 %.` },
]

/** The box that parts go into one after another; the address holds which one is open. `missing` where it names one that is not there (yet). */
export function useOpenBox(records: RecordsAnswer, changes: readonly StoredChange[]): OpenBox | 'missing' | null {
  const [search] = useSearchParams()
  const asked = search.get('box')
  const box = records.boxes.find((entry) => entry.id === asked)
  return useMemo(() => {
    if (!box) return asked ? 'missing' : null
    const { id, name, instrument, readingSdKg } = box
    return { id, name, instrument, readingSdKg, ...boxState(box, changes) }
  }, [box, asked, changes])
}

/** Picks or makes a growing box: what is typed then is what the scale reads with each part in. */
export const BoxPicker = memo(function BoxPicker({ records, box, isMissing }: { records: RecordsAnswer; box: OpenBox | null; isMissing: boolean }) {
  const buildId = records.build.id
  const [search, setSearch] = useSearchParams()
  const [isMaking, setIsMaking] = useState(false)
  const [create] = api.useCreateRecordMutation()
  const { text } = useQuantities()
  const open = (id: string) => {
    const next = new URLSearchParams(search)
    if (id === '') next.delete('box')
    else next.set('box', id)
    setSearch(next, { replace: true })
  }
  return (
    <>
      <label className="no-print flex items-center gap-2 text-quiet">
        Weigh into
        <select
          value={isMissing ? 'missing' : (box?.id ?? '')}
          onChange={(event) => (event.target.value === 'new' ? setIsMaking(true) : open(event.target.value))}
        >
          {isMissing && <option value="missing">a box that is not there</option>}
          <option value="">no box: part by part</option>
          {records.boxes.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
          <option value="new">a new box …</option>
        </select>
      </label>
      {box && (
        <span role="status">
          {box.name}: {box.count} {box.count === 1 ? 'part' : 'parts'} in, the scale last read <strong>{text('mass', box.lastKg, { decimals: 2 })}</strong>
        </span>
      )}
      {isMaking && (
        <Panel title="A box on the scale" onClose={() => setIsMaking(false)}>
          <p className="mb-3 text-quiet">
            Put part after part into one box and type what the scale reads: each part is the difference, and nothing needs zeroing.
          </p>
          <RecordForm
            draftKey={`${buildId}.box`}
            fields={FIELDS}
            defaults={{ empty: '0' }}
            submitLabel="Open the box"
            toBody={(read, id) => {
              const empty = read.quantity('empty', 'The empty box', 'mass')
              if (empty.value < 0) read.refuse('empty', 'The scale reads under zero. Zero it and read again.')
              const reading = read.optionalQuantity('reading', 'Spread', 'mass')
              return {
                id,
                name: read.text('name', 'Name'),
                instrument: read.optional('instrument'),
                readingSdKg: reading?.value ?? null,
                emptyKg: empty.value,
                typed: empty.typed,
              }
            }}
            send={(body) => create({ buildId, resource: 'boxes', body }).unwrap()}
            onDone={(body) => {
              setIsMaking(false)
              open(String(body.id))
            }}
          />
        </Panel>
      )}
    </>
  )
})
