import type { RecordsAnswer, StoredRecords } from '@bold-ballast/contract'
import { CalculationError, requirePartMass } from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import { placeDefaults, placeFields, readPlace } from '../../../shared/fields/place-fields.ts'
import { Photos } from '../../../shared/photos.tsx'
import { Panel } from '../../../ui/dialog.tsx'
import { type FormReader, type FormValues, localTime } from '../../../ui/forms/form-reader.ts'
import { type FieldSpec, RecordForm } from '../../../ui/forms/record-form.tsx'
import { numberText, useQuantities } from '../../../ui/quantity.ts'

type StoredChange = StoredRecords['changes'][number]

function fieldSpecs(records: RecordsAnswer, change: StoredChange | null): FieldSpec[] {
  const others = records.changes.filter((entry) => entry.id !== change?.id)
  const parts = (kind: string) => [
    { value: '', label: 'none' },
    ...others.filter((entry) => entry.kind === kind).map((entry) => ({ value: entry.id, label: entry.name })),
  ]
  const typed = change?.values.map((value) => value.typed ?? `${value.massKg} kg`).join(', ')
  return [
    {
      name: 'kind',
      label: 'Kind',
      type: 'select',
      options: [
        { value: 'off', label: 'off' },
        { value: 'on', label: 'on' },
        { value: 'transfer', label: 'transfer: goes back on with the replacement' },
      ],
    },
    { name: 'name', label: 'Name' },
    { name: 'count', label: 'Pieces' },
    { name: 'zone', label: 'Zone', suggestions: records.zones.map(({ name }) => name) },
    {
      name: 'mass',
      label: change ? 'New value of one piece' : 'Mass of one piece',
      hint: change
        ? `So far: ${typed || 'not known'}. Leave empty to keep it; old values stay.`
        : 'Such as 18.6 kg, 41 lb, 9 kg ± 0.5; empty where nobody knows.',
    },
    {
      name: 'proof',
      label: 'How known',
      type: 'select',
      options: [
        { value: 'measured', label: 'weighed' },
        { value: 'catalogue', label: 'catalogue' },
        { value: 'guess', label: 'guess' },
        { value: 'calculated', label: 'worked out from the scales' },
      ],
    },
    { name: 'instrument', label: 'Which scale', hint: 'Two scales average out; one does not.' },
    {
      name: 'state',
      label: 'State',
      type: 'select',
      options: [
        { value: 'done', label: 'done' },
        { value: 'planned', label: 'planned' },
        { value: 'dropped', label: 'dropped' },
      ],
    },
    { name: 'doneAt', label: 'Done on', type: 'datetime-local', hint: 'Decides which weighing it was in.' },
    { name: 'touchesPower', label: 'This change touches power', type: 'checkbox' },
    { name: 'waits', label: 'Off for now: something goes back or replaces it, and nobody knows what', type: 'checkbox' },
    { name: 'replacesChangeId', label: 'Replaces', type: 'select', options: parts('off') },
    {
      name: 'partId',
      label: 'Puts in the part',
      type: 'select',
      options: [{ value: '', label: 'none of the register' }, ...records.parts.map(({ id, name }) => ({ value: id, label: name }))],
      hint: 'Unless this line was weighed itself, it has the part’s mass and place.',
    },
    { name: 'fromChangeId', label: 'Transfer from', type: 'select', options: parts('off') },
    { name: 'toChangeId', label: 'Transfer to', type: 'select', options: parts('on') },
    { name: 'cost', label: 'Cost, all pieces', hint: 'In the money you count in.' },
    { name: 'paid', label: 'Paid, all pieces' },
    { name: 'hours', label: 'Hours of work' },
    {
      name: 'fate',
      label: 'What became of it',
      type: 'select',
      section: 'What came off',
      options: [
        { value: '', label: 'nobody said' },
        { value: 'kept', label: 'kept' },
        { value: 'sold', label: 'sold' },
        { value: 'scrapped', label: 'scrapped' },
      ],
    },
    { name: 'fateWords', label: 'Where it lies, for what, or who has it' },
    { name: 'fateBack', label: 'It brought back', hint: 'Counts against what the build costs.' },
    ...placeFields('place', 'Place of its own', 'Empty: that of its zone.'),
  ]
}

