import type { RecordsAnswer } from '@bold-ballast/contract'
import { type ElectricsView, type Placing, placingOf } from '@bold-ballast/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { KindPanel } from '../../../shared/kind-panel.tsx'
import { Panel } from '../../../ui/dialog.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Empty } from '../../../ui/states.tsx'
import type { SystemsTabProps } from '../tab-props.ts'
import { circuitsTable } from '../tables.ts'
import { boxForm, circuitForm, supplyForm } from './circuit-form.ts'
import { CircuitLine } from './circuit-line.tsx'
import { LoomEnds } from './loom-ends.tsx'
import { SupplySide } from './supply-side.tsx'
import { usePlacing } from './use-placing.ts'
import { WellsFigure, wellsOf } from './wells-figure.tsx'
import { WireTable } from './wire-table.tsx'

/** Alternator and battery of the build. */
function SupplyPanel({ records, onClose }: { records: RecordsAnswer; onClose: () => void }) {
  const { units } = useQuantities()
  const form = useMemo(supplyForm, [])
  const [patch] = api.usePatchBuildMutation()
  const { build } = records
  return (
    <Panel title="Alternator and battery" onClose={onClose}>
      <RecordForm
        key={build.version}
        draftKey={`${build.id}.supply`}
        fields={form.specs()}
        defaults={form.defaults(build.supply ? build : null, units)}
        submitLabel="Save"
        toBody={(read) => ({ version: build.version, ...form.body(read) })}
        send={(body) => patch({ buildId: build.id, body }).unwrap()}
        onDone={onClose}
      />
    </Panel>
  )
}

