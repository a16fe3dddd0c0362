import type { RecordsAnswer } from '@bold-ballast/contract'
import { lifeOf, takeOffPlan } from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import type { StoredPart } from '../../../shared/part-words.ts'
import { Photos } from '../../../shared/photos.tsx'
import { Panel } from '../../../ui/dialog.tsx'
import { localTime } from '../../../ui/forms/form-reader.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { dayText } from '../../../ui/words.ts'
import { partBody, partDefaults, partFieldSpecs } from './part-form.ts'

/** One part: all that is known of it, its use and its pictures. */
export function PartPanel({ records, part, onClose }: { records: RecordsAnswer; part?: StoredPart; onClose: () => void }) {
  const { build, stages, parts } = records
  const { units } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const removal = useRemoval(build.id, 'parts')
  const others = parts.filter(({ id }) => id !== part?.id)
  const kinds = [...new Set(parts.map(({ kind }) => kind))]
  return (
    <Panel title={part ? part.name : 'A part'} onClose={onClose}>
      <RecordForm
        draftKey={`${build.id}.part.${part ? `${part.id}.${part.version}` : 'new'}`}
        fields={partFieldSpecs(stages, kinds, units, others)}
        defaults={part ? partDefaults(part, units, others) : { status: 'wanted', count: '1', stage: '' }}
        submitLabel="Store the part"
        toBody={(read, id) => (part ? { version: part.version, ...partBody(read, others) } : { id, ...partBody(read, others) })}
        send={(body) =>
          part ? patch({ buildId: build.id, resource: 'parts', id: part.id, body }).unwrap() : create({ buildId: build.id, resource: 'parts', body }).unwrap()
        }
        onDone={onClose}
      />
      {part && (
        <>
          <TakeOff parts={parts} part={part} />
          {part.life && <Uses records={records} part={part} />}
          <Photos records={records} recordId={part.id} />
          {removal.notice}
          <button
            type="button"
            className="word-link mt-4"
            onClick={() => {
              void removal.take(part)
              onClose()
            }}
          >
            Delete this part
          </button>
        </>
      )}
    </Panel>
  )
}

/** What comes off before the part, and what all of it takes; the other way round it goes on again. */
function TakeOff({ parts, part }: { parts: readonly StoredPart[]; part: StoredPart }) {
  if (!part.takeOff) return null
  const { steps, minutes, people, unknown, tools, fixings } = takeOffPlan(parts, part.id)
  return (
    <section className="mt-5 border-t border-line pt-3">
      <h3 className="font-semibold">
        To have it off: {unknown.length > 0 ? 'at least ' : ''}
        {minutes} min, {people === 1 ? 'one person' : `${people} people`}
        {steps.length > 1 ? `, ${steps[0]?.name} first` : ''}
      </h3>
      <ol className="my-2">
        {steps.map(({ id, name, takeOff }, i) => (
          <li key={id} className="flex items-baseline gap-3 border-b border-line py-1">
            <span className="w-5 text-right text-quiet tabular-nums">{i + 1}</span>
            <span className="flex-1">{name}</span>
            <span className="text-quiet">{takeOff?.minutes == null ? 'nobody said how long' : `${takeOff.minutes} min`}</span>
          </li>
        ))}
      </ol>
      <p className="text-[13px] text-quiet">
        Both ways together; it goes on again from the last to the first.
        {tools.length > 0 && ` Tools: ${tools.join(', ')}.`}
        {fixings.length > 0 && ` Used up: ${fixings.join(', ')}.`}
      </p>
    </section>
  )
}

const USE_WORDS = { use: 'used', pulled: 'pulled', refitted: 'refitted', rebuilt: 'rebuilt', wornOut: 'worn out' } as const

/** Use that was logged of a part, and a form for more. */
function Uses({ records, part }: { records: RecordsAnswer; part: StoredPart }) {
  const { build, sessions } = records
  const [create] = api.useCreateRecordMutation()
  const removal = useRemoval(build.id, 'part-uses')
  const uses = records.partUses.filter(({ partId }) => partId === part.id).sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
  const life = lifeOf(part, records.partUses)
  const unit = part.life?.unit ?? 'hours'
  return (
    <section className="mt-5 border-t border-line pt-3">
      <h3 className="font-semibold">
        Use: {Number((life?.used ?? 0).toFixed(1))} of {part.life?.amount} {unit}
      </h3>
      <ul className="my-2">
        {uses.map((use) => {
          const session = sessions.find(({ id }) => id === use.sessionId)
          return (
            <li key={use.id} className="flex items-baseline gap-3 border-b border-line py-1">
              <span className="flex-1">
                {use.kind === 'use' ? `${use.amount} ${unit}` : `${USE_WORDS[use.kind]}${use.amount > 0 ? `, ${use.amount} h` : ''}`}, {dayText(use.at)}
                {session && <span className="text-quiet">, {session.dynoName}</span>}
                {use.note && <span className="text-quiet">, {use.note}</span>}
              </span>
              <button type="button" className="word-link" onClick={() => void removal.take(use)} aria-label={`Delete the use of ${dayText(use.at)}`}>
                delete
              </button>
            </li>
          )
        })}
      </ul>
      {removal.notice}
      <RecordForm
        key={uses.length}
        draftKey={`${build.id}.use.${part.id}`}
        fields={[
          { name: 'kind', label: 'What happened', type: 'select', options: Object.entries(USE_WORDS).map(([value, label]) => ({ value, label })) },
          { name: 'amount', label: `Used, ${unit}`, hint: 'Of a pull or a rebuild the hours it took; may stay empty.' },
          { name: 'at', label: 'When', type: 'datetime-local' },
          {
            name: 'session',
            label: 'At the dyno session',
            type: 'select',
            options: [
              { value: '', label: 'none' },
              ...sessions.map((session) => ({ value: session.id, label: `${session.dynoName}, ${dayText(session.at)}` })),
            ],
          },
          { name: 'note', label: 'Note' },
        ]}
        defaults={{ kind: 'use', at: localTime(new Date()), session: '' }}
        submitLabel="Log the use"
        toBody={(read, id) => {
          const kind = read.raw('kind')
          const amount = kind !== 'use' && read.raw('amount') === '' ? 0 : read.number('amount', `Used, ${unit}`)
          if (kind === 'use' && amount <= 0) read.refuse('amount', 'Use is more than zero.')
          return { id, partId: part.id, kind, amount, at: read.instant('at', 'When'), sessionId: read.optional('session'), note: read.optional('note') }
        }}
        send={(body) => create({ buildId: build.id, resource: 'part-uses', body }).unwrap()}
        onDone={() => {}}
      />
    </section>
  )
}
