import type { RecordsAnswer } from '@bold-ballast/contract'
import type { MountState } from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Caution, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import type { AeroTabProps } from '../tab-props.ts'
import { MountFigure } from './mount-figure.tsx'
import { CARRIED_WORDS, mountBody, mountDefaults, mountFieldSpecs, SECOND_WORDS } from './mount-form.ts'

/** How a device is held, typed. */
function MountPanel({ records, state, onDone }: { records: RecordsAnswer; state: MountState; onDone: () => void }) {
  const { units } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const buildId = records.build.id
  const { take, notice } = useRemoval(buildId, 'mounts')
  const resource = 'mounts' as const
  const { mount, version, deviceId } = state
  return (
    <>
      {notice}
      {mount && (
        <p className="mb-3">
          <button type="button" className="word-link" onClick={() => void take({ id: mount.id, version }).then(onDone)}>
            Delete it
          </button>
        </p>
      )}
      <RecordForm
        key={`${deviceId} ${version}`}
        draftKey={`${buildId}.mount.${deviceId}`}
        fields={mountFieldSpecs}
        defaults={mountDefaults(mount, units)}
        submitLabel="Store the mount"
        toBody={(read, id) => ({ ...mountBody(read), ...(mount ? { version } : { id, deviceId }) })}
        send={(body) => (mount ? patch({ buildId, resource, id: mount.id, body }).unwrap() : create({ buildId, resource, body }).unwrap())}
        onDone={onDone}
      />
    </>
  )
}

/** What a mount says in a line each: who carries it, what holds it then, what its bolts and rods are used to, who looked at it. */
function MountWords({ state }: { state: MountState }) {
  const { text } = useQuantities()
  const { mount, feet, rods, load, refusal } = state
  if (!mount) return <p className="text-danger">Nobody said how it is held.</p>
  const bolt = Math.max(0, ...feet.map(({ boltUse }) => boltUse ?? 0))
  const row = (word: string, value: React.ReactNode, isBad = false) => (
    <div key={word} className="flex gap-3 border-t border-line py-1">
      <dt className="w-36 shrink-0 text-quiet">{word}</dt>
      <dd className={isBad ? 'font-semibold text-danger' : ''}>{value}</dd>
    </div>
  )
  return (
    <dl>
      {row('Carried by', CARRIED_WORDS[mount.carriedBy])}
      {row('Then held by', SECOND_WORDS[mount.second], state.lacksSecond)}
      {load &&
        row('Load', `${text('force', load.downN, { decimals: 0 })} down, ${text('force', load.dragN, { decimals: 0 })} back, factor ${mount.loadFactor} in it`)}
      {!load && row('Load', 'Its own force is not known: a wing’s or splitter’s estimate gives it.')}
      {feet.length > 0 &&
        row(
          'A bolt',
          mount.bolts
            ? `${bolt < 0.01 ? 'under 1 %' : text('share', bolt, { decimals: 0 })} of what it holds, pull and across together`
            : 'Nobody said what it is rated for.',
          bolt > 1,
        )}
      {rods &&
        row(
          'A rod',
          `${text('force', rods.eachN, { decimals: 0 })}, ${text('share', rods.use, { decimals: 0 })} of its ${rods.decides}; all of the load on rods`,
          rods.use > 1,
        )}
      {refusal && row('Not worked out', refusal, true)}
      {mount.access && row('First comes off', mount.access)}
      {row(
        'Looked at',
        mount.lookedAtBy ? `by ${mount.lookedAtBy}${mount.lookedAtOn ? `, ${dayText(mount.lookedAtOn)}` : ''}` : 'by nobody yet',
        !mount.lookedAtBy,
      )}
    </dl>
  )
}

/** How each device of the stage is held at the fastest speed, and what holds it when that lets go. */
export function MountsTab({ records, room, made }: AeroTabProps) {
  const address = useAddress()
  const { text } = useQuantities()
  const asked = made.mounts.find(({ deviceId }) => deviceId === address.get('mount'))
  if (made.mounts.length === 0)
    return (
      <Empty title="No wing and no splitter at this stage" why="What can fly into people stands here with its feet, bolts and rods, once it is in the car." />
    )
  return (
    <>
      <Caution className="mb-4">
        What comes off at {text('speed', room.basis.fastestMps, { decimals: 0 })} flies into people. Carry it to the chassis, hold it twice, and have a
        qualified person look at it; the event’s rules stand above all of this.
      </Caution>
      <div className="grid gap-x-8 gap-y-6 lg:grid-cols-2">
        {made.mounts.map((state) => (
          <section key={state.deviceId} aria-label={state.name}>
            <h2 className="mb-1 flex flex-wrap items-baseline gap-3">
              {state.name}
              {state.use !== null && state.use > 1 && <span className="text-sm text-danger">carries more than it is rated for</span>}
            </h2>
            <MountFigure state={state} />
            <MountWords state={state} />
            <p className="mt-2">
              <button type="button" className="button" onClick={() => address.set({ mount: state.deviceId })}>
                {state.mount ? 'Edit the mount' : 'Say how it is held'}
              </button>
            </p>
          </section>
        ))}
      </div>
      {asked && (
        <Panel title={`How ${asked.name} is held`} onClose={() => address.set({ mount: '' })}>
          <MountPanel records={records} state={asked} onDone={() => address.set({ mount: '' })} />
        </Panel>
      )}
    </>
  )
}
