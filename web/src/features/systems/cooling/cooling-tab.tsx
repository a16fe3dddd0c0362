import { COOLING_KINDS, type CoolingKind, type CoolingView, coolingPlanAt, formatChance } from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { KindPanel } from '../../../shared/kind-panel.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Caution, Empty } from '../../../ui/states.tsx'
import type { SystemsTabProps } from '../tab-props.ts'
import { coolingForm, MOUNT_WORDS } from './cooling-form.ts'
import { SettleFigure } from './settle-figure.tsx'
import { SideBySide } from './side-by-side.tsx'
import { WillItFit } from './will-it-fit.tsx'

const KIND_WORDS: Readonly<Record<CoolingKind, string>> = { coolant: 'Coolant', oil: 'Oil', charge: 'Charge air' }
const DOUBT_WORDS: Readonly<Record<CoolingView['mostDoubt'], string>> = {
  heat: 'how much heat a lap makes: log one steady lap',
  air: 'how much air goes through the core: log one steady lap',
  rating: 'what the core is rated at: ask its maker, or log one steady lap',
  logged: 'how far the logged laps lie apart: log one more',
}

function Side({ view, alter, hot }: { view: CoolingView; alter: () => void; hot: SystemsTabProps['made']['coolantHot'] }) {
  const { text } = useQuantities()
  const { setup, secondsToStop, cold, chanceUnder, mostDoubt } = view
  const { plan } = setup
  return (
    <aside className="grid content-start gap-4 min-[1100px]:border-l min-[1100px]:border-line min-[1100px]:pl-4">
      <section>
        <p className={`text-3xl leading-none font-black ${chanceUnder < 0.5 ? 'text-danger' : chanceUnder < 0.8 ? 'text-wait' : ''}`}>
          {formatChance(chanceUnder)}
        </p>
        <p>
          under {text('temperature', plan.stopK, { decimals: 0 })} at {text('speed', plan.hot.speedMps, { decimals: 0 })} in air of{' '}
          {text('temperature', plan.hot.airK, { decimals: 0 })}
        </p>
        {hot && plan.kind === 'coolant' && (
          <p className="mt-1">
            <Figure kind="temperature" value={hot.value} sd={hot.sd} proof={hot.proof} showSpread />
          </p>
        )}
        <p className="mt-1 text-quiet">
          {secondsToStop === null ? 'It never gets to its limit by this sum.' : `From warm to its limit in ${Math.round(secondsToStop)} s at full pace.`} What
          is doubted most: {DOUBT_WORDS[mostDoubt]}.
        </p>
      </section>
      {cold && (
        <section>
          <h2 className="mb-1">A cold day</h2>
          <p>
            Settles at <b>{text('temperature', cold.settledK, { decimals: 0 })}</b>
            {cold.isTooCold ? `, under ${text('temperature', plan.warmK, { decimals: 0 })}: the engine is not warm.` : ', warm enough.'}
          </p>
          {cold.isTooCold && (
            <p className="mt-1">
              {cold.cover === null ? (
                'No cover brings it there.'
              ) : (
                <>
                  Cover <b>{Math.round(100 * cold.cover)} %</b> of the core
                </>
              )}
              {cold.isHeld ? '; the thermostat holds it without.' : cold.cover === null ? '' : ', or fit a thermostat.'}
            </p>
          )}
        </section>
      )}
      <section>
        <h2 className="mb-1">It rests on</h2>
        <ul className="text-[13.5px]">
          <li>
            Heat {text('power', setup.heatW, { decimals: 0 })},{' '}
            {setup.heatFrom === 'typed'
              ? 'as typed'
              : `${Math.round(100 * setup.loadShare)} % of the engine plan’s${setup.isLoadUsual ? ' (usual, no source)' : ''}`}
          </li>
          <li>
            {setup.ratingFrom === 'rating'
              ? `Core rated ${text('power', setup.rating.ratedW, { decimals: 0 })} at ${setup.rating.ratedItdK.toFixed(0)} K, ${plan.rating?.known ?? ''}`
              : 'No rating: a logged lap stands for it'}
          </li>
          <li>
            Air {Math.round(100 * setup.faceShare)} % of road speed, {MOUNT_WORDS[plan.mount]}
            {setup.isFaceUsual ? ' (usual, no source)' : ''}
          </li>
          <li>
            {plan.logged.length === 0
              ? 'No lap was logged'
              : `${plan.logged.length} logged: ${setup.factor.toFixed(2)} times what the rating says${setup.loggedShare === null ? '' : ', standing for air and rating'}`}
          </li>
        </ul>
        <button type="button" className="word-link" onClick={alter}>
          Alter the plan
        </button>
      </section>
    </aside>
  )
}

/** Where it settles, hot and cold, how sure, and what to cover. */
export function CoolingTab({ records, made, position, stageId }: SystemsTabProps) {
  const { get, set } = useAddress()
  const [isAsked, setIsAsked] = useAsked('cooler')
  const [isOpen, setIsOpen] = useState(false)
  const kind = COOLING_KINDS.find((each) => each === get('kind')) ?? 'coolant'
  const form = useMemo(() => coolingForm(records), [records])
  const view = made.coolers[kind]
  const found = coolingPlanAt(records as never, position, kind)
  const own = records.coolingPlans.find(({ id }) => id === found?.plan.id) ?? null
  const close = () => {
    setIsOpen(false)
    setIsAsked(false)
  }
  return (
    <>
      <p className="no-print mb-3 flex flex-wrap gap-2">
        {COOLING_KINDS.map((each) => (
          <button
            key={each}
            type="button"
            aria-pressed={each === kind}
            onClick={() => set({ kind: each })}
            className={`min-h-8 px-2 font-semibold ${each === kind ? 'border-b-2 border-ink' : 'text-quiet'}`}
          >
            {KIND_WORDS[each]}
          </button>
        ))}
      </p>
      {view === null ? (
        <Empty
          title={`Nobody planned the ${KIND_WORDS[kind].toLowerCase()} yet`}
          why="Its heat, the core’s rating or one steady logged lap, where it sits, and the limit. A radiator cannot be judged by its size."
        >
          <button type="button" className="button button-strong" onClick={() => setIsOpen(true)}>
            Plan it
          </button>
        </Empty>
      ) : 'refused' in view ? (
        <>
          <Alert>{view.refused}</Alert>
          <button type="button" className="button mt-2" onClick={() => setIsOpen(true)}>
            Alter the plan
          </button>
        </>
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)] gap-5 min-[1100px]:grid-cols-[minmax(0,1fr)_290px]">
          <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-4">
            <h2>Settled, over road speed</h2>
            <SettleFigure view={view} />
            <p className="text-[13px] text-quiet">
              The band is one spread: heat 15 %, air 20 %, rating 10 % (common practice, no source)
              {view.position === position ? '' : `; the plan is stage ${view.position}’s`}. Holds by this sum: hoses, cap, pump and bleeding are looked at on
              the car.
            </p>
            <SideBySide records={records} coolers={made.beside[kind]} plan={own} stopK={view.setup.plan.stopK} stageId={stageId} />
            <WillItFit records={records} />
            <Caution>Never open a hot cooling system: it boils as its pressure goes.</Caution>
          </div>
          <Side view={view} alter={() => setIsOpen(true)} hot={made.coolantHot} />
        </div>
      )}
      {(isOpen || isAsked) && (
        <KindPanel
          buildId={records.build.id}
          resource="cooling-plans"
          word="plan of cooling"
          form={form}
          record={own}
          fixed={{ stageId }}
          begins={{ kind }}
          onClose={close}
        />
      )}
    </>
  )
}
