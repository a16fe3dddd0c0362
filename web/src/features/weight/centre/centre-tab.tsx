import type { RecordsAnswer } from '@bold-ballast/contract'
import { buildAtStage, leastLiftM, type WeighingCentre, type WeighingFigures, type WeightRoom } from '@bold-ballast/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Caution, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { ReferenceWords } from '../scales/reference-words.tsx'
import { CentreFigure } from './centre-figure.tsx'
import { CentreTrail, trailCentres } from './centre-trail.tsx'
import { LIFT_FIELDS } from './lift-fields.ts'

/** Where the mass stands: along and across by the scales, in height by lifting an axle, and as the ledger’s places had said. */
export function CentreTab({ records, room, position }: { records: RecordsAnswer; room: WeightRoom; position: number }) {
  const buildId = records.build.id
  const [lifting, setLifting] = useState<string | null>(null)
  const [create] = api.useCreateRecordMutation()
  const removal = useRemoval(buildId, 'lifts')
  const { text } = useQuantities()
  const [asked, setAsked] = useAsked('lift')
  const centres = [...room.centres].reverse()
  const latest = centres[0]
  const lifted = centres.find((centre) => centre.height !== null)
  const liftFor = lifting ?? (asked ? (latest?.weighingId ?? null) : null)
  const weighingOf = (id: string) => records.weighings.find((entry) => entry.id === id)
  const close = () => {
    setLifting(null)
    if (asked) setAsked(false)
  }
  if (!latest)
    return <Empty title="The car has not been on the scales" why="Four readings tell where its mass stands along and across; one axle lifted tells how high." />
  const stageAt = (id: string) => records.stages.find((stage) => stage.id === weighingOf(id)?.stageId)?.position
  const trail = trailCentres(room.centres, room.weighings, (id) => ({
    words: dayText(weighingOf(id)?.at ?? ''),
    isPicked: stageAt(id) === position,
  }))
  const shown = trail.findLast(({ isPicked }) => isPicked) ?? trail.at(-1)
  const heightOf = centres.find(({ weighingId, height }) => height !== null && weighingId === shown?.id) ?? lifted
  return (
    <div className="grid gap-6">
      {removal.notice}
      {shown && (
        <div className="grid gap-x-8 gap-y-5 min-[1080px]:grid-cols-[minmax(0,640px)_minmax(300px,1fr)]">
          <section className="min-w-0">
            <h2 className="mb-1 text-[20px]">
              {shown.words}: {text('length', shown.xM)} back, {text('length', Math.abs(shown.yM))} {shown.yM < 0 ? 'right' : 'left'}
              {heightOf?.height ? `, ${text('length', heightOf.height.heightM)} high` : ', height not measured'}
            </h2>
            <CentreFigure
              records={records}
              stageId={weighingOf(shown.id)?.stageId ?? ''}
              centre={shown}
              height={heightOf?.height ? { of: heightOf.height, words: dayText(weighingOf(heightOf.weighingId)?.at ?? '') } : null}
            />
          </section>
          <div className="grid min-w-0 content-start gap-5">
            <CentreTrail centres={trail} />
            {heightOf?.height && <LiftBars sdByLift={heightOf.height.sdByLift} />}
          </div>
        </div>
      )}
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach */}
      <section className="relative overflow-x-auto" aria-label="Centres of mass" tabIndex={0}>
        <p className="mb-1 text-quiet">
          Brought to the reference: <ReferenceWords records={records} />, no other load.
        </p>
        <table className="w-full border-collapse">
          <thead>
            <tr className="border-b border-line align-bottom">
              <th className="p-2">Weighing</th>
              <th className="p-2 text-right">Behind the front axle</th>
              <th className="p-2 text-right">Left of the middle</th>
              <th className="p-2 text-right">The ledger had said</th>
              <th className="p-2 text-right">Off by</th>
              <th className="p-2 text-right">Height</th>
              <th className="p-2">
                <span className="sr-only">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {centres.map((centre) => (
              <CentreRow
                key={centre.weighingId}
                centre={centre}
                spread={room.weighings.find((entry) => entry.weighingId === centre.weighingId)?.centre ?? null}
                at={weighingOf(centre.weighingId)?.at ?? ''}
                lift={() => setLifting(centre.weighingId)}
              />
            ))}
          </tbody>
        </table>
      </section>
      {latest.missingPlaces.length > 0 && (
        <p className="text-wait">
          The place of {latest.missingPlaces.join(' and ')} is not known, so the corners cannot be brought to the reference.{' '}
          <Link to="../plan?tab=car" relative="path" className="word-link">
            Say where it sits
          </Link>
        </p>
      )}
      {records.lifts.length > 0 && (
        <section>
          <h2 className="mb-1">Readings with an axle lifted</h2>
          <ul>
            {records.lifts.map((lift) => (
              <li key={lift.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-1.5">
                <span className="w-[130px]">{dayText(weighingOf(lift.weighingId)?.at ?? lift.at)}</span>
                <span className="flex-1">
                  {lift.lifted} axle up {text('length', lift.liftM)}, rear axle read {text('mass', lift.rearAxleKg)}
                </span>
                <button
                  type="button"
                  className="word-link"
                  onClick={() => void removal.take(lift)}
                  aria-label={`Delete the lift of ${text('length', lift.liftM)}`}
                >
                  delete
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {liftFor && (
        <Panel title="One axle lifted" onClose={close}>
          <Caution className="mb-3">
            Chocks at the axle on the ground, straps to what lifts it, nobody under the car, brakes off, suspension locked at ride height. Follow your event’s
            rules; lifting is for people who know how.
          </Caution>
          <RecordForm
            draftKey={`${liftFor}.lift`}
            fields={LIFT_FIELDS}
            defaults={{ lifted: 'rear' }}
            submitLabel="Store the reading"
            toBody={(read, id) => {
              const lift = read.quantity('lift', 'Lift', 'length')
              const rear = read.quantity('rearAxle', 'Rear axle', 'mass')
              const positive = (name: string, value: number, label: string) => value <= 0 && read.refuse(name, `${label} must be more than zero.`)
              positive('lift', lift.value, 'The lift')
              positive('rearAxle', rear.value, 'The reading')
              const { wheelbaseM } = buildAtStage(records, weighingOf(liftFor)?.stageId ?? '')
              if (lift.value <= leastLiftM(wheelbaseM))
                read.refuse(
                  'lift',
                  `That lift is too small to mean anything: the spread would drown it. Lift by more than ${text('length', leastLiftM(wheelbaseM))}; 300 mm and more is usual.`,
                )
              return {
                id,
                weighingId: liftFor,
                at: new Date().toISOString(),
                lifted: read.raw('lifted'),
                liftM: lift.value,
                liftSdM: lift.sd ?? null,
                rearAxleKg: rear.value,
                axleSdKg: rear.sd ?? null,
                radiusFrontM: read.quantity('radiusFront', 'Front radius', 'length').value,
                radiusRearM: read.quantity('radiusRear', 'Rear radius', 'length').value,
                typed: rear.typed,
              }
            }}
            send={(body) => create({ buildId, resource: 'lifts', body }).unwrap()}
            onDone={close}
            queueAs={{ buildId, resource: 'lifts', words: 'a lifted reading' }}
          />
        </Panel>
      )}
    </div>
  )
}

/** How much surer a higher lift makes the height: a bar for each lift, hatched because it says what a reading would give. */
function LiftBars({ sdByLift }: { sdByLift: readonly { readonly liftM: number; readonly sdM: number }[] }) {
  const { text, format, units } = useQuantities()
  const most = Math.max(...sdByLift.map(({ sdM }) => sdM))
  return (
    <section>
      <h2 className="mb-1">A higher lift, a surer height, {units.length}</h2>
      <ol className="flex items-end gap-2 border-b border-ink" aria-label="Spread of the height by lift">
        {sdByLift.map(({ liftM, sdM }) => (
          <li key={liftM} className="grid flex-1 justify-items-center text-xs">
            <strong>± {format('length', sdM).number}</strong>
            <span
              aria-hidden="true"
              className="w-3.5 border border-planned bg-[repeating-linear-gradient(135deg,var(--planned)_0_1.5px,transparent_1.5px_5px)]"
              style={{ height: Math.max(3, (52 * sdM) / most) }}
            />
            <span className="sr-only">lifted {text('length', liftM)}</span>
          </li>
        ))}
      </ol>
      <p className="flex gap-2 text-xs text-quiet" aria-hidden="true">
        {sdByLift.map(({ liftM }) => (
          <span key={liftM} className="flex-1 text-center">
            {format('length', liftM).number}
          </span>
        ))}
      </p>
    </section>
  )
}

function CentreRow({ centre, spread, at, lift }: { centre: WeighingCentre; spread: WeighingFigures['centre']; at: string; lift: () => void }) {
  const { text } = useQuantities()
  const { measured, predicted, height, heightRefusal, weighingId } = centre
  return (
    <tr className="border-b border-line align-baseline">
      <td className="p-2">
        <time dateTime={at}>{dayText(at)}</time>
      </td>
      <td className="p-2 text-right text-[16px]">
        {measured ? (
          <Figure
            kind="length"
            value={measured.xM}
            sd={spread?.behindFrontAxleM.sd}
            showSpread
            className="font-bold"
            working={{ of: 'centre', id: weighingId }}
          />
        ) : (
          <span className="text-quiet">not known</span>
        )}
      </td>
      <td className="p-2 text-right text-[16px]">
        {measured ? (
          <Figure
            kind="length"
            value={measured.yM}
            sd={spread?.leftOfMiddleM.sd}
            showSpread
            sign
            className="font-bold"
            working={{ of: 'centre', id: weighingId }}
          />
        ) : (
          ''
        )}
      </td>
      <td className="whitespace-nowrap p-2 text-right text-quiet">
        {predicted ? (
          <>
            {text('length', predicted.xM)}, {text('length', predicted.yM, { sign: true })}
            {predicted.unplacedKg > 0.05 && <span className="block text-xs text-wait">{text('mass', predicted.unplacedKg)} without a place</span>}
          </>
        ) : (
          'none before'
        )}
      </td>
      <td className="whitespace-nowrap p-2 text-right text-quiet">
        {predicted &&
          measured &&
          `${text('length', measured.xM - predicted.xM, { sign: true })}, ${text('length', measured.yM - predicted.yM, { sign: true })}`}
      </td>
      <td className="p-2 text-right text-[16px]">
        {height ? (
          <>
            <Figure kind="length" value={height.heightM} sd={height.sdM} showSpread className="font-bold" working={{ of: 'height', id: weighingId }} />
            {height.warnings.map((warning) => (
              <span key={warning} className="block max-w-[240px] text-left text-xs text-wait">
                {warning}
              </span>
            ))}
          </>
        ) : (
          heightRefusal && <span className="block max-w-[240px] text-left text-xs">{heightRefusal}</span>
        )}
      </td>
      <td className="whitespace-nowrap p-2 text-right">
        <button type="button" className="word-link" onClick={lift} aria-label={`lift an axle: a reading for ${dayText(at)}`}>
          lift an axle
        </button>
      </td>
    </tr>
  )
}
