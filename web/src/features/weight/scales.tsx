import type { StoredRecords } from '@bold-ballast/contract'
import { PAD_NAMES, PAD_WORDS, type WeightRoom } from '@bold-ballast/core'
import { api } from '../../api/api.ts'
import { CsvButton } from '../../ui/csv-button.tsx'
import { Panel } from '../../ui/dialog.tsx'
import { Figure } from '../../ui/figure.tsx'
import { type FormReader, localTime } from '../../ui/form-reader.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { type FieldSpec, RecordForm } from '../../ui/record-form.tsx'
import { useRemoval } from '../../ui/removal.tsx'
import { Empty } from '../../ui/states.tsx'
import { useAsked } from '../../ui/use-asked.ts'
import { timeText } from '../../ui/words.ts'
import { weighingsTable } from '../files/record-tables.ts'

type StoredWeighing = StoredRecords['weighings'][number]

const FIELDS: readonly FieldSpec[] = [
  { name: 'at', label: 'When', type: 'datetime-local', section: 'Visit' },
  { name: 'scales', label: 'Which scales', hint: 'Two sets that agree confirm more than one set twice.' },
  ...PAD_NAMES.map(
    (pad, i): FieldSpec => ({
      name: pad,
      label: PAD_WORDS[pad].charAt(0).toUpperCase() + PAD_WORDS[pad].slice(1),
      ...(i === 0 ? { section: 'Pads (leave a dead pad empty)' } : {}),
    }),
  ),
  { name: 'driver', label: 'Driver in the car', section: 'Conditions', hint: '0 when the driver was out.' },
  { name: 'fuel', label: 'Fuel in the tank', hint: 'With ± if you are not sure: 42 L ± 3.' },
  { name: 'extraName', label: 'Something extra in the car', hint: 'Tools, spare wheel: it is taken off again.' },
  { name: 'extraMass', label: 'Its mass' },
  { name: 'note', label: 'Note', isWide: true },
]

function weighingBody(read: FormReader): Record<string, unknown> {
  const pads = Object.fromEntries(
    PAD_NAMES.map((pad) => {
      const found = read.optionalQuantity(pad, PAD_WORDS[pad], 'mass')
      if (found && found.value < 0) read.refuse(pad, `The ${PAD_WORDS[pad]} pad reads under zero. Zero the pads and read again.`)
      if (found && found.value > 5000) read.refuse(pad, `The ${PAD_WORDS[pad]} pad reads over 5 000 kg. Check the number and its unit.`)
      return [pad, found && { massKg: found.value, sdKg: found.sd ?? null, typed: found.typed }]
    }),
  )
  if (PAD_NAMES.every((pad) => pads[pad] === null)) read.refuse('LF', 'No pad was read. Type at least one.')
  const fuel = read.quantity('fuel', 'Fuel', 'volume')
  const extraName = read.optional('extraName')
  const extra = extraName ? read.quantity('extraMass', 'Its mass', 'mass') : null
  return {
    at: read.instant('at', 'When'),
    scales: read.optional('scales'),
    pads,
    driverInKg: read.quantity('driver', 'Driver', 'mass').value,
    fuelL: fuel.value,
    fuelSdL: fuel.sd ?? null,
    extras: extra ? [{ name: extraName, massKg: extra.value, sdKg: extra.sd ?? null }] : [],
    note: read.optional('note'),
  }
}

