import type { RecordsAnswer } from '@bold-ballast/contract'
import { useState } from 'react'
import { api } from '../../../data/api.ts'
import { placeDefaults, placeFields, readPlace } from '../../../shared/fields/place-fields.ts'
import { Panel } from '../../../ui/dialog.tsx'
import type { FormReader } from '../../../ui/forms/form-reader.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

/** Zones of the car with the place that their lines have unless a line has one of its own. */
export function ZonesPanel({ records, onClose }: { records: RecordsAnswer; onClose: () => void }) {
  const buildId = records.build.id
  const { text, units } = useQuantities()
  const [editing, setEditing] = useState<string | null>(null)
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const removal = useRemoval(buildId, 'zones')
  const named = new Set(records.zones.map(({ name }) => name.toLowerCase()))
  const used = [...new Set(records.changes.flatMap(({ zone }) => (zone && !named.has(zone.toLowerCase()) ? [zone] : [])))]
  const edited = records.zones.find(({ id }) => id === editing)
  const body = (read: FormReader) => ({ name: read.text('name', 'Zone'), place: readPlace(read, 'place') })
  return (
    <Panel title="Zones and their places" onClose={onClose}>
      <p className="mb-2 text-quiet">Where a zone’s middle is: the ledger then says where the weight went, and what that does to the centre of mass.</p>
      {removal.notice}
      <ul className="mb-4">
        {records.zones.map((zone) => (
          <li key={zone.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-1.5">
            <strong className="w-[110px]">{zone.name}</strong>
            <span className="flex-1 text-quiet">
              {zone.place
                ? `${text('length', zone.place.xM)} behind the front axle, ${text('length', zone.place.yM)} left, ${text('length', zone.place.zM)} up`
                : 'no place yet'}
            </span>
            <button type="button" className="word-link" onClick={() => setEditing(zone.id)} aria-label={`Change zone ${zone.name}`}>
              change
            </button>
            <button type="button" className="word-link" onClick={() => void removal.take(zone)} aria-label={`Delete zone ${zone.name}`}>
              delete
            </button>
          </li>
        ))}
      </ul>
      {used.length > 0 && (
        <p className="mb-3 text-wait">
          Lines name {used.join(', ')}, which {used.length === 1 ? 'has' : 'have'} no place yet.
        </p>
      )}
      <h3 className="mb-2 font-semibold">{edited ? `Change ${edited.name}` : 'Add a zone'}</h3>
      <RecordForm
        key={edited?.id ?? `new ${records.zones.length}`}
        draftKey={edited ? `zone.${edited.id}.${edited.version}` : `${buildId}.zone`}
        fields={[{ name: 'name', label: 'Zone', suggestions: used, isWide: true }, ...placeFields('place', 'Place')]}
        defaults={edited ? { name: edited.name, ...placeDefaults('place', edited.place, units.length) } : {}}
        submitLabel={edited ? 'Store the zone' : 'Add the zone'}
        toBody={(read, id) => (edited ? { version: edited.version, ...body(read) } : { id, ...body(read) })}
        send={(sent) =>
          edited ? patch({ buildId, resource: 'zones', id: edited.id, body: sent }).unwrap() : create({ buildId, resource: 'zones', body: sent }).unwrap()
        }
        onDone={() => setEditing(null)}
      />
    </Panel>
  )
}