function readMass(read: FormReader) {
  const found = read.optionalQuantity('mass', 'Mass', 'mass')
  if (!found || Number.isNaN(found.value)) return null
  try {
    requirePartMass(found.value)
  } catch (error) {
    if (!(error instanceof CalculationError)) throw error
    read.refuse('mass', error.message)
  }
  return {
    massKg: found.value,
    sdKg: found.sd ?? null,
    proof: read.raw('proof'),
    typed: found.typed,
    at: new Date().toISOString(),
    instrument: read.optional('instrument'),
  }
}

/** What became of a piece that came off; nothing where nobody said. */
function readFate(read: FormReader, back: number | null) {
  const [is, words] = [read.optional('fate'), read.optional('fateWords')]
  if (is === null && (words !== null || back !== null)) read.refuse('fate', 'Say what became of it: kept, sold or scrapped.')
  return is === null ? null : { is, words, back }
}

function changeBody(read: FormReader, change: StoredChange | null): Record<string, unknown> {
  const value = readMass(read)
  const count = read.number('count', 'Pieces')
  if (!Number.isInteger(count) || count < 1) read.refuse('count', 'Pieces are 1 or more.')
  const state = read.raw('state')
  const plain = (name: string, label: string) => {
    const value = read.raw(name) === '' ? null : read.number(name, label)
    if (value !== null && value < 0) read.refuse(name, `${label} is under zero. Type it without a sign.`)
    return value
  }
  return {
    kind: read.raw('kind'),
    name: read.text('name', 'Name'),
    count,
    zone: read.optional('zone'),
    values: [...(change?.values ?? []), ...(value ? [value] : [])],
    state,
    doneAt: state === 'done' ? read.instant('doneAt', 'Done on') : null,
    touchesPower: read.flag('touchesPower'),
    waits: read.flag('waits'),
    replacesChangeId: read.optional('replacesChangeId'),
    partId: read.optional('partId'),
    fromChangeId: read.optional('fromChangeId'),
    toChangeId: read.optional('toChangeId'),
    cost: plain('cost', 'Cost'),
    paid: plain('paid', 'What was paid'),
    hours: plain('hours', 'Hours'),
    fate: readFate(read, plain('fateBack', 'What it brought back')),
    place: readPlace(read, 'place'),
  }
}

/** The same line as a form, for those who prefer it and for changing one. */
export function ChangeForm({
  records,
  stageId,
  change,
  instant,
  onClose,
}: {
  records: RecordsAnswer
  stageId: string
  change: StoredChange | null
  /** The time that new lines get. */
  instant: () => string
  onClose: () => void
}) {
  const buildId = records.build.id
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const { units } = useQuantities()
  const now = localTime(new Date(instant()))
  const defaults: FormValues = change
    ? {
        kind: change.kind,
        name: change.name,
        count: String(change.count),
        zone: change.zone ?? '',
        proof: 'measured',
        state: change.state,
        doneAt: change.doneAt ? localTime(new Date(change.doneAt)) : now,
        touchesPower: String(change.touchesPower),
        waits: String(change.waits),
        replacesChangeId: change.replacesChangeId ?? '',
        partId: change.partId ?? '',
        fromChangeId: change.fromChangeId ?? '',
        toChangeId: change.toChangeId ?? '',
        cost: change.cost === null ? '' : numberText(change.cost),
        paid: change.paid == null ? '' : numberText(change.paid),
        hours: change.hours === null ? '' : numberText(change.hours),
        fate: change.fate?.is ?? '',
        fateWords: change.fate?.words ?? '',
        fateBack: change.fate?.back == null ? '' : numberText(change.fate.back),
        ...placeDefaults('place', change.place, units.length),
      }
    : { kind: 'off', count: '1', proof: 'measured', state: 'done', doneAt: now, touchesPower: 'false', waits: 'false' }
  return (
    <Panel title={change ? change.name : 'A ledger line'} onClose={onClose}>
      <RecordForm
        draftKey={change ? `change.${change.id}.${change.version}` : `${buildId}.change`}
        fields={fieldSpecs(records, change)}
        defaults={defaults}
        submitLabel={change ? 'Store the line' : 'Add the line'}
        toBody={(read, id) => ({ ...changeBody(read, change), ...(change ? { version: change.version } : { id, stageId }) })}
        send={(body) =>
          change ? patch({ buildId, resource: 'changes', id: change.id, body }).unwrap() : create({ buildId, resource: 'changes', body }).unwrap()
        }
        onDone={onClose}
        queueAs={{ buildId, resource: 'changes', recordId: change?.id, words: change ? `change to ${change.name}` : 'a ledger line' }}
      />
      {change && <Photos records={records} recordId={change.id} />}
    </Panel>
  )
}