/** Outputs in the order they trip, in words. */
function TripList({ view }: { view: ElectricsView }) {
  const loaded = view.outputs.filter(({ factor }) => factor !== null)
  if (loaded.length === 0) return null
  return (
    <table className="w-full max-w-3xl border-collapse">
      <thead>
        <tr>
          <th className="text-left">Trips</th>
          <th className="pl-3 text-left">With</th>
          <th className="pl-3 text-right">Carries</th>
          <th className="pl-3 text-right">Trips at</th>
          <th className="pl-3 text-right">Times its load</th>
          <th className="pl-3 text-right">Set to</th>
        </tr>
      </thead>
      <tbody>
        {loaded.map(({ key, circuits, loadA, tripA, isTripSet, factor, settingA, problems }, i) => (
          <tr key={key} className="border-t border-line align-baseline">
            <td className="py-1 whitespace-nowrap">{i === 0 ? <b>first, {key}</b> : key}</td>
            <td className="py-1 pl-3">
              {circuits.map(({ name }) => name).join(', ')}
              {problems.map((words) => (
                <b key={words} className="block text-danger">
                  {words}
                </b>
              ))}
            </td>
            <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums">{loadA.toFixed(1)} A</td>
            <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums">
              {tripA} A{isTripSet ? ' set' : ''}
            </td>
            <td className={`py-1 pl-3 text-right tabular-nums ${(factor ?? 9) <= 1 ? 'font-bold text-danger' : i === 0 ? 'font-bold' : ''}`}>
              {factor?.toFixed(2)}
            </td>
            <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums text-quiet">{settingA} A</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** What placing found, before it is kept. */
function Proposal({
  placing,
  seconds,
  view,
  keep,
  forget,
  isBusy,
}: {
  placing: Placing
  seconds: number
  view: ElectricsView
  keep: () => void
  forget: () => void
  isBusy: boolean
}) {
  const amps = new Map(view.circuits.map(({ name, currentA }) => [name, currentA]))
  return (
    <section aria-label="The placing that was found" className="border-2 border-ink p-3">
      <p className="font-semibold">
        {placing.usedA} A of outputs used, {Math.round(100 * placing.leastHeadroom)} % free on the fullest.{' '}
        {placing.isProven ? 'No placing uses less, none as little has more room: proven' : 'Not proven the best'} in {seconds.toFixed(2)} s.
      </p>
      <WellsFigure
        loadShare={view.box?.loadShare ?? 0.8}
        wells={placing.outputs.map(({ key, ratedA, circuits }) => ({
          key,
          ratedA,
          tripA: ratedA,
          circuits: circuits.map((name) => ({ name, currentA: amps.get(name) ?? 0 })),
          hasProblem: false,
        }))}
      />
      <p className="text-quiet">
        Stay free: {placing.free.map(({ count, ratedA }) => `${count} of ${ratedA} A`).join(', ') || 'none'}.
        {view.box?.peakShare === null ? ' Starts were not checked: the box names no peak.' : ''}
      </p>
      <p className="mt-2 flex gap-2">
        <button type="button" className="button button-strong" disabled={isBusy} onClick={keep}>
          Keep this placing <kbd className="font-mono text-xs">Enter</kbd>
        </button>
        <button type="button" className="button" onClick={forget}>
          Leave it
        </button>
      </p>
    </section>
  )
}

/** Circuits on their outputs, what trips first, wires, supply. */
export function ElectricsTab({ records, made, stageId }: SystemsTabProps) {
  const view = made.electrics
  const { get, set } = useAddress()
  const [failure, setFailure] = useState<string | null>(null)
  const [isBoxOpen, setBoxOpen] = useState(false)
  const [isSupplyOpen, setSupplyOpen] = useState(false)
  const line = useRef<HTMLInputElement | null>(null)
  const placing = usePlacing()
  const [write, { isLoading }] = api.useBatchMutation()
  const [isAsked] = useAsked('circuit')
  useEffect(() => {
    if (isAsked) line.current?.focus()
  }, [isAsked])
  const own = records.powerBoxes.find(({ id }) => id === view.box?.id) ?? null
  const altered = records.circuits.find(({ id }) => id === get('circuit')) ?? null
  const forms = useMemo(() => ({ circuit: circuitForm(records), box: boxForm() }), [records])
  const place = () => {
    if (view.box) void placing.search(placingOf(view.box, view.circuits))
  }
  const found = placing.reply?.ok ? placing.reply : null
  const keep = async () => {
    if (!found) return
    const outputOf = new Map(found.placing.outputs.flatMap(({ key, circuits }) => circuits.map((name) => [name, key] as const)))
    const moved = records.circuits.filter(({ name, output }) => outputOf.has(name) && outputOf.get(name) !== output)
    const writes = moved.map(({ id, name, version }) => ({ kind: 'update', resource: 'circuits', id, body: { version, output: outputOf.get(name) } }))
    if (writes.length > 0) {
      const answer = await write({ buildId: records.build.id, batchId: crypto.randomUUID(), writes: writes as never })
      if (answer.error) return setFailure(readFailure(answer.error).message)
    }
    setFailure(null)
    placing.forget()
  }
  useTabKeys((key) => {
    if (key === 'n') line.current?.focus()
    else if (key === 'o') place()
    else if (key === 'Enter' && found) void keep()
    else if (key === 'Escape' && placing.reply) placing.forget()
    else return false
    return true
  })
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5 min-[1100px]:grid-cols-[minmax(0,1fr)_270px]">
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3">
        {failure && <Alert>{failure}</Alert>}
        {placing.reply && !placing.reply.ok && <Alert>{placing.reply.message}</Alert>}
        <CircuitLine records={records} input={line} />
        {view.box === null ? (
          <Empty
            title="No power box yet"
            why="Type its outputs with their ratings: 2 x 30, 4 x 20, 6 x 10. The circuits are placed on them, and the one that trips first is told."
          >
            <button type="button" className="button button-strong" onClick={() => setBoxOpen(true)}>
              Enter the box
            </button>
          </Empty>
        ) : (
          <>
            <p className="no-print flex flex-wrap items-center gap-3">
              <b>{view.box.name}</b>
              <button type="button" className="button" disabled={placing.isRunning || view.circuits.length === 0} onClick={place}>
                Place the circuits <kbd className="font-mono text-xs">o</kbd>
              </button>
              {placing.isRunning && (
                <button type="button" className="button" onClick={placing.cancel}>
                  Give up
                </button>
              )}
              <button type="button" className="word-link" onClick={() => setBoxOpen(true)}>
                Alter the box
              </button>
              {view.unplaced.length > 0 && <b className="text-wait">On no output: {view.unplaced.map(({ name }) => name).join(', ')}</b>}
            </p>
            {found ? (
              <Proposal placing={found.placing} seconds={found.seconds} view={view} keep={() => void keep()} forget={placing.forget} isBusy={isLoading} />
            ) : (
              <WellsFigure wells={wellsOf(view.outputs)} loadShare={view.box.loadShare} />
            )}
            <p className="text-[13px] text-quiet">
              As tall as rated; dashed: what an output carries for good{view.box.peakShare === null ? '; starts are not checked: the box names no peak' : ''}. A
              set trip is exact, a fuse is not.
            </p>
            <TripList view={view} />
          </>
        )}
        {view.wires.length > 0 && (
          <>
            <h2 className="mt-2">Wires</h2>
            <WireTable view={view} alter={(id) => set({ circuit: id })} />
            <p className="text-[13px] text-quiet">
              <CsvButton name={`${records.build.name} circuits`} table={() => circuitsTable(view)} />{' '}
              <button type="button" className="word-link" onClick={() => window.print()}>
                Print table and labels
              </button>{' '}
              By what may be lost and by what the output trips at, in a bundle (table of sizes from memory).
            </p>
          </>
        )}
        <LoomEnds circuits={view.circuits} name={records.build.name} />
        <ul className="hidden print:grid print:grid-cols-4 print:gap-2" aria-label="Labels">
          {view.circuits.map(({ id, name, output, ends }) => (
            <li key={id} className="border border-ink p-1 text-center">
              <b>{name}</b>
              <br />
              {[output, ...ends.map(({ connector, pin }) => [connector, pin].filter(Boolean).join('-'))].filter(Boolean).join(' · ') || '–'}
            </li>
          ))}
        </ul>
      </div>
      <SupplySide records={records} view={view} stageId={stageId} editSupply={() => setSupplyOpen(true)} />
      {isBoxOpen && (
        <KindPanel
          buildId={records.build.id}
          resource="power-boxes"
          word="box"
          form={forms.box}
          record={own}
          fixed={{ stageId }}
          onClose={() => setBoxOpen(false)}
        />
      )}
      {altered && (
        <KindPanel buildId={records.build.id} resource="circuits" word="circuit" form={forms.circuit} record={altered} onClose={() => set({ circuit: '' })} />
      )}
      {isSupplyOpen && <SupplyPanel records={records} onClose={() => setSupplyOpen(false)} />}
    </div>
  )
}
