import type { RecordsAnswer } from '@bold-ballast/contract'
import { type BallastCar, type BallastInput, buildAtStage, type NoBallastCar, placesOf, ratesOf, type WeightRoom } from '@bold-ballast/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Caution, Empty } from '../../../ui/states.tsx'
import { aimBody, aimDefaults, aimFieldSpecs, siteBody, siteDefaults, siteFieldSpecs } from './ballast-forms.ts'
import { Placement } from './ballast-placement.tsx'
import { BALLAST_OBJECTIVES_WORDS } from './ballast-words.ts'
import { PlatesFigure } from './plates-figure.tsx'
import { useBallast } from './use-ballast.ts'

const isCar = (car: BallastCar | NoBallastCar | undefined): car is BallastCar => car !== undefined && 'massKg' in car

/** Places for ballast, what it shall reach, and the plates that do it. */
export function BallastTab({ records, room, position, stageId }: { records: RecordsAnswer; room: WeightRoom; position: number; stageId: string }) {
  const { build, sites } = records
  const { text, units } = useQuantities()
  const [editing, setEditing] = useState<string | null>(null)
  const [isAiming, setIsAiming] = useState(false)
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const removal = useRemoval(build.id, 'sites')
  const { search: plan, reply, isRunning, cancel } = useBallast()
  const car = room.ballastCars[position]
  const aim = records.ballastAims.find((entry) => entry.stageId === stageId)
  const minimum = records.limits.find((limit) => limit.metric === 'massReady' && limit.sense === 'atLeast')
  const edited = sites.find(({ id }) => id === editing)
  const height = room.centres.findLast((centre) => centre.height !== null)?.height?.heightM
  const rates = ratesOf(buildAtStage(records, stageId))
  const run = () => {
    if (!isCar(car) || !aim) return
    const wanted = (share: typeof aim.front) => (share ? { value: share.value, within: share.within ?? undefined, weight: share.weight } : undefined)
    const input: BallastInput = {
      corners: car.cornersKg,
      ...placesOf(buildAtStage(records, stageId)),
      centreHeightM: height,
      rates,
      sites: sites.map(({ id, place, limitKg, plates }) => ({ id, ...place, limitKg, plates })),
      minimumKg: aim.minimumKg,
      mostOverKg: aim.mostOverKg ?? undefined,
      front: wanted(aim.front),
      left: wanted(aim.left),
      crossRfLr: rates ? wanted(aim.crossRfLr) : undefined,
      objective: aim.objective,
      loadFactorG: aim.loadFactorG ?? undefined,
    }
    void plan(input)
  }
  return (
    <div className="grid gap-7">
      {isCar(car) && sites.length > 0 && (
        <PlatesFigure records={records} stageId={stageId} cornersKg={car.cornersKg} placement={reply?.ok ? reply.answer.best : null} />
      )}
      <section>
        <h2 className="mb-1">The car without ballast, stage {position}</h2>
        {isCar(car) ? (
          <p>
            <strong className="text-[20px]">{text('mass', car.massKg)}</strong> with the reference driver and fuel
            {aim &&
              (car.massKg < aim.minimumKg
                ? `: ${text('mass', aim.minimumKg - car.massKg)} under the minimum of ${text('mass', aim.minimumKg, { isGoal: true })}.`
                : `: ${text('mass', car.massKg - aim.minimumKg)} over the minimum already.`)}
            {car.unplaced.length > 0 && (
              <span className="block text-wait">
                {car.unplaced.slice(0, 4).join(', ')}
                {car.unplaced.length > 4 && ` and ${car.unplaced.length - 4} more`} {car.unplaced.length === 1 ? 'has' : 'have'} no place and count in the
                middle.
              </span>
            )}
          </p>
        ) : (
          <p className="text-wait">
            {car?.why}{' '}
            <Link to={`/builds/${build.id}/plan?tab=car`} className="word-link">
              The car in the plan
            </Link>
          </p>
        )}
      </section>
      <div className="grid gap-8 min-[980px]:grid-cols-2">
        <section>
          <h2 className="mb-1">Places for it</h2>
          {removal.notice}
          {sites.length === 0 && <p className="mb-2 text-quiet">None yet. A place has a name, where it is, what its mount may carry, and plates.</p>}
          <ul className="mb-2">
            {sites.map((site) => (
              <li key={site.id} className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1.5">
                <strong className="basis-full sm:flex-1">{site.name}</strong>
                <span className="flex-1 text-quiet sm:flex-none">
                  up to {text('mass', site.limitKg)}; {site.plates.map(({ massKg, count }) => `${count} × ${text('mass', massKg)}`).join(', ')}
                </span>
                <button type="button" className="word-link" onClick={() => setEditing(site.id)} aria-label={`Change the place ${site.name}`}>
                  change
                </button>
                <button type="button" className="word-link" onClick={() => void removal.take(site)} aria-label={`Delete the place ${site.name}`}>
                  delete
                </button>
              </li>
            ))}
          </ul>
          <button type="button" className="button" onClick={() => setEditing('new')}>
            Add a place
          </button>
        </section>
        <section>
          <h2 className="mb-1">What it shall reach</h2>
          {aim ? (
            <p className="mb-2">
              At least <strong>{text('mass', aim.minimumKg, { isGoal: true })}</strong>; {BALLAST_OBJECTIVES_WORDS[aim.objective]}.
              {(['front', 'left', 'crossRfLr'] as const).map((key) => {
                const share = aim[key]
                return (
                  share && (
                    <span key={key} className="block">
                      {key === 'crossRfLr' ? 'Cross, RF + LR' : key === 'front' ? 'Front' : 'Left'} {text('share', share.value)}
                      {share.within ? `, within ${text('share', share.within)}` : ', as near as can be'}
                    </span>
                  )
                )
              })}
              {aim.loadFactorG !== null && <span className="block">Mounts hold {aim.loadFactorG} times their weight, by your rule book.</span>}
            </p>
          ) : (
            <p className="mb-2 text-quiet">Say what your class weighs and which shares you want.</p>
          )}
          <button type="button" className="button" onClick={() => setIsAiming(true)}>
            {aim ? 'Change it' : 'Say what it shall reach'}
          </button>
        </section>
      </div>
      {aim && sites.length > 0 && isCar(car) ? (
        <section>
          <div className="flex flex-wrap items-center gap-3">
            <button type="button" className="button button-strong" onClick={run} disabled={isRunning}>
              {isRunning ? 'Planning …' : 'Plan the plates'}
            </button>
            {isRunning && (
              <button type="button" className="button" onClick={cancel}>
                Give it up
              </button>
            )}
          </div>
          <div role="status" aria-busy={isRunning} className="mt-2">
            {reply &&
              (reply.ok ? (
                <p>
                  {reply.answer.isProven
                    ? 'Proven: no placement is better.'
                    : `The best found; the best possible is at most ${(reply.answer.gap * 100).toFixed(1)} % better.`}{' '}
                  <span className="text-quiet">Planned in {reply.seconds.toFixed(2)} s.</span>
                </p>
              ) : (
                <Alert>{reply.message}</Alert>
              ))}
          </div>
          {reply?.ok && (
            <>
              <Placement title="The plan" placement={reply.answer.best} records={records} stageId={stageId} objective={aim.objective} canStore />
              {reply.answer.runnersUp.map((placement, i) => (
                <Placement
                  key={JSON.stringify(placement.sites)}
                  title={`Runner-up ${i + 1}`}
                  placement={placement}
                  records={records}
                  stageId={stageId}
                  objective={aim.objective}
                  canStore={false}
                />
              ))}
            </>
          )}
        </section>
      ) : (
        isCar(car) && <Missing hasPlaces={sites.length > 0} hasAim={aim !== undefined} />
      )}
      <Caution>
        Ballast mounts are safety items: in a crash a plate becomes a missile. Follow your event’s rules for bolts, plates and load factor; have mounts made and
        inspected by qualified people.
      </Caution>
      {(editing === 'new' || edited) && (
        <Panel title={edited ? edited.name : 'A place for ballast'} onClose={() => setEditing(null)}>
          <RecordForm
            draftKey={edited ? `site.${edited.id}.${edited.version}` : `${build.id}.site`}
            fields={siteFieldSpecs}
            defaults={edited ? siteDefaults(edited, units) : {}}
            submitLabel={edited ? 'Store the place' : 'Add the place'}
            toBody={(read, id) => (edited ? { version: edited.version, ...siteBody(read) } : { id, ...siteBody(read) })}
            send={(body) =>
              edited
                ? patch({ buildId: build.id, resource: 'sites', id: edited.id, body }).unwrap()
                : create({ buildId: build.id, resource: 'sites', body }).unwrap()
            }
            onDone={() => setEditing(null)}
          />
        </Panel>
      )}
      {isAiming && (
        <Panel title={`What ballast shall reach, stage ${position}`} onClose={() => setIsAiming(false)}>
          <RecordForm
            draftKey={aim ? `aim.${aim.id}.${aim.version}` : `${stageId}.aim`}
            fields={aimFieldSpecs(rates !== undefined)}
            defaults={aimDefaults(aim, minimum?.value, units)}
            submitLabel="Store it"
            toBody={(read, id) => (aim ? { version: aim.version, ...aimBody(read) } : { id, stageId, ...aimBody(read) })}
            send={(body) =>
              aim
                ? patch({ buildId: build.id, resource: 'ballast-aims', id: aim.id, body }).unwrap()
                : create({ buildId: build.id, resource: 'ballast-aims', body }).unwrap()
            }
            onDone={() => setIsAiming(false)}
          />
        </Panel>
      )}
    </div>
  )
}

/** What a plan still needs, in words. */
function Missing({ hasPlaces, hasAim }: { hasPlaces: boolean; hasAim: boolean }) {
  const needs = [hasPlaces ? '' : 'at least one place that may carry something', hasAim ? '' : 'what the ballast shall reach at this stage'].filter(Boolean)
  return <Empty title={`${needs.length === 2 ? 'Two things are' : 'One thing is'} missing for a plan`} why={`Say ${needs.join(', and ')}.`} />
}