/** Visits to the scales: what the pads said, what that is at the reference condition, and what stays unexplained. */
export function Scales({ records, room, stageId }: { records: StoredRecords; room: WeightRoom; stageId: string }) {
  const buildId = records.build.id
  const { text, units } = useQuantities()
  const [isAdding, setIsAdding] = useAsked('weighing')
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const removal = useRemoval(buildId, 'weighings')
  const { driverKg, fuelL } = records.build.reference
  const stageName = (id: string) => {
    const stage = records.stages.find((entry) => entry.id === id)
    return stage ? `stage ${stage.position} ${stage.name}` : ''
  }
  const setAside = (weighing: StoredWeighing) =>
    void patch({
      buildId,
      resource: 'weighings',
      id: weighing.id,
      body: { version: weighing.version, setAside: weighing.setAside === null ? 'set aside by hand' : null },
    })
  const sorted = [...records.weighings].sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
  return (
    <>
      <div className="mb-4 flex flex-wrap items-center gap-4">
        <button type="button" className="button button-strong" onClick={() => setIsAdding(true)}>
          Enter a weighing
        </button>
        <span className="text-quiet">
          Totals are brought to the reference: driver {text('mass', driverKg, { isGoal: true })}, {text('volume', fuelL, { isGoal: true })}.
        </span>
        {sorted.length > 0 && <CsvButton name={`${records.build.name}-weighings`} table={() => weighingsTable(records, room, units)} />}
      </div>
      {removal.notice}
      {sorted.length === 0 ? (
        <Empty title="The car has not been on the scales" why="Four readings, who sat in it and how much fuel: from then on the scales replace the ledger." />
      ) : (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach
        <section className="relative overflow-x-auto" aria-label="Weighings" tabIndex={0}>
          <table className="w-full border-collapse max-[639px]:block">
            <thead className="max-[639px]:sr-only">
              <tr className="border-b border-line">
                <th className="p-2">Visit</th>
                <th className="p-2">Conditions</th>
                <th className="p-2 text-right">At the reference</th>
                <th className="p-2 text-right">Unexplained</th>
                <th className="p-2">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody className="max-[639px]:block">
              {sorted.map((weighing) => {
                const figures = room.weighings.find((entry) => entry.weighingId === weighing.id)
                const { unexplained } = figures ?? {}
                return (
                  <tr key={weighing.id} className="border-b border-line align-top max-[639px]:grid max-[639px]:grid-cols-2">
                    <td className="p-2 max-[639px]:col-span-2">
                      <time dateTime={weighing.at} className="font-semibold">
                        {timeText(weighing.at)}
                      </time>
                      <span className="block text-xs text-quiet">{[stageName(weighing.stageId), weighing.scales].filter(Boolean).join(', ')}</span>
                      {weighing.note && <span className="block text-xs text-quiet">{weighing.note}</span>}
                      {weighing.setAside && <strong className="text-wait">set aside</strong>}
                    </td>
                    <td className="p-2 text-quiet">
                      driver {weighing.driverInKg > 0 ? `in, ${text('mass', weighing.driverInKg)}` : 'out'}
                      <span className="block">{text('volume', weighing.fuelL, { isGoal: true })}</span>
                      {weighing.extras.map((extra) => (
                        <span key={extra.name} className="block">
                          {extra.name} {text('mass', extra.massKg)}
                        </span>
                      ))}
                    </td>
                    <td className="p-2 text-right text-[16px]">
                      {figures?.reference ? (
                        <Figure
                          kind="mass"
                          value={figures.reference.massKg}
                          sd={figures.reference.sdKg}
                          showSpread
                          className="font-bold"
                          working={{ of: 'weighing', id: weighing.id }}
                        />
                      ) : (
                        <span className="block max-w-[260px] text-left text-sm">{figures?.refusal}</span>
                      )}
                      {figures?.warnings.map((warning) => (
                        <span key={warning} className="block text-left text-xs text-wait">
                          {warning}
                        </span>
                      ))}
                    </td>
                    <td className={`p-2 text-right text-[16px] max-[639px]:text-left ${unexplained?.isFlagged ? 'text-wait' : ''}`}>
                      {unexplained ? (
                        <Figure
                          kind="mass"
                          value={unexplained.massKg}
                          sd={unexplained.sdKg}
                          sign
                          showSpread
                          className="font-semibold"
                          working={{ of: 'unexplained', id: weighing.id }}
                        />
                      ) : (
                        <span className="text-sm text-quiet">none before</span>
                      )}
                      {unexplained?.isFlagged && <strong className="block text-xs">over twice its spread</strong>}
                    </td>
                    <td className="p-2 text-right whitespace-nowrap">
                      <button
                        type="button"
                        className="word-link mr-3"
                        onClick={() => setAside(weighing)}
                        aria-label={`${weighing.setAside ? 'Take back' : 'Set aside'} the weighing of ${timeText(weighing.at)}`}
                      >
                        {weighing.setAside ? 'take back' : 'set aside'}
                      </button>
                      <button
                        type="button"
                        className="word-link"
                        onClick={() => void removal.take(weighing)}
                        aria-label={`Delete the weighing of ${timeText(weighing.at)}`}
                      >
                        delete
                      </button>
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </table>
        </section>
      )}
      {isAdding && (
        <Panel title="On the scales" onClose={() => setIsAdding(false)}>
          <p className="mb-3 text-quiet">Level floor, bar disconnected, tyres at race pressure, steering straight, car rolled on and settled.</p>
          <RecordForm
            draftKey={`${buildId}.weighing`}
            fields={FIELDS}
            defaults={{ at: localTime(new Date()), driver: '0' }}
            submitLabel="Store the weighing"
            toBody={(read, id) => ({ id, stageId, ...weighingBody(read) })}
            send={(body) => create({ buildId, resource: 'weighings', body }).unwrap()}
            onDone={() => setIsAdding(false)}
          />
        </Panel>
      )}
    </>
  )
}
