import {
  attempt,
  CalculationError,
  contactMps,
  fromSi,
  type HeightsInput,
  heightsAlong,
  rideHeights,
  type StageAxle,
  type Touch,
  touches,
} from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo } from 'react'
import { Panel } from '../../../ui/dialog.tsx'
import { Chart, useChartColours } from '../../../ui/drawing/chart.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Empty } from '../../../ui/states.tsx'
import { StageSetupForm } from '../setup/stage-setup-form.tsx'
import type { AeroTabProps } from '../tab-props.ts'
import { Finder } from './finder.tsx'
import { springBody, springDefaults, springFieldSpecs } from './springs-form.ts'

const STEPS = 80
/** What stands higher than this does not come near the ground. */
const LOW_M = 0.25

function Rates({ front, rear }: { front: StageAxle; rear: StageAxle }) {
  return (
    <ScrollBox label="Springs">
      <table className="w-full">
        <thead>
          <tr className="text-xs text-quiet">
            <th className="text-left font-normal">Axle</th>
            <th className="text-right font-normal">spring</th>
            <th className="text-right font-normal">ratio</th>
            <th className="text-right font-normal">at the wheel</th>
            <th className="text-right font-normal">with the tyre</th>
            <th className="text-right font-normal">frequency</th>
            <th className="text-right font-normal">ratio read the other way</th>
          </tr>
        </thead>
        <tbody>
          {(
            [
              ['front', front],
              ['rear', rear],
            ] as const
          ).map(([name, { springs, rates }]) => (
            <tr key={name} className="border-t border-line">
              <th scope="row" className="py-1 text-left font-normal">
                {name}
              </th>
              <td className="py-1 text-right">
                <Figure kind="springRate" value={springs.springRateNPerM} decimals={1} />
              </td>
              <td className="py-1 text-right tabular-nums">{springs.motionRatio.toFixed(2)}</td>
              <td className="py-1 text-right font-semibold">
                <Figure kind="springRate" value={rates.wheelRateNPerM} decimals={1} />
              </td>
              <td className="py-1 text-right">
                <Figure kind="springRate" value={rates.rideRateNPerM} decimals={1} />
              </td>
              <td className="py-1 text-right">
                {rates.rideFrequencyHz === null ? '' : <Figure kind="frequency" value={rates.rideFrequencyHz} decimals={2} />}
              </td>
              <td className="py-1 text-right text-quiet">
                <Figure kind="springRate" value={rates.otherReadingNPerM} decimals={1} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollBox>
  )
}

function Curves({ input, fastestMps }: { input: HeightsInput; fastestMps: number }) {
  const colours = useChartColours()
  const { units } = useQuantities()
  const { data, layout } = useMemo(() => {
    const speeds = Array.from({ length: STEPS }, (_, i) => (fastestMps * i) / (STEPS - 1))
    const found = heightsAlong(input, speeds)
    const x = speeds.map((speed) => fromSi('speed', speed, units.speed))
    const low = input.points.filter(({ zM }) => zM < LOW_M)
    const least = [...new Set(low.map(({ name }) => name))].map((name) => ({
      name,
      y: found.map((each) =>
        fromSi('length', Math.min(...input.points.flatMap((point, i) => (point.name === name ? [each.pointsM[i] ?? Number.NaN] : []))), units.length),
      ),
    }))
    const dashes = ['solid', 'dash', 'dot', 'dashdot', 'longdash'] as const
    const data = least.map(
      ({ name, y }, i): Data => ({
        type: 'scatter',
        mode: 'lines',
        name,
        x,
        y,
        line: { color: i === 0 ? colours.pine : colours.slate, width: i === 0 ? 2.8 : 1.8, dash: dashes[i % dashes.length] as 'solid' },
        hovertemplate: `%{y:.1f} ${units.length} at %{x:.0f} ${units.speed}<extra>${name}</extra>`,
      }),
    )
    return {
      data,
      layout: {
        margin: { t: 8, r: 12, b: 40, l: 56 },
        xaxis: { title: { text: units.speed } },
        yaxis: { title: { text: `over the ground, ${units.length}` } },
        showlegend: true,
      },
    }
  }, [input, fastestMps, colours, units])
  return <Chart data={data} layout={layout} label="Height of the lowest points against speed" className="h-[340px] w-full" />
}

/** The worse end of each device, lowest first. */
function byName(all: readonly Touch[]): Touch[] {
  const worst = new Map<string, Touch>()
  for (const each of all) {
    const before = worst.get(each.name)
    if (!before || each.leastM < before.leastM) worst.set(each.name, each)
  }
  return [...worst.values()].sort((a, b) => a.leastM - b.leastM)
}

/** What is told of a car's heights up to its fastest speed. */
const heightsOf = (input: HeightsInput, fastestMps: number) => ({
  found: byName(touches(input, fastestMps)).filter(({ leastM }) => leastM < LOW_M),
  fast: rideHeights(input, fastestMps),
  contacts: (['front', 'rear'] as const).flatMap((axle) => {
    const speedMps = contactMps(input, axle)
    return speedMps === null ? [] : [{ axle, speedMps }]
  }),
})

/** What devices with a height map do at the fastest speed, and where they pull the car onto the track. */
function Mapped({ input, factors, found }: { input: HeightsInput; factors: readonly number[]; found: readonly Touch[] }) {
  const { text } = useQuantities()
  return (input.mapped ?? []).map(({ name }, i) => {
    const touch = found.find((each) => each.name === name)?.touchMps ?? null
    return (
      <p key={name} className={`mt-1 ${touch === null ? '' : 'border-l-4 border-danger pl-3'}`}>
        {touch === null
          ? `${name} gives ${text('share', factors[i] ?? 1, { decimals: 0 })} of what its value says there, by its height map.`
          : `${name} is pulled down until it stands on the track above ${text('speed', touch, { decimals: 0 })}.`}
      </p>
    )
  })
}

/** How the car sinks with speed, what touches when, and rates at the wheel beside those of the springs. */
export function HeightTab(props: AeroTabProps) {
  const { made, room, heights: input } = props
  const { text, units } = useQuantities()
  const [isTyping, setIsTyping] = useAsked('springs')
  const { front, rear } = made
  const { basis } = room
  const worked = useMemo(() => (input ? attempt(() => heightsOf(input, basis.fastestMps)) : null), [input, basis.fastestMps])
  return (
    <>
      <p className="mb-3">
        <button type="button" className="button" onClick={() => setIsTyping(true)}>
          Springs, gaps and packers
        </button>
      </p>
      {worked instanceof CalculationError ? (
        <p className="border-l-4 border-wait pl-3">{worked.message}</p>
      ) : input && front && rear && worked ? (
        <div className="grid gap-x-6 gap-y-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,430px)]">
          <div className="min-w-0">
            <h2 className="mb-1">Over the ground, against speed</h2>
            <Curves input={input} fastestMps={basis.fastestMps} />
            <h2 className="mt-3 mb-1">Rates</h2>
            <Rates front={front} rear={rear} />
          </div>
          <div>
            <h2 className="mb-1">At {text('speed', basis.fastestMps, { decimals: 0 })}</h2>
            <p>
              The front sinks <strong>{text('length', worked.fast.frontDropM, { decimals: 1 })}</strong>, the rear{' '}
              <strong>{text('length', worked.fast.rearDropM, { decimals: 1 })}</strong>.{' '}
              {Math.abs(worked.fast.rakeChangeRad) > 0.003 && 'The rake changes by over 3 mrad: floor and diffuser were given at another rake.'}
            </p>
            <table className="mt-2 w-full">
              <thead>
                <tr className="text-xs text-quiet">
                  <th className="text-left font-normal">Lowest points</th>
                  <th className="text-right font-normal">least</th>
                  <th className="text-right font-normal">touches at</th>
                </tr>
              </thead>
              <tbody>
                {worked.found.map((point) => (
                  <tr key={point.name} className="border-t border-line">
                    <th scope="row" className="py-1 text-left font-normal">
                      {point.name}
                    </th>
                    <td className="py-1 text-right">
                      <Figure kind="length" value={point.leastM} decimals={1} />
                    </td>
                    <td className={`py-1 text-right ${point.touchMps === null ? 'text-quiet' : 'font-semibold text-danger'}`}>
                      {point.touchMps === null ? 'never' : text('speed', point.touchMps, { decimals: 0 })}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {worked.contacts.map(({ axle, speedMps }) => (
              <p key={axle} className="mt-1">
                The {axle} rubber is met at <strong>{text('speed', speedMps, { decimals: 0 })}</strong> by the air alone.
              </p>
            ))}
            <Mapped input={input} factors={worked.fast.factors} found={worked.found} />
            {props.totals.loads.test !== null && made.devices.some(({ heightMap }) => heightMap) && (
              <p className="mt-1 text-quiet">A test of the whole car was read at the heights it had: height maps do not stand beside it.</p>
            )}
            <Finder input={input} front={front} fastestMps={basis.fastestMps} />
          </div>
        </div>
      ) : (
        <Empty
          title="Springs and an outline are missing"
          why="With the springs of both axles, the underside and what the devices push, the heights against speed stand here, and the speed at which something touches."
        />
      )}
      {isTyping && (
        <Panel title="What is turned and not bolted, at this stage" onClose={() => setIsTyping(false)}>
          <StageSetupForm
            records={props.records}
            stageId={props.stageId}
            part="setup"
            fields={springFieldSpecs}
            defaults={() => springDefaults(made, units)}
            submitLabel="Store the set-up"
            toBody={springBody}
            onDone={() => setIsTyping(false)}
          />
        </Panel>
      )}
    </>
  )
}
